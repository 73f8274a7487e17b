import {
  SEVERITIES,
  type Finding,
  type FindingCount,
  type Mend,
  type MendableFinding,
  type MendForMany,
  type MendOfAll,
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
  /** Of each channel; the same map is filled anew, so that `number` says whether something else stands in it. */
  of: ReadonlyMap<ChannelId, ChannelView>;
  /** All that Check says: stops first, then by slot. Put together when somebody asks, for whoever types needs only the counts. */
  findings: () => readonly Finding[];
  counts: readonly FindingCount[];
  /** How many things the fit has to say. */
  fitCount: number;
  /** What Check says of the plan as a whole, of other records than channels, and of how channels are wired to them. */
  besides: readonly MendableFinding[];
  /** What each rule looks for, in words. */
  lookedFor: Readonly<Record<string, string>>;
  /** Why nothing newer can be worked out, in a sentence; null where all goes well. */
  trouble: string | null;
}

/** Ways out of a finding, or of several at once. */
export interface Ways {
  mends: Mend[];
  together: MendForMany | null;
}

export interface PlanViewsStore {
  get(): PlanViews;
  subscribe(listener: () => void): () => void;
  /** Begins with a worker that knows nothing yet, with the plan that was shown last. */
  open(): void;
  /**
   * The worker has broken down. True where another one is worth a try with `open`, at once; else the trouble is said, and `show`
   * says when it is worth one again.
   */
  broke(): boolean;
  /** Says what the plan is now. True where the last worker broke down, and another one is worth a try with it. */
  show(plan: Plan): boolean;
  /** Says which repeaters a directory knows nearby. */
  tell(neighbours: readonly Neighbour[]): void;
  /** The ways out of a finding of the shown plan, or of a group of them. */
  ways(of: Extract<WorkMessage, { kind: 'mends' }>['of']): Promise<Ways>;
  /** The best way out of everything at once; null where there is none. */
  mendAll(): Promise<MendOfAll | null>;
  /** What the worker answers is handed in here. */
  hear(answer: WorkAnswer): void;
}

/** Workers that are begun in the place of one that broke down before the trouble is said. */
const TRIES = 2;
const BROKEN =
  'Check and fit cannot be worked out just now. What you type is kept; it is tried again with the next change.';

/** What is worked out when it is first asked for, and once. */
function asked<V>(work: () => V): () => V {
  let found: { value: V } | undefined;
  return () => (found ??= { value: work() }).value;
}

/** All but those of the plan as a whole, which are shown above them. */
function allFindings(
  plan: Plan,
  of: ReadonlyMap<ChannelId, ChannelView>,
  besides: readonly MendableFinding[],
): Finding[] {
  const ofChannels = plan.channels.flatMap(({ id }): readonly Finding[] => of.get(id)?.findings ?? []);
  const all = [...ofChannels, ...besides.filter(({ kind }) => kind !== 'channel' && kind !== 'plan')];
  return SEVERITIES.flatMap((severity) => all.filter((finding) => finding.severity === severity));
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
    findings: () => [],
    counts: [],
    fitCount: 0,
    besides: [],
    lookedFor: {},
    trouble: null,
  };
  let of = new Map<ChannelId, ChannelView>();
  let sent: Plan | null = null;
  let wanted: Plan | null = null;
  let number = 0;
  let opened = false;
  let busy = false;
  let asks = 0;
  /** Workers that broke down with this plan, whatever they answered before: each plan is worth so many tries and no more. */
  let broken = 0;
  let gaveUp = false;
  /** The next that it shows is all that there is. */
  let fresh = true;
  /** What is wrong with the plan itself. */
  let fault: string | null = null;
  let nearby: readonly Neighbour[] | null = null;
  const waiting = new Map<number, (ways: Ways) => void>();
  const waitingForAll = new Map<number, (all: MendOfAll | null) => void>();
  const listeners = new Set<() => void>();

  const set = (next: Partial<PlanViews>) => {
    views = { ...views, ...next };
    for (const listener of listeners) listener();
  };

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

  const take = ({ put, gone, counts, fitCount, besides }: Extract<WorkAnswer, { kind: 'shown' }>) => {
    if (fresh) of = new Map();
    fresh = false;
    for (const id of gone) of.delete(id);
    for (const [id, view] of put) of.set(id, view);
    const plan = sent!;
    set({
      number: views.number + 1,
      plan,
      of,
      findings: asked(() => allFindings(plan, of, besides)),
      counts,
      fitCount,
      besides,
      trouble: fault,
    });
  };

  return {
    get: () => views,
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    open() {
      sent = null;
      busy = false;
      opened = true;
      gaveUp = false;
      fresh = true;
      fault = null;
      send();
      post({ kind: 'verify' });
      if (nearby) post({ kind: 'neighbours', number: ++number, list: nearby });
    },
    broke() {
      opened = false;
      for (const answer of waiting.values()) answer({ mends: [], together: null });
      waiting.clear();
      for (const answer of waitingForAll.values()) answer(null);
      waitingForAll.clear();
      broken++;
      if (broken <= TRIES) return true;
      gaveUp = true;
      set({ trouble: BROKEN });
      return false;
    },
    show(plan) {
      const other = wanted !== plan;
      if (other) broken = 0;
      wanted = plan;
      send();
      return gaveUp && other;
    },
    tell(list) {
      nearby = list;
      if (!opened) return;
      post({ kind: 'neighbours', number: ++number, list });
      busy = sent !== null;
    },
    ways(of) {
      if (!opened) return Promise.resolve({ mends: [], together: null });
      const ask = ++asks;
      post({ kind: 'mends', ask, of });
      return new Promise((resolve) => waiting.set(ask, resolve));
    },
    mendAll() {
      if (!opened) return Promise.resolve(null);
      const ask = ++asks;
      post({ kind: 'mend all', ask });
      return new Promise((resolve) => waitingForAll.set(ask, resolve));
    },
    hear(answer) {
      if (answer.kind === 'verified') {
        ({ fault } = answer);
        if (fault !== null) set({ trouble: fault });
      } else if (answer.kind === 'looks for') views = { ...views, lookedFor: answer.words };
      else if (answer.kind === 'mends') {
        waiting.get(answer.ask)?.(answer);
        waiting.delete(answer.ask);
      } else if (answer.kind === 'mend all') {
        waitingForAll.get(answer.ask)?.(answer.all);
        waitingForAll.delete(answer.ask);
      } else if (answer.number === number) {
        busy = false;
        take(answer);
        send();
      } else take(answer);
    },
  };
}
