'use client';

import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import { liveSchema, type Decision, type JobRequest, type Live, type LiveRequest } from '@/core/bench';
import type { RadioId } from '@/core/plan';
import { useBenchNow } from '@/views/parts/bench-now';
import { whileSeen } from '@/views/parts/while-seen';

const livesSchema = z.object({ lives: z.array(liveSchema) });

/** What follows what, as it happens. */
function useLives(): readonly Live[] {
  const [lives, setLives] = useState<readonly Live[]>([]);
  useEffect(
    () =>
      whileSeen('/api/live-events', (data) => {
        const read = livesSchema.safeParse(JSON.parse(data));
        if (read.success) setLives(read.data.lives);
      }),
    [],
  );
  return lives;
}

/** The bench as it is now, looked at again and again; the newest job of each radio. */
export function useBench() {
  const client = useQueryClient();
  const { bench, jobs } = useBenchNow();
  const running = jobs.data?.jobs.some((job) => job.state === 'running') ?? false;
  const wasRunning = useRef(false);
  useEffect(() => {
    if (wasRunning.current && !running) void client.invalidateQueries();
    wasRunning.current = running;
  }, [running, client]);

  const start = useMutation({
    mutationFn: (body: JobRequest) => call(radioApi.startJob, { body }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const stop = useMutation({ mutationFn: (id: string) => call(radioApi.stopJob, { params: { id } }) });
  const lives = useLives();
  const settled = { onSettled: () => client.invalidateQueries() };
  const follow = useMutation({
    mutationFn: (body: LiveRequest) => call(radioApi.startLive, { body }),
    ...settled,
  });
  const unfollow = useMutation({
    mutationFn: (id: RadioId) => call(radioApi.endLive, { params: { id } }),
    ...settled,
  });
  const decide = useMutation({
    mutationFn: ({ id, ...body }: Decision & { id: RadioId }) =>
      call(radioApi.decideLive, { params: { id }, body }),
    ...settled,
  });
  const [dismissed, setDismissed] = useState<string | null>(null);
  return {
    bench: bench.data,
    trouble: bench.error?.message,
    jobOf: (radioId: string) =>
      jobs.data?.jobs.find((job) => job.radioId === radioId && job.id !== dismissed),
    start,
    liveOf: (radioId: string) => lives.find((live) => live.radioId === radioId),
    follow,
    unfollow,
    decide,
    stop: (id: string) => stop.mutate(id),
    dismiss: setDismissed,
    /** Looks again at once. */
    look: () => void client.invalidateQueries(),
  };
}

export type BenchInHand = ReturnType<typeof useBench>;
