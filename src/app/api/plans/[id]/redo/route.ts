import { api, route, stepBack } from '@/server';

export const POST = route(api.redo, ({ params }) => stepBack(params.id, 'redo'));
