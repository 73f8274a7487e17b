import { api, getCopy, route } from '@/server';

export const GET = route(api.copyImage, async ({ params }) => {
  const copy = await getCopy(params.id);
  return { file: copy.image, type: 'application/octet-stream', name: `${copy.serial}-${copy.id}.bin` };
});
