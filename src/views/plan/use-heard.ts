'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { byChannel, type HeardByChannel } from '@/core/heard';
import type { HeardAt } from '@/core/heard/heard.schema';
import type { PlanId } from '@/core/plan';
import { contract } from './plan-calls';

const NOTHING: HeardByChannel = new Map();

/** Asked for when the first screenful has long been drawn, ms. */
const AT_REST_MS = 400;

/** What was heard of the channels of a plan; nothing until it has been asked for. */
export function useHeard(id: PlanId) {
  const client = useQueryClient();
  const [rested, setRested] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setRested(true), AT_REST_MS);
    return () => clearTimeout(timer);
  }, []);
  const queryKey = ['heard', id];
  const { data = NOTHING, dataUpdatedAt } = useQuery({
    queryKey,
    queryFn: async () => {
      const { call, planApi } = await contract();
      const { heard } = await call(planApi.heard, { params: { id }, query: { weeks: 0 } });
      return byChannel(heard);
    },
    enabled: rested,
    structuralSharing: false,
    retry: false,
  });
  return {
    heard: data,
    heardAsked: dataUpdatedAt,
    /** Keeps when channels were heard, or forgets it. Throws what the interface refuses. */
    hear: async (put: HeardAt[], drop: HeardAt[] = []) => {
      const { call, planApi } = await contract();
      const answer = await call(planApi.hear, { params: { id }, body: { put, drop } });
      await client.invalidateQueries({ queryKey });
      return answer;
    },
  };
}
