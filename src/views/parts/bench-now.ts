'use client';

import { useQuery } from '@tanstack/react-query';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';

const LOOK_MS = 1500;
const JOB_MS = 200;

/** The bench and the jobs as they are now, looked at again and again; more often while a job is under way. */
export function useBenchNow() {
  const bench = useQuery({
    queryKey: ['bench'],
    queryFn: () => call(radioApi.radios),
    refetchInterval: LOOK_MS,
    retry: false,
  });
  const jobs = useQuery({
    queryKey: ['jobs'],
    queryFn: () => call(radioApi.jobs),
    refetchInterval: ({ state }) =>
      state.data?.jobs.some((job) => job.state === 'running') ? JOB_MS : LOOK_MS * 2,
    retry: false,
  });
  return { bench, jobs };
}
