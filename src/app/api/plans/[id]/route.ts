import { api, getPlan, route, setRemoved } from '@/server';

export const GET = route(api.plan, ({ params }) => getPlan(params.id));

export const DELETE = route(api.removePlan, ({ params }) => setRemoved(params.id, true));
