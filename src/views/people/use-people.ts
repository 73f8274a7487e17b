'use client';

import { keepPreviousData, useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useRef, useState } from 'react';
import { call } from '@/api/call';
import { peopleApi } from '@/api/people';
import { base64Of } from '@/views/parts';
import type { ListedPerson, PersonMark } from '@/core/people/person.schema';

/** People that are fetched at once. */
export const PAGE = 100;
const LOADING_MS = 300;
/** Most people who are shown of a question. */
const FOUND = 200;

/** The roll, who is looked for, and what is said of people. */
export function usePeople() {
  const client = useQueryClient();
  const [words, setWords] = useState('');
  const wanted = useDeferredValue(words).trim();
  const [chosen, setChosen] = useState<ListedPerson | null>(null);
  const roll = useQuery({
    queryKey: ['people', 'roll'],
    queryFn: () => call(peopleApi.roll),
    refetchInterval: ({ state }) => (state.data?.load?.state === 'loading' ? LOADING_MS : false),
    retry: false,
  });
  const loading = roll.data?.load?.state === 'loading';
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !loading) void client.invalidateQueries({ queryKey: ['people'] });
    was.current = loading;
  }, [loading, client]);
  const settled = { onSettled: () => client.invalidateQueries({ queryKey: ['people'] }) };
  const load = useMutation({ mutationFn: () => call(peopleApi.loadRoll), ...settled });
  const stop = useMutation({ mutationFn: () => call(peopleApi.stopRoll), ...settled });
  const loadFile = useMutation({
    mutationFn: async (file: File) => {
      const packed = new Response(file.stream().pipeThrough(new CompressionStream('gzip')));
      const gzip = await base64Of(new File([await packed.blob()], file.name));
      return call(peopleApi.loadFile, { body: { name: file.name.slice(0, 80), gzip } });
    },
    ...settled,
  });
  const found = useQuery({
    queryKey: ['people', 'found', wanted],
    queryFn: () => call(peopleApi.findPeople, { query: { q: wanted, most: FOUND } }),
    enabled: wanted !== '',
    placeholderData: keepPreviousData,
    retry: false,
  });
  const marked = useQuery({
    queryKey: ['people', 'marked'],
    queryFn: () => call(peopleApi.markedPeople),
    retry: false,
  });
  const mark = useMutation({
    mutationFn: ({ id, ...body }: PersonMark & { id: number }) =>
      call(peopleApi.markPerson, { params: { id }, body }),
    onSuccess: (now) => setChosen((before) => (before?.id === now.id ? now : before)),
    ...settled,
  });
  return {
    words,
    setWords,
    wanted,
    roll,
    loading,
    load,
    loadFile,
    stop,
    found,
    marked,
    mark,
    chosen,
    setChosen,
  };
}
export type PeopleInHand = ReturnType<typeof usePeople>;

/** Those of all people who are between two places, as far as they have come. */
export function useStretch(from: number, to: number): (at: number) => ListedPerson | undefined {
  const pages: number[] = [];
  for (let page = Math.floor(from / PAGE); page <= Math.floor(Math.max(from, to) / PAGE); page++)
    pages.push(page);
  const parts = useQueries({
    queries: pages.map((page) => ({
      queryKey: ['people', 'page', page],
      queryFn: () => call(peopleApi.people, { query: { from: page * PAGE, count: PAGE } }),
      staleTime: 60_000,
      retry: false,
    })),
  });
  return (at) => parts[Math.floor(at / PAGE) - pages[0]!]?.data?.people[at % PAGE];
}
