import type { Model } from '../models';
import { fit, type Fit } from '../fit';
import { applyEdit, type Channel, type ChannelId, type Plan } from '../plan';
import {
  SEVERITIES,
  type CheckContext,
  type Finding,
  type Mend,
  type Rule,
  type RuleFinding,
} from './finding';
import type { Neighbour } from './neighbour';
import { RULES } from './rules';

/**
 * Everything that is worth saying of a plan on a model: stops first, then by slot. `neighbours` are the repeaters that a
 * directory knows where the plan is used.
 */
export function check(
  plan: Plan,
  model: Model,
  fitted: Fit = fit(plan, model),
  neighbours: readonly Neighbour[] = [],
): Finding[] {
  const context = { plan, model, fit: fitted, neighbours };
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  return RULES.flatMap((rule) =>
    rule.find(context).map((found): Finding => withMends(rule, found, byId.get(found.id)!, context)),
  ).sort((a, b) => rank(a) - rank(b) || byId.get(a.id)!.slot - byId.get(b.id)!.slot);
}

const rank = ({ severity }: Pick<Finding, 'severity'>) => SEVERITIES.indexOf(severity);

/** The finding with those of its mends that hold. */
function withMends(
  rule: Rule,
  { mend, mends = [], ...found }: RuleFinding,
  channel: Channel,
  context: CheckContext,
): Finding {
  const offered = mend ? [mend, ...mends] : mends;
  const [first, ...others] = offered.filter((one) => mendHolds(one, rule, found, channel, context));
  return {
    rule: rule.id,
    ...found,
    ...(first && { mend: first }),
    ...(others.length > 0 && { others }),
  };
}

/**
 * True where a mend of one channel takes its finding away and does not end in a channel of which something as bad or worse
 * would be said that is not said today. Rules that look at one channel are asked; the others are about what it stands beside.
 */
function mendHolds(
  mend: Mend,
  rule: Rule,
  found: Omit<RuleFinding, 'mend' | 'mends'>,
  channel: Channel,
  context: CheckContext,
): boolean {
  if (mend.edit.name !== 'change') return true;
  const alone = { ...context.plan, channels: [channel] };
  const mended = applyEdit(alone, mend.edit);
  if (!mended.ok) return false;
  const after = mended.value.channels[0]!;
  if (rule.findOne?.(after, context)) return false;
  return RULES.every((other) => {
    const worse = other.findOne?.(after, context);
    if (!worse || (rank(worse) > rank(found) && worse.severity !== 'stop')) return true;
    const before = other.findOne!(channel, context);
    return before !== undefined && rank(before) <= rank(worse);
  });
}

/** What a write will put into the radio: the fit without the channels that a stop holds back. */
export interface WriteContent {
  channels: Fit['channels'];
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
    if (finding.severity === 'stop')
      reasons.set(finding.id, [...(reasons.get(finding.id) ?? []), finding.text]);
  return {
    channels: fitted.channels.filter((channel) => !reasons.has(channel.id)),
    heldBack: [...reasons].map(([id, texts]) => ({ id, reasons: texts })),
  };
}
