import { api, duplicatePlan, route } from '@/server';

export const POST = route(api.duplicatePlan, ({ params }) => duplicatePlan(params.id));
