import { openApiDocument } from '@/server';

export const GET = () => Response.json(openApiDocument());
