import { api, listCopies, route } from '@/server';

export const GET = route(api.copies, async ({ params }) => ({ copies: await listCopies(params.serial) }));
