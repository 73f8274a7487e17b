import equal from 'fast-deep-equal';
import { noContent, type Content, type Model } from '../models';
import { canSend, fit, fitBesides, obstacles, shownNames, type Fit } from '../fit';
import {
  applyEdit,
  emptyLists,
  placesOf,
  type Channel,
  type ChannelId,
  type Owner,
  type Plan,
} from '../plan';
import { mayTransmit } from '../radio';
import { remembered, rememberedAlong } from '../remember';
import {
  SEVERITIES,
  type ChannelFinding,
  type ChannelRule,
  type CheckContext,
  type Facts,
  type Hit,
  type PlanRule,
  type RecordFinding,
  type RecordRule,
  type RuleFinding,
  type Severity,
} from './finding';
import type { Finding, FindingOfChannel, FindingOfRecord, Mend } from './finding.schema';
import type { Neighbour } from './neighbour';
import { watching } from './reads';
import { RULES } from './rules';

const rank = ({ severity }: Pick<Finding, 'severity'>) => SEVERITIES.indexOf(severity);

/** What is known of channels by themselves, for an owner and a model. */
const factsFor = remembered((owner: Owner) =>
  remembered((model: Model) => {
    const { strict: _, ...licence } = owner;
    // Rules are asked one channel after the other: that of the last is all that is asked for again.
    let last: { channel: Channel; facts: Facts } | undefined;
    return (channel: Channel): Facts => {
      if (last?.channel === channel) return last.facts;
      const sends = canSend(channel, model);
      const facts = {
        obstacles: obstacles(channel, model),
        sends,
        ...(sends && { licence: mayTransmit({ hz: channel.tx!, mode: channel.mode, ...licence }) }),
      };
      last = { channel, facts };
      return facts;
    };
  }),
);

/** The rules that have anything to say of a model. */
const rulesFor = remembered((model: Model) => {
  const applying = RULES.filter((rule) => rule.applies?.(model) ?? true);
  return {
    channel: applying.filter((rule): rule is ChannelRule => 'findOne' in rule),
    plan: applying.filter((rule): rule is PlanRule => 'find' in rule),
    record: applying.filter((rule): rule is RecordRule => 'findAll' in rule),
  };
});

/** The ways out that a rule offered, by the finding that it made. */
const offered = new WeakMap<Finding, NonNullable<RuleFinding['mends']>>();

function findingOf(rule: string, { mends, ...found }: RuleFinding): FindingOfChannel {
  const finding: FindingOfChannel = { rule, kind: 'channel', ...found };
  if (mends) offered.set(finding, mends);
  return finding;
}

/** What the rules of one channel say of each, for an owner and a model; not asked again while the channel stays as it is. */
const saidFor = remembered((_owner: Owner) =>
  remembered((model: Model) => {
    const { channel: rules } = rulesFor(model);
    const known = new WeakMap<Channel, readonly FindingOfChannel[]>();
    return rememberedAlong((channel: Channel, context: CheckContext): readonly FindingOfChannel[] => {
      let said = known.get(channel);
      if (!said) {
        const found: FindingOfChannel[] = [];
        for (const rule of rules) {
          const one = rule.findOne(channel, context);
          if (one) found.push(findingOf(rule.id, { ...one, id: channel.id }));
        }
        said = found.length > 0 ? found : NOTHING;
        known.set(channel, said);
      }
      return said;
    });
  }),
);

const NOTHING: readonly FindingOfChannel[] = [];

const contextOf = (
  plan: Plan,
  model: Model,
  fitted: Fit,
  neighbours: readonly Neighbour[],
): CheckContext => ({
  plan,
  model,
  fit: fitted,
  get shown() {
    return shownNames(fitted, plan);
  },
  neighbours,
  get held() {
    return heldIn(fitted);
  },
  factsOf: factsFor(plan.owner)(model),
});

/** Where the radio will hold which channels. */
const heldIn = remembered(
  ({ channels }: Fit) => new Map(channels.map(({ id, list, slot }) => [id, { list, slot }] as const)),
);

const RULE_PLACES = new Map(RULES.map(({ id }, index) => [id, index]));
const inRuleOrder = (a: Finding, b: Finding) => RULE_PLACES.get(a.rule)! - RULE_PLACES.get(b.rule)!;

/** What a rule of the plan said of a channel the last time, and of what: what did not change stays the very same. */
interface Said {
  hit: Hit;
  beside: readonly Channel[];
  finding: FindingOfChannel;
}
const lastOf = remembered((_rule: PlanRule) => remembered((_model: Model) => new WeakMap<Channel, Said>()));
const alike = (a: FindingOfChannel, b: ChannelFinding) =>
  a.text === b.text && a.severity === b.severity && a.field === b.field && a.source === b.source;

/** What is said of a hit: the same finding as before while it is about the same. */
function saidOfHit(
  rule: string,
  hit: Hit,
  lasts: WeakMap<Channel, Said>,
  context: CheckContext,
): FindingOfChannel {
  const { channels } = context.plan;
  const channel = channels[hit.at[0]]!;
  const last = lasts.get(channel);
  if (last?.hit === hit && hit.at.every((at, n) => channels[at] === last.beside[n])) return last.finding;
  const beside = hit.at.map((at) => channels[at]!);
  const found = hit.say(beside, context);
  const finding =
    last && alike(last.finding, found) ? last.finding : findingOf(rule, { ...found, id: channel.id });
  if (found.mends) offered.set(finding, found.mends);
  lasts.set(channel, { hit, beside, finding });
  return finding;
}

/** What is said of a channel by itself and beside others, in the order of the rules; the same list while it is the same. */
const together = new WeakMap<
  Channel,
  { said: readonly FindingOfChannel[]; more: FindingOfChannel[]; all: readonly FindingOfChannel[] }
>();
function allOf(
  channel: Channel,
  said: readonly FindingOfChannel[],
  more: FindingOfChannel[],
): readonly FindingOfChannel[] {
  const last = together.get(channel);
  if (last?.said === said && last.more.length === more.length && more.every((one, n) => one === last.more[n]))
    return last.all;
  const all = [...said, ...more].sort(inRuleOrder);
  together.set(channel, { said, more, all });
  return all;
}

const NOBODY: readonly Neighbour[] = [];

/** Findings of one rule that are told one by one, of other records than channels; how many more there are is said once. */
export const MOST_ALIKE = 100;

/** The findings of a rule of records, up to the limit; the last one counts the rest. */
function* told(found: Iterable<RecordFinding>): Generator<RecordFinding> {
  let n = 0;
  let last: RecordFinding | undefined;
  for (const one of found)
    if (one.kind !== 'channel' && ++n > MOST_ALIKE) last = one;
    else yield one;
  if (last && last.kind !== 'channel') {
    const text = `${n - MOST_ALIKE} more are like that: mend some, and they come.`;
    yield { kind: last.kind, id: last.id, severity: 'hint', text };
  }
}

/** What a rule of records said the last time, and whether it stands. */
interface SaidOfRecords {
  standsIn: (context: CheckContext) => boolean;
  findings: readonly Finding[];
}
const lastOfRecords = remembered((_rule: RecordRule) => new WeakMap<Model, SaidOfRecords>());
/** What a rule of records said of a channel the last time. */
const lastWired = remembered((_rule: RecordRule) => new WeakMap<Channel, FindingOfChannel>());

/** What a rule of records says; it is not asked again while all that it read is the same. */
function saidOfRule(rule: RecordRule, context: CheckContext): readonly Finding[] {
  const lasts = lastOfRecords(rule);
  const last = lasts.get(context.model);
  if (last?.standsIn(context)) return last.findings;
  const { context: watched, standsIn } = watching(context);
  const findings: Finding[] = [];
  for (const { mends, ...found } of told(rule.findAll(watched))) {
    let finding: Finding = { rule: rule.id, ...found };
    if (finding.kind === 'channel') {
      const channel = context.plan.channels[placesOf(context.plan.channels).get(finding.id)!]!;
      const wired = lastWired(rule).get(channel);
      // The very same where it says the same: what is shown of the channel stands.
      if (wired && alike(wired, finding)) finding = wired;
      lastWired(rule).set(channel, finding);
    }
    // A finding may outlive the plan that it was made of: its fixes are made of the plan of the day.
    if (mends) offered.set(finding, fixesOf(rule, finding, context.neighbours));
    findings.push(finding);
  }
  lasts.set(context.model, { standsIn, findings });
  return findings;
}

/** What a rule of records found in the plan for which fixes were last asked. */
interface FoundAgain {
  plan?: Plan;
  model?: Model;
  neighbours?: CheckContext['neighbours'];
  found: readonly RecordFinding[];
}
const foundAgain = remembered((_rule: RecordRule): FoundAgain => ({ found: [] }));

/** The fixes of a finding of a rule of records, by asking the rule of that plan. */
const fixesOf =
  (
    rule: RecordRule,
    finding: Finding,
    neighbours: CheckContext['neighbours'],
  ): NonNullable<RuleFinding['mends']> =>
  (context) => {
    const again = foundAgain(rule);
    const { plan, model } = context;
    if (again.plan !== plan || again.model !== model || again.neighbours !== neighbours)
      Object.assign(again, {
        ...{ plan, model, neighbours },
        found: [...told(rule.findAll(contextOf(plan, model, context.fit, neighbours)))],
      });
    const { rule: _, ...wanted } = finding;
    const same = again.found.find(({ mends: _mends, ...one }) => equal(one, wanted));
    return same?.mends?.(context) ?? [];
  };

/** What rules of records say: of channels by their places, and of all else. */
function saidOfRecords(context: CheckContext, beside: (FindingOfChannel[] | undefined)[]): FindingOfRecord[] {
  const { channels } = context.plan;
  const others: FindingOfRecord[] = [];
  for (const rule of rulesFor(context.model).record)
    for (const finding of saidOfRule(rule, context))
      if (finding.kind === 'channel') (beside[placesOf(channels).get(finding.id)!] ??= []).push(finding);
      else others.push(finding);
  return others;
}

/**
 * Everything that is worth saying of a plan on a model: stops first; of the plan as a whole before all, then by slot, then of other records.
 * `neighbours` are the repeaters that a directory knows where the plan is used. What is said of what did not change since is the very same as before.
 */
export function check(
  plan: Plan,
  model: Model,
  fitted: Fit = fit(plan, model),
  neighbours: readonly Neighbour[] = NOBODY,
): Finding[] {
  const context = contextOf(plan, model, fitted, neighbours);
  const { channels } = plan;
  const said = saidFor(plan.owner)(model)(channels, context);
  /** By the place of a channel. */
  const beside: (FindingOfChannel[] | undefined)[] = [];
  for (const rule of rulesFor(model).plan) {
    const lasts = lastOf(rule)(model);
    for (const hit of rule.find(context)) {
      const finding = saidOfHit(rule.id, hit, lasts, context);
      (beside[hit.at[0]] ??= []).push(finding);
    }
  }
  const others = saidOfRecords(context, beside);
  // A bucket a severity, filled channel by channel: of ten thousand findings none has to be sorted against all others.
  const buckets: Record<Severity, Finding[]> = { stop: [], caution: [], hint: [] };
  for (const finding of others) if (finding.kind === 'plan') buckets[finding.severity].push(finding);
  for (let at = 0; at < channels.length; at++) {
    const [own, more] = [said[at]!, beside[at]];
    for (const finding of more ? allOf(channels[at]!, own, more) : own)
      buckets[finding.severity].push(finding);
  }
  for (const finding of others) if (finding.kind !== 'plan') buckets[finding.severity].push(finding);
  return SEVERITIES.flatMap((severity) => buckets[severity]);
}

/** The rules that are about other records than channels, or about how channels are wired to them. */
export const WIRED: ReadonlySet<string> = new Set(
  RULES.filter((rule) => 'findAll' in rule).map(({ id }) => id),
);

/**
 * The ways to take a finding away, the best first: those that its rule offers and that would not end in something as bad or
 * worse. The finding is one that `check` gave for this plan and model.
 */
export function mendsOf(finding: Finding, plan: Plan, model: Model): Mend[] {
  const making = offered.get(finding);
  if (!making) return [];
  const wired = finding.kind !== 'channel' || WIRED.has(finding.rule);
  const empty = { changes: [], besides: [], leftOut: [] };
  const fitted = wired
    ? fit(plan, model)
    : { modelId: model.id, ...noContent(), channels: [], settings: {}, ...empty };
  const context = contextOf(plan, model, fitted, NOBODY);
  const mends = making(context);
  if (wired) return [...mends];
  const channel = plan.channels[placesOf(plan.channels).get(finding.id) ?? -1];
  return channel ? mends.filter((mend) => mendHolds(mend, finding, channel, context)) : [];
}

/**
 * True where a mend of one channel takes its finding away and does not end in a channel of which something as bad or worse
 * would be said that is not said today. Rules that look at one channel are asked; the others are about what it stands beside.
 */
function mendHolds(mend: Mend, finding: Finding, channel: Channel, context: CheckContext): boolean {
  if (mend.edit.name !== 'change') return true;
  const mended = applyEdit({ ...context.plan, ...emptyLists(), channels: [channel] }, mend.edit);
  if (!mended.ok) return false;
  const after = mended.value.channels[0]!;
  const { channel: rules } = rulesFor(context.model);
  const say = (rule: ChannelRule, one: Channel): ChannelFinding | undefined => rule.findOne(one, context);
  return rules.every((rule) => {
    const worse = say(rule, after);
    if (!worse) return true;
    if (rule.id === finding.rule) return false;
    if (rank(worse) > rank(finding) && worse.severity !== 'stop') return true;
    const before = say(rule, channel);
    return before !== undefined && rank(before) <= rank(worse);
  });
}

/** What a write will put into the radio: the fit without the channels that a stop holds back. */
export interface WriteContent extends Content {
  channels: Fit['channels'];
  settings: Fit['settings'];
  /** Channels that are not written, each with the reasons. */
  heldBack: { id: ChannelId; reasons: string[] }[];
}

/**
 * Works out what a write of this plan puts into a radio of the model. Who has the fit and the findings hands them in; what is
 * found of neighbours stops nothing.
 */
export function contentToWrite(
  plan: Plan,
  model: Model,
  fitted: Fit = fit(plan, model),
  findings: readonly Finding[] = check(plan, model, fitted),
): WriteContent {
  const reasons = new Map<ChannelId, string[]>();
  for (const finding of findings)
    if (finding.severity === 'stop' && finding.kind === 'channel')
      reasons.set(finding.id, [...(reasons.get(finding.id) ?? []), finding.text]);
  const { zones, skipSets, scanEdges, setUps, talkgroups, receiveLists, scanLists, settings } =
    reasons.size === 0 ? fitted : without(fitted, reasons, plan, model);
  return {
    channels: fitted.channels.filter((channel) => !reasons.has(channel.id)),
    zones,
    skipSets,
    scanEdges,
    setUps,
    talkgroups,
    receiveLists,
    scanLists,
    settings,
    heldBack: [...reasons].map(([id, texts]) => ({ id, reasons: texts })),
  };
}

/** What stands beside the channels where some of them are held back: it names them no more. */
const without = (fitted: Fit, held: ReadonlyMap<ChannelId, unknown>, plan: Plan, model: Model) => ({
  ...fitBesides(
    plan,
    model,
    fitted.channels.filter(({ id }) => !held.has(id)),
  ),
  settings: fitted.settings,
});
