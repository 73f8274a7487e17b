import { api, route, stepBack } from '@/server';

export const POST = route(api.undo, ({ params }) => stepBack(params.id, 'undo'));
