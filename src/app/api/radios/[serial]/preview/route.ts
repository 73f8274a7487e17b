import { api, previewWrite, route } from '@/server';

export const GET = route(api.writePreview, ({ params, query }) => previewWrite(params.serial, query.plan));
