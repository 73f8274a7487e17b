import { api, route, searchRegister } from '@/server';

export const GET = route(api.entries, ({ query: { radius, plan, model, ...at } }) =>
  searchRegister({ ...at, radiusKm: radius, planId: plan, modelId: model }),
);
