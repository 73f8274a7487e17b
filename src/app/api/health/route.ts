import { api, databaseKind, route } from '@/server';

export const GET = route(api.health, async () => ({ status: 'ok', database: await databaseKind() }));
