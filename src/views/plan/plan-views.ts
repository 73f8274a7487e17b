import {
  countFindings,
  SEVERITIES,
  type Finding,
  type FindingCount,
  type Mend,
  type MendForMany,
  type Neighbour,
} from '@/core/check';
import { difference, isNoDifference, type ChannelId, type Plan } from '@/core/plan';
import type { ChannelView, WorkAnswer, WorkMessage } from '@/workers/plan-work';

/** What has been worked out of a plan, and of which; a moment behind the plan while somebody types. */
export interface PlanViews {
  /** Counts what has been shown. */
  number: number;
  /** Of which plan; null until the first has been worked out. */
  plan: Plan | null;
  of: ReadonlyMap<ChannelId, ChannelView>;
  /** All that Check says: stops first, then by slot. */
  findings: readonly Finding[];
  counts: readonly FindingCount[];
  /** How many things the fit has to say. */
  fitCount: number;
  /** What each rule looks for, in words. */
  lookedFor: Readonly<Record<string, string>>;
}

/** Ways out of a finding, or of several at once. */
export interface Ways {
  mends: Mend[];
  together: MendForMany | null;
}

export interface PlanViewsStore {
  get(): PlanViews;
  subscribe(listener: () => void): () => void;
  /** Begins anew with a worker that knows nothing yet. */
  open(plan: Plan): void;
  /** Says what the plan is now. */
  show(plan: Plan): void;
  /** Says which repeaters a directory knows nearby. */
  tell(neighbours: readonly Neighbour[]): void;
  /** The ways out of a finding of the shown plan, or of a group of them. */
  ways(of: Extract<WorkMessage, { kind: 'mends' }>['of']): Promise<Ways>;
  /** What the worker answers is handed in here. */
  hear(answer: WorkAnswer): void;
}

/**
 * The page's side of the worker. While the worker is busy nothing is sent to it: what has come together meanwhile goes as one
 * difference when it has answered, so that it never falls behind by more than one.
 */
export function createPlanViews(post: (message: WorkMessage) => void): PlanViewsStore {
  let views: PlanViews = {
    number: 0,
    plan: null,
    of: new Map(),
    findings: [],
    counts: [],
    fitCount: 0,
    lookedFor: {},
  };
  let sent: Plan | null = null;
  let wanted: Plan | null = null;
  let number = 0;
  let opened = false;
  let busy = false;
  let asks = 0;
  const waiting = new Map<number, (ways: Ways) => void>();
  const listeners = new Set<() => void>();

  const send = () => {
    if (!opened || busy || !wanted || wanted === sent) return;
    const plan = wanted;
    if (sent === null) post({ kind: 'open', number: ++number, plan });
    else {
      const changed = difference(sent, plan);
      if (isNoDifference(changed)) return;
      post({ kind: 'change', number: ++number, difference: changed });
    }
    sent = plan;
    busy = true;
  };

  const take = ({ put, gone }: Extract<WorkAnswer, { kind: 'shown' }>) => {
    const of = new Map(views.of);
    for (const id of gone) of.delete(id);
    for (const [id, view] of put) of.set(id, view);
    const plan = sent!;
    const all = plan.channels.flatMap(({ id }) => of.get(id)?.findings ?? []);
    const findings = SEVERITIES.flatMap((severity) => all.filter((finding) => finding.severity === severity));
    let fitCount = 0;
    for (const { changes, leftOut } of of.values()) fitCount += changes.length + (leftOut.length > 0 ? 1 : 0);
    const counts = countFindings(findings);
    views = { ...views, number: views.number + 1, plan, of, findings, counts, fitCount };
    for (const listener of listeners) listener();
  };

  return {
    get: () => views,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    open(plan) {
      sent = null;
      busy = false;
      waiting.clear();
      wanted = plan;
      opened = true;
      send();
    },
    show(plan) {
      wanted = plan;
      send();
    },
    tell(list) {
      post({ kind: 'neighbours', number: ++number, list });
      busy = sent !== null;
    },
    ways(of) {
      const ask = ++asks;
      post({ kind: 'mends', ask, of });
      return new Promise((resolve) => waiting.set(ask, resolve));
    },
    hear(answer) {
      if (answer.kind === 'looks for') views = { ...views, lookedFor: answer.words };
      else if (answer.kind === 'mends') {
        waiting.get(answer.ask)?.(answer);
        waiting.delete(answer.ask);
      } else if (answer.number === number) {
        busy = false;
        take(answer);
        send();
      } else take(answer);
    },
  };
}
