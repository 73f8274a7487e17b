import { api, findModels, route } from '@/server';

export const GET = route(api.models, ({ query }) => ({ models: findModels(query.q) }));
