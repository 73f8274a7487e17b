'use client';

import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { PeopleChoice } from '@/core/bench';
import { peopleBytes } from '@/core/image/people-memory';
import { secondsOnLine } from '@/core/link/block-time';
import { cableOf, type Model } from '@/core/models';
import { useBenchNow } from '@/views/parts/bench-now';

/** The radios of a model on the bench into whose memory for people somebody can write, what is under way with one, and how long it takes. */
export function useIntoRadio(model: Model) {
  const client = useQueryClient();
  const { bench, jobs } = useBenchNow();
  const there = (bench.data?.radios ?? []).filter(
    ({ modelId, port }) => modelId === model.id && port !== null,
  );
  const [wanted, setWanted] = useState<string | null>(null);
  const radio = there.find(({ id }) => id === wanted) ?? there[0];
  const [dismissed, setDismissed] = useState<string | null>(null);
  const newest = jobs.data?.jobs.find((job) => job.radioId === radio?.id);
  const start = useMutation({
    mutationFn: (choice: PeopleChoice) =>
      call(radioApi.startJob, { body: { kind: 'people', radioId: radio!.id, choice } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const stop = useMutation({
    mutationFn: (id: string) => call(radioApi.stopJob, { params: { id } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  return {
    ...{ bench, there, radio, setWanted, start },
    busy: newest?.state === 'running',
    job: newest?.kind === 'people' && newest.id !== dismissed ? newest : undefined,
    stop: (id: string) => stop.mutate(id),
    dismiss: setDismissed,
    /** Seconds that so many people take at the rate of its line. */
    secondsFor: (people: number) => secondsOnLine(peopleBytes(people, model), model),
    lineRate: cableOf(model).lineRate,
  };
}
