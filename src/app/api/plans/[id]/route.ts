import { api, getPlan, route } from '@/server';

export const GET = route(api.plan, ({ params }) => getPlan(params.id));
