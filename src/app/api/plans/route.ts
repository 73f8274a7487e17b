import { api, createPlan, listPlans, route } from '@/server';

export const GET = route(api.plans, async ({ query }) => ({ plans: await listPlans(query) }));

export const POST = route(api.createPlan, ({ body }) =>
  createPlan({
    ...body,
    owner: { callSign: '', region: 'orrin', grade: 'full', strict: false, ...body.owner },
  }),
);
