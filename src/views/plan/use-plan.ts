'use client';

import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { Neighbour } from '@/core/check';
import { modelById, receiveRanges, type Model } from '@/core/models';
import { slotText, type CellContext, type ChannelId, type Plan } from '@/core/plan';
import { ask, changeKey } from '@/ui';
import type { WorkAnswer } from '@/workers/plan-work';
import { createPlanViews, type PlanViews, type PlanViewsStore } from './plan-views';
import { createPlanStore, type KeptPlan, type PlanState, type PlanStore } from './plan-store';

/** What has been worked out of a plan, a moment behind it while somebody types, so that typing never waits. */
export interface ShownPlan {
  views: PlanViews;
  model: Model;
  ways: PlanViewsStore['ways'];
  /** Slot and name of a channel, for people. */
  nameOf: (id: ChannelId) => { slot: string; name: string };
}

/** Everything that the plan screen shows. */
export interface PlanInHand extends PlanState {
  shown: ShownPlan;
  store: PlanStore;
  model: Model;
  context: CellContext;
}

const nobody = { slot: '', name: '' };

/** Fit and check of the plan, worked out in a worker beside the page. */
function useShown(plan: Plan, model: Model): ShownPlan {
  const worker = useRef<Worker | null>(null);
  const [views] = useState(() => createPlanViews((message) => worker.current?.postMessage(message)));
  const { id } = plan;
  const now = useRef(plan);
  useEffect(() => {
    now.current = plan;
    views.show(plan);
  }, [plan, views]);
  useEffect(() => {
    const beside = new Worker(new URL('../../workers/plan-worker.ts', import.meta.url), { type: 'module' });
    worker.current = beside;
    beside.onmessage = ({ data }: MessageEvent<WorkAnswer>) => views.hear(data);
    views.open(now.current);
    // What a directory knows nearby comes when it comes; without it Check says what it can.
    ask<{ neighbours: Neighbour[] }>(`/api/plans/${id}/neighbours`).then(
      (answer) => views.tell(answer.neighbours),
      () => {},
    );
    return () => beside.terminate();
  }, [id, views]);
  const of = useSyncExternalStore(views.subscribe, views.get, views.get);
  return useMemo(() => {
    const byId = new Map(of.plan?.channels.map((channel) => [channel.id, channel]));
    const nameOf = (one: ChannelId) => {
      const channel = byId.get(one);
      return channel ? { slot: slotText(channel.slot), name: channel.name || 'no name' } : nobody;
    };
    return { views: of, model, ways: views.ways, nameOf };
  }, [of, model, views]);
}

/** Opens a plan for work. */
export function usePlan(initial: KeptPlan): PlanInHand {
  const [store] = useState(() => {
    const base = `/api/plans/${initial.plan.id}`;
    return createPlanStore(initial, {
      edit: (revision, edit, key) => ask(`${base}/edits`, 'POST', { base: revision, edit }, key),
      step: (revision, kind, key) => ask(`${base}/${kind}?base=${revision}`, 'POST', undefined, key),
      goBack: (revision, to, key) => ask(`${base}/go-back`, 'POST', { base: revision, revision: to }, key),
      key: changeKey,
      load: () => ask(base),
      wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
    });
  });
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const { plan } = state;
  const model = modelById(plan.modelId)!;
  const shown = useShown(plan, model);
  const region = plan.owner.region;
  const context = useMemo<CellContext>(
    () => ({ region, bands: receiveRanges(model), powers: model.powers }),
    [region, model],
  );

  // Somebody who comes back to this page may have placed channels or undone something on another one.
  useEffect(() => {
    const look = () => document.visibilityState === 'visible' && void store.refresh();
    window.addEventListener('focus', look);
    document.addEventListener('visibilitychange', look);
    return () => {
      window.removeEventListener('focus', look);
      document.removeEventListener('visibilitychange', look);
    };
  }, [store]);

  useEffect(() => {
    const hold = (event: BeforeUnloadEvent) => {
      if (store.get().waiting > 0) event.preventDefault();
    };
    window.addEventListener('beforeunload', hold);
    return () => window.removeEventListener('beforeunload', hold);
  }, [store]);

  return { ...state, store, model, shown, context };
}
