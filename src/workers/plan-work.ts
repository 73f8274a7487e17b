import {
  check,
  countFindings,
  groupFindings,
  mendEverything,
  mendsOf,
  mendTogether,
  RULES,
  WIRED,
  type Finding,
  type FindingCount,
  type FindingOfChannel,
  type Mend,
  type MendableFinding,
  type MendForMany,
  type MendOfAll,
  type Neighbour,
} from '../core/check';
import { fit, type FitChange, type FittedPlanChannel, type Obstacle } from '../core/fit';
import { modelOfPlan } from '../core/models';
import { applyDifference, readDocument, type ChannelId, type Difference, type Plan } from '../core/plan';

/** Everything that has been worked out of a channel: how the radio holds it, what had to change, what is in the way, what Check says. */
export interface ChannelView {
  fitted: FittedPlanChannel | null;
  changes: readonly FitChange[];
  leftOut: readonly Obstacle[];
  findings: readonly FindingOfChannel[];
}

/** What the screen tells the worker. `number` counts the plans that it was told of. */
export type WorkMessage =
  | { kind: 'open'; number: number; plan: Plan }
  | { kind: 'change'; number: number; difference: Difference }
  | { kind: 'neighbours'; number: number; list: readonly Neighbour[] }
  /** Whether what was opened is a plan at all: it is opened as it came, and read as a document when there is time. */
  | { kind: 'verify' }
  /** Ways out: of one finding, or of all findings of a group together. */
  | { kind: 'mends'; ask: number; of: Pick<Finding, 'id' | 'rule' | 'text'> | { group: string } }
  /** The best way out of everything at once. */
  | { kind: 'mend all'; ask: number };

/** What the worker answers. `shown` has only the channels of which something else is worked out now than before, and what all come to. */
export type WorkAnswer =
  | {
      kind: 'shown';
      number: number;
      put: [ChannelId, ChannelView][];
      gone: ChannelId[];
      counts: FindingCount[];
      /** How many things the fit has to say. */
      fitCount: number;
      /** Of the plan as a whole, of other records than channels, and of how channels are wired to them. */
      besides: MendableFinding[];
    }
  | { kind: 'looks for'; words: Record<string, string> }
  /** What is wrong with it, in a sentence; null where it is a plan. */
  | { kind: 'verified'; fault: string | null }
  | { kind: 'mends'; ask: number; mends: Mend[]; together: MendForMany | null }
  | { kind: 'mend all'; ask: number; all: MendOfAll | null };

const NOTHING: readonly never[] = [];
const EMPTY: ChannelView = { fitted: null, changes: NOTHING, leftOut: NOTHING, findings: NOTHING };

/**
 * Works out fit and check of one plan, wherever it runs: in a worker beside the page, or in a test. Give it messages in their
 * order, send its answers. Edits go in as differences, and what has changed of what was worked out comes out.
 */
export function createPlanWork(): (message: WorkMessage) => WorkAnswer[] {
  let plan: Plan | null = null;
  let neighbours: readonly Neighbour[] = [];
  let findings: Finding[] = [];
  let views = new Map<ChannelId, ChannelView>();

  const workOut = (number: number): WorkAnswer[] => {
    const model = plan && modelOfPlan(plan);
    if (!plan || !model) return [];
    const fitted = fit(plan, model);
    findings = check(plan, model, fitted, neighbours);
    const next = new Map<ChannelId, ChannelView>();
    const of = (id: ChannelId) => {
      let view = next.get(id);
      if (!view) next.set(id, (view = { ...EMPTY }));
      return view;
    };
    for (const { id } of plan.channels) of(id);
    for (const channel of fitted.channels) of(channel.id).fitted = channel;
    for (const { id, obstacles } of fitted.leftOut) of(id).leftOut = obstacles;
    for (const change of fitted.changes) of(change.id).changes = [...of(change.id).changes, change];
    for (const finding of findings)
      if (finding.kind === 'channel') of(finding.id).findings = [...of(finding.id).findings, finding];
    const put = [...next].filter(([id, view]) => !sameView(views.get(id), view));
    const gone = [...views.keys()].filter((id) => !next.has(id));
    views = next;
    const fitCount = fitted.changes.length + fitted.leftOut.length;
    const besides = wired(findings).map((one) => ({ ...one, mends: mendsOf(one, plan!, model) }));
    const counts = countFindings(findings);
    return [{ kind: 'shown', number, put, gone, counts, fitCount, besides }];
  };

  return (message) => {
    switch (message.kind) {
      case 'open':
        plan = message.plan;
        views = new Map();
        return [{ kind: 'looks for', words: lookedFor() }, ...workOut(message.number)];
      case 'change': {
        const changed = plan && applyDifference(plan, message.difference);
        // It was a plan where it comes from; a fault here is one of Veridon.
        if (!changed?.ok) throw new Error(changed ? changed.reason : 'No plan was opened.');
        plan = changed.value;
        return workOut(message.number);
      }
      case 'neighbours':
        neighbours = message.list;
        return workOut(message.number);
      case 'verify': {
        const read = readDocument(plan);
        return [{ kind: 'verified', fault: read.ok ? null : read.reason }];
      }
      case 'mend all': {
        const model = plan && modelOfPlan(plan);
        const all = (plan && model && mendEverything(findings, plan, model)) ?? null;
        return [{ kind: 'mend all', ask: message.ask, all }];
      }
      case 'mends':
        return [{ kind: 'mends', ask: message.ask, ...mends(message.of) }];
    }
  };

  function mends(of: Extract<WorkMessage, { kind: 'mends' }>['of']) {
    const model = plan && modelOfPlan(plan);
    if (!plan || !model) return { mends: [], together: null };
    if ('group' in of) {
      const group = groupFindings(findings, {}).find(({ key }) => key === of.group);
      return { mends: [], together: (group && mendTogether(group.findings, plan, model)) ?? null };
    }
    const finding = findings.find(
      ({ id, rule, text }) => id === of.id && rule === of.rule && text === of.text,
    );
    return { mends: finding ? mendsOf(finding, plan, model) : [], together: null };
  }
}

/** Most findings of one rule that are told beside the channels. */
const MOST_ALIKE = 100;

/** What is found of other records, and of how channels are wired to them; of one rule so many. */
function wired(findings: readonly Finding[]): Finding[] {
  const counts = new Map<string, number>();
  return findings.filter(({ rule }) => {
    if (!WIRED.has(rule)) return false;
    const count = (counts.get(rule) ?? 0) + 1;
    counts.set(rule, count);
    return count <= MOST_ALIKE + 1;
  });
}

const lookedFor = () => Object.fromEntries(RULES.map(({ id, looksFor }) => [id, looksFor]));

const sameList = (a: readonly unknown[], b: readonly unknown[]) =>
  a === b || (a.length === b.length && a.every((one, index) => one === b[index]));

/** True where nothing else was worked out: what did not change is the very same. */
const sameView = (a: ChannelView | undefined, b: ChannelView): boolean =>
  a !== undefined &&
  a.fitted === b.fitted &&
  sameList(a.leftOut, b.leftOut) &&
  sameList(a.changes, b.changes) &&
  sameList(a.findings, b.findings);
