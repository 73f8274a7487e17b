import { api, DIRECTORIES, route } from '@/server';

export const GET = route(api.directories, () => ({ directories: DIRECTORIES }));
