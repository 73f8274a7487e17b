'use client';

import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { LiveTold } from '@/core/bench';
import type { Neighbour } from '@/core/check';
import type { HeardByChannel } from '@/core/heard';
import { modelOfPlan, receiveRanges, type Model } from '@/core/models';
import { placesOf, slotText, type CellContext, type ChannelId, type Plan } from '@/core/plan';
import type { KeptPlan } from '@/api/plans';
import type { WorkAnswer } from '@/workers/plan-work';
import { createPlanViews, type PlanViews, type PlanViewsStore } from './plan-views';
import { contract, planServer } from './plan-calls';
import { whileSeen } from '@/views/parts/while-seen';
import { useHeard } from './use-heard';
import { createPlanStore, type PlanState, type PlanStore } from './plan-store';

/** What has been worked out of a plan, a moment behind it while somebody types, so that typing never waits. */
export interface ShownPlan {
  views: PlanViews;
  model: Model;
  ways: PlanViewsStore['ways'];
  mendAll: PlanViewsStore['mendAll'];
  /** Repeaters that a directory knows nearby; none until it has answered. */
  neighbours: readonly Neighbour[];
  /** Slot and name of a channel, for people. */
  nameOf: (id: ChannelId) => { slot: string; name: string };
}

const NONE: readonly LiveTold[] = [];

/** Everything that the plan screen shows. */
export interface PlanInHand extends PlanState {
  shown: ShownPlan;
  store: PlanStore;
  model: Model;
  context: CellContext;
  /** What was done in another window last, in words, until somebody says that it is all right. */
  elsewhere: string;
  setElsewhere: (label: string) => void;
  /** The radios that follow the plan over a live link. */
  following: readonly LiveTold[];
  /** Which channels were heard. */
  heard: HeardByChannel;
  /** When that was asked for, ms since 1970. */
  heardAsked: number;
  hear: ReturnType<typeof useHeard>['hear'];
}

/** After this the first screenful is drawn, ms. */
const AT_REST_MS = 250;

const nobody = { slot: '', name: '' };

/** The worker beside the page, and another one in its place where it breaks down. */
function workBeside() {
  let worker: Worker | null = null;
  const views = createPlanViews((message) => worker?.postMessage(message));
  const end = () => {
    worker?.terminate();
    worker = null;
  };
  const begin = () => {
    end();
    worker = new Worker(new URL('../../workers/plan-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<WorkAnswer>) => views.hear(data);
    worker.onerror = (event) => {
      event.preventDefault();
      end();
      if (views.broke()) begin();
    };
    views.open();
  };
  return { views, begin, end };
}

/** Fit and check of the plan, worked out in a worker beside the page. */
function useShown(plan: Plan, model: Model): ShownPlan {
  const [neighbours, setNeighbours] = useState<readonly Neighbour[]>([]);
  const [{ views, begin, end }] = useState(workBeside);
  const { id } = plan;
  useEffect(() => {
    if (views.show(plan)) begin();
  }, [plan, views, begin]);
  useEffect(() => {
    begin();
    // What a directory knows nearby comes when it comes; without it Check says what it can. Asked for when the page is at rest,
    // since what reads the answer is weighty.
    const asking = setTimeout(() => {
      contract()
        .then(({ call, planApi }) => call(planApi.neighbours, { params: { id } }))
        .then(
          (answer) => {
            views.tell(answer.neighbours);
            setNeighbours(answer.neighbours);
          },
          () => {},
        );
    }, AT_REST_MS);
    return () => {
      clearTimeout(asking);
      end();
    };
  }, [id, views, begin, end]);
  const of = useSyncExternalStore(views.subscribe, views.get, views.get);
  return useMemo(() => {
    const channels = of.plan?.channels ?? [];
    const nameOf = (one: ChannelId) => {
      const channel = channels[placesOf(channels).get(one) ?? -1];
      return channel ? { slot: slotText(channel.slot), name: channel.name || 'no name' } : nobody;
    };
    return { views: of, model, ways: views.ways, mendAll: views.mendAll, nameOf, neighbours };
  }, [of, model, views, neighbours]);
}

/** Opens a plan for work. */
export function usePlan(initial: KeptPlan): PlanInHand {
  const [store] = useState(() => createPlanStore(initial, planServer(initial.plan.id)));
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const { plan } = state;
  const model = modelOfPlan(plan)!;
  const shown = useShown(plan, model);
  const planId = plan.id;
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

  // What others do is seen while it is looked at.
  const [elsewhere, setElsewhere] = useState('');
  const [following, setFollowing] = useState<readonly LiveTold[]>(NONE);
  useEffect(() => {
    let leave: (() => void) | undefined;
    const hear = (data: string) => {
      const told = JSON.parse(data) as { revision: number; label: string | null; lives?: LiveTold[] };
      setFollowing(told.lives ?? NONE);
      void store.follow(told.revision).then((taken) => {
        if (taken && told.label !== null) setElsewhere(told.label);
      });
    };
    // The first moments are the table's.
    const opening = setTimeout(() => {
      leave = whileSeen(`/api/plans/${planId}/events`, hear);
    }, AT_REST_MS);
    return () => {
      clearTimeout(opening);
      leave?.();
    };
  }, [planId, store]);

  useEffect(() => {
    const hold = (event: BeforeUnloadEvent) => {
      if (store.get().waiting > 0) event.preventDefault();
    };
    window.addEventListener('beforeunload', hold);
    return () => window.removeEventListener('beforeunload', hold);
  }, [store]);

  const heard = useHeard(planId);
  return { ...state, store, model, shown, context, elsewhere, setElsewhere, following, ...heard };
}
