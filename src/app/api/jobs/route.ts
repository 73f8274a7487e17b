import { api, listJobs, route, startJob } from '@/server';

export const GET = route(api.jobs, async () => ({ jobs: await listJobs() }));

export const POST = route(api.startJob, ({ body }) => startJob(body));
