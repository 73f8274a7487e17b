import { api, lookAtBench, route } from '@/server';

export const GET = route(api.radios, () => lookAtBench());
