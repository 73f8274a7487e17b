import type { Model } from '../models';
import { fit, type Fit } from '../fit';
import type { ChannelId, Plan } from '../plan';
import { SEVERITIES, type Finding } from './finding';
import { RULES } from './rules';

/** Everything that is worth saying of a plan on a model: stops first, then by slot. */
export function check(plan: Plan, model: Model, fitted: Fit = fit(plan, model)): Finding[] {
  const context = { plan, model, fit: fitted };
  const slots = new Map(plan.channels.map((channel) => [channel.id, channel.slot]));
  const rank = (finding: Finding) => SEVERITIES.indexOf(finding.severity);
  return RULES.flatMap((rule) =>
    rule.find(context).map((found): Finding => ({ rule: rule.id, ...found })),
  ).sort((a, b) => rank(a) - rank(b) || slots.get(a.id)! - slots.get(b.id)!);
}

/** What a write will put into the radio: the fit without the channels that a stop holds back. */
export interface WriteContent {
  channels: Fit['channels'];
  /** Channels that are not written, each with the reasons. */
  heldBack: { id: ChannelId; reasons: string[] }[];
}

/** Works out what a write of this plan puts into a radio of the model. */
export function contentToWrite(plan: Plan, model: Model): WriteContent {
  const fitted = fit(plan, model);
  const reasons = new Map<ChannelId, string[]>();
  for (const finding of check(plan, model, fitted))
    if (finding.severity === 'stop')
      reasons.set(finding.id, [...(reasons.get(finding.id) ?? []), finding.text]);
  return {
    channels: fitted.channels.filter((channel) => !reasons.has(channel.id)),
    heldBack: [...reasons].map(([id, texts]) => ({ id, reasons: texts })),
  };
}
