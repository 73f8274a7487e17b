import { api, editPlan, planLog, route } from '@/server';

export const GET = route(api.edits, async ({ params, query }) => ({
  edits: await planLog(params.id, query.before, query.limit),
}));

export const POST = route(api.edit, ({ params, body }) => editPlan(params.id, body.base, body.edit));
