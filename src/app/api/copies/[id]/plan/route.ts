import { api, planFromCopy, route } from '@/server';

export const POST = route(api.copyPlan, ({ params }) => planFromCopy(params.id));
