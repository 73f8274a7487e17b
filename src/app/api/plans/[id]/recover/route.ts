import { api, route, setRemoved } from '@/server';

export const POST = route(api.recoverPlan, ({ params }) => setRemoved(params.id, false));
