import { api, getJob, route, stopJob } from '@/server';

export const GET = route(api.job, ({ params }) => getJob(params.id));

export const DELETE = route(api.stopJob, ({ params }) => stopJob(params.id));
