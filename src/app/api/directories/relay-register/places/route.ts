import { api, findPlaces, route } from '@/server';

export const GET = route(api.places, async ({ query }) => ({ places: await findPlaces(query.q) }));
