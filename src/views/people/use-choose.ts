'use client';

import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { call } from '@/api/call';
import { peopleApi } from '@/api/people';
import { planApi } from '@/api/plans';
import { modelById } from '@/core/models';
import { choosePeople, displayName, roomForPeople, worstNames } from '@/core/people/choose';
import { coveredBy } from '@/core/people/rank';
import type { PeopleChoice } from '@/core/bench';
import type { Board } from '@/core/people/person.schema';
import { makeId, type PlanId } from '@/core/plan';

const LOADING_MS = 300;
/** Of those who go into a memory of their own so many are named here; they are gathered by the server. */
const NAMED_APART = 200;
const DAY_MS = 86_400_000;

/** Periods that are offered, in days before the board's newest; 0 is all of it. */
export const PERIODS = [
  ['7', 'the last week'],
  ['30', 'the last 30 days'],
  ['0', 'all that the board has'],
] as const;
export type Period = (typeof PERIODS)[number][0];

const since = ({ to, from }: Board, days: number) =>
  days === 0 ? from : new Date(Date.parse(to) - (days - 1) * DAY_MS).toISOString().slice(0, 10);

/** The board, by what people are ranked, for which plan they are chosen, and what would come of it. */
export function useChoose() {
  const client = useQueryClient();
  const board = useQuery({
    queryKey: ['people', 'board'],
    queryFn: () => call(peopleApi.board),
    refetchInterval: ({ state }) => (state.data?.load?.state === 'loading' ? LOADING_MS : false),
    retry: false,
  });
  const loading = board.data?.load?.state === 'loading';
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !loading) void client.invalidateQueries({ queryKey: ['people'] });
    was.current = loading;
  }, [loading, client]);
  const settled = { onSettled: () => client.invalidateQueries({ queryKey: ['people', 'board'] }) };
  const load = useMutation({ mutationFn: () => call(peopleApi.loadBoard), ...settled });
  const stop = useMutation({ mutationFn: () => call(peopleApi.stopBoard), ...settled });

  const plans = useQuery({
    queryKey: ['plans', 'for people'],
    queryFn: () => call(planApi.planNames),
  });
  const digital = useMemo(
    () =>
      (plans.data?.plans ?? []).filter(
        ({ modelId, trouble }) => trouble === null && modelById(modelId)?.digital,
      ),
    [plans.data],
  );
  const [planId, setPlanId] = useState<PlanId | null>(null);
  const wantedPlan =
    planId ??
    digital.find(({ modelId }) => modelById(modelId)?.digital?.people.where === 'talkgroups')?.id ??
    digital[0]?.id;
  const kept = useQuery({
    queryKey: ['plan', wantedPlan, 'for people'],
    queryFn: () => call(planApi.plan, { params: { id: wantedPlan! } }),
    enabled: wantedPlan !== undefined,
  });
  const plan = kept.data?.plan ?? null;
  const model = plan ? (modelById(plan.modelId) ?? null) : null;

  const [groups, setGroups] = useState<ReadonlySet<number>>(new Set());
  const [period, setPeriod] = useState<Period>('0');
  const [everybody, setEverybody] = useState(false);
  const [reserve, setReserve] = useState(20);
  const [template, setTemplate] = useState('{call} {first}');
  const [cut, setCut] = useState<number | null>(null);
  const room = plan && model ? roomForPeople(plan, model, reserve) : 0;
  const apart = model?.digital?.people.where === 'apart';
  const of = board.data?.board ?? null;
  const ranked = useQuery({
    queryKey: ['people', 'ranked', of?.at, [...groups].join(), period, everybody, apart ? NAMED_APART : room],
    queryFn: () =>
      call(peopleApi.rankedPeople, {
        query: {
          groups: [...groups].join(','),
          ...{ from: since(of!, Number(period)), to: of!.to },
          ...{ who: everybody ? 'all' : 'in the roll', most: Math.max(1, apart ? NAMED_APART : room) },
        },
      }),
    enabled: of !== null && plan !== null,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  const people = ranked.data?.people ?? 0;
  const taken = Math.min(cut ?? Infinity, room, people);
  const chosen = useMemo(() => (ranked.data?.ranked ?? []).slice(0, taken), [ranked.data, taken]);
  const made = useMemo(
    () =>
      plan && !apart
        ? choosePeople(plan, chosen, template, {
            room,
            makeId: () => makeId('tg', crypto.getRandomValues(new Uint8Array(12))),
          })
        : null,
    [plan, apart, chosen, template, room],
  );
  const worst = useMemo(
    () => (plan && model ? worstNames(chosen, template, plan, model, 5) : []),
    [plan, model, chosen, template],
  );
  /** Key-ups of those who are chosen: of more than are named here as the curve has it. */
  const covered =
    taken <= chosen.length
      ? chosen.reduce((sum, one) => sum + one.keyUps, 0)
      : coveredBy(ranked.data?.curve ?? [], taken);
  const named = chosen[0] ? displayName(chosen[0], template) : null;
  const choice: Omit<PeopleChoice, 'planId' | 'heard' | 'rest'> | null = of && {
    ...{ template, groups: [...groups], from: since(of, Number(period)), to: of.to },
    who: everybody ? 'all' : 'in the roll',
  };
  const put = useMutation({
    mutationFn: async () => {
      if (!made?.ok || !made.value.edit || !kept.data) throw new Error('There is nothing to do.');
      await call(planApi.edit, {
        params: { id: kept.data.plan.id },
        body: { base: kept.data.revision, edit: made.value.edit },
      });
    },
    onSettled: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: ['plan', wantedPlan, 'for people'] }),
        client.invalidateQueries({ queryKey: ['plans'] }),
      ]),
  });
  return {
    ...{ board, load, stop, loading, digital, plan, model, planId: wantedPlan, setPlanId },
    ...{
      groups,
      setGroups,
      period,
      setPeriod,
      everybody,
      setEverybody,
      reserve,
      setReserve,
      template,
      setTemplate,
    },
    ...{ room, apart, ranked, people, taken, setCut, chosen, covered, made, worst, put, choice },
    /** Why the template is none; null where it is one. */
    templateTrouble: named && !named.ok ? named.reason : null,
    shownName: (at: number) => {
      const person = chosen[at];
      const name = person && displayName(person, template);
      return name?.ok ? name.value : '';
    },
  };
}
export type Choosing = ReturnType<typeof useChoose>;
