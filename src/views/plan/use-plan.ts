'use client';

import { useDeferredValue, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { check, type Finding, type Neighbour } from '@/core/check';
import { fit, type Fit } from '@/core/fit';
import { modelById, receiveRanges, type Model } from '@/core/models';
import type { CellContext, Plan } from '@/core/plan';
import { ask, changeKey } from '@/ui';
import { createPlanStore, type KeptPlan, type PlanState, type PlanStore } from './plan-store';

/** A plan with its fit and its findings. */
export interface ShownPlan {
  plan: Plan;
  model: Model;
  fit: Fit;
  findings: Finding[];
}

/** Everything that the plan screen shows, worked out of the plan. */
export interface PlanInHand extends PlanState {
  /** What has been worked out of the plan; a moment behind it while somebody types, so that typing never waits. */
  shown: ShownPlan;
  store: PlanStore;
  model: Model;
  fit: Fit;
  findings: Finding[];
  context: CellContext;
}

/** Opens a plan for work; fit and check are worked out anew with every change. */
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
  const settled = useDeferredValue(plan);
  const [neighbours, setNeighbours] = useState<readonly Neighbour[]>([]);
  const { id } = initial.plan;
  // What a directory knows nearby comes when it comes; without it Check says what it can.
  useEffect(() => {
    ask<{ neighbours: Neighbour[] }>(`/api/plans/${id}/neighbours`).then(
      (answer) => setNeighbours(answer.neighbours),
      () => {},
    );
  }, [id]);
  const shown = useMemo((): ShownPlan => {
    const held = modelById(settled.modelId)!;
    const fitted = fit(settled, held);
    return { plan: settled, model: held, fit: fitted, findings: check(settled, held, fitted, neighbours) };
  }, [settled, neighbours]);
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

  return { ...state, store, model, shown, fit: shown.fit, findings: shown.findings, context };
}
