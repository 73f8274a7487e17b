import { api, fitPlan, route } from '@/server';

export const GET = route(api.fit, ({ params, query }) => fitPlan(params.id, query.model));
