'use client';

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ask } from '@/ui';
import type { Bench, Job } from '@/core/bench';

const LOOK_MS = 1500;
const JOB_MS = 200;

/** The bench as it is now, looked at again and again; the newest job of each radio. */
export function useBench() {
  const client = useQueryClient();
  const bench = useQuery({
    queryKey: ['bench'],
    queryFn: () => ask<Bench>('/api/radios'),
    refetchInterval: LOOK_MS,
    retry: false,
  });
  const jobs = useQuery({
    queryKey: ['jobs'],
    queryFn: () => ask<{ jobs: Job[] }>('/api/jobs'),
    refetchInterval: ({ state }) =>
      state.data?.jobs.some((job) => job.state === 'running') ? JOB_MS : LOOK_MS * 2,
    retry: false,
  });
  const running = jobs.data?.jobs.some((job) => job.state === 'running') ?? false;
  const wasRunning = useRef(false);
  useEffect(() => {
    if (wasRunning.current && !running) void client.invalidateQueries();
    wasRunning.current = running;
  }, [running, client]);

  const start = useMutation({
    mutationFn: (request: object) => ask<Job>('/api/jobs', 'POST', request),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const stop = useMutation({ mutationFn: (id: string) => ask<Job>(`/api/jobs/${id}`, 'DELETE') });
  const [dismissed, setDismissed] = useState<string | null>(null);
  return {
    bench: bench.data,
    trouble: bench.error?.message,
    jobOf: (serial: string) => jobs.data?.jobs.find((job) => job.serial === serial && job.id !== dismissed),
    start,
    stop: (id: string) => stop.mutate(id),
    dismiss: setDismissed,
  };
}

export type BenchInHand = ReturnType<typeof useBench>;
