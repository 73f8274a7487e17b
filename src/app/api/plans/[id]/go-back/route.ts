import { api, goBack, route } from '@/server';

export const POST = route(api.goBack, ({ params, body }) => goBack(params.id, body.base, body.revision));
