import { api, checkPlan, route } from '@/server';

export const GET = route(api.check, ({ params, query }) => checkPlan(params.id, query.model));
