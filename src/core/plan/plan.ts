import { z } from 'zod';
import { ADDITION_IDS, GRADES, REGIONS } from '../radio';
import { trimmedText, wantedText } from '../text';
import { CHANNEL_LIMIT, channelSchema, SLOT_LIMIT, type Channel } from './channel';
import { planIdSchema } from './ids';
import { ABBREVIATIONS, abbreviationsSchema, type Abbreviations } from './names';

export const PLAN_NAME_LIMIT = 60;

/** Whose plan it is, and by which licence it is guarded. */
export const ownerSchema = z.object({
  callSign: trimmedText(16),
  region: z.enum(REGIONS),
  grade: z.enum(GRADES),
  /** Guard strictly: transmitting outside the licence is a stop, not a caution. */
  strict: z.boolean(),
  /** What the country has beyond its region's common table. Optional, as is `marine`: older plans have neither. */
  additions: z.array(z.enum(ADDITION_IDS)).max(ADDITION_IDS.length).optional(),
  /** The plan is a ship's or a coast station's, under a marine certificate. */
  marine: z.boolean().optional(),
});

export const detailsSchema = z.object({
  name: wantedText(PLAN_NAME_LIMIT),
  /** The model that the plan is made for; a fit can be asked for any other. */
  modelId: wantedText(40),
  owner: ownerSchema,
});

/**
 * The plan document. Lists of other things (zones, talkgroups, people lists, settings) join as further keys beside
 * `channels`, and refer to channels by id; `format` counts such changes and `readPlan` brings older documents along.
 */
export const planSchema = detailsSchema.extend({
  format: z.literal(1),
  id: planIdSchema,
  /** The short forms that names are fitted with; null for the usual ones. */
  abbreviations: abbreviationsSchema.nullable().default(null),
  /** In slot order, a slot held by one channel at most. */
  channels: z.array(channelSchema).max(CHANNEL_LIMIT),
});

export type Owner = z.infer<typeof ownerSchema>;
export type PlanDetails = z.infer<typeof detailsSchema>;
export type Plan = z.infer<typeof planSchema>;

/** An empty plan. */
export function newPlan(id: Plan['id'], details: PlanDetails): Plan {
  return { format: 1, id, ...details, abbreviations: null, channels: [] };
}

/** The short forms that the plan's names are fitted with. */
export function abbreviationsOf(plan: Pick<Plan, 'abbreviations'>): Abbreviations {
  return plan.abbreviations ?? ABBREVIATIONS;
}

/** The channels in slot order, ids and slots unique, no more and no higher than a plan holds; or what is wrong with them. */
export function orderedChannels(channels: readonly Channel[]): Channel[] | string {
  if (channels.length > CHANNEL_LIMIT)
    return `A plan holds ${CHANNEL_LIMIT} channels at most; this would make ${channels.length}.`;
  const sorted = [...channels].sort((a, b) => a.slot - b.slot);
  const highest = sorted.at(-1);
  if (highest && highest.slot > SLOT_LIMIT)
    return `Slot ${highest.slot} is over ${SLOT_LIMIT}, the highest that a plan has.`;
  const ids = new Set<string>();
  for (const [index, channel] of sorted.entries()) {
    if (ids.has(channel.id)) return `The channel ${channel.id} would be there twice.`;
    ids.add(channel.id);
    const before = sorted[index - 1];
    if (before && before.slot === channel.slot)
      return `Slot ${channel.slot} is taken by “${before.name || channel.name || 'a channel without a name'}”.`;
  }
  return sorted;
}

/**
 * What is wrong with a plan that came of another one, in a sentence; null where it can be kept. Looks only at what is not
 * the very same as before: edits hand on what they leave alone.
 */
export function outcomeFault(before: Plan, after: Plan): string | null {
  const { channels, ...rest } = after;
  const known = new Set(before.channels);
  const whole = planSchema.safeParse({
    ...rest,
    channels: channels.filter((channel) => !known.has(channel)),
  });
  if (!whole.success) {
    const [issue] = whole.error.issues;
    return `The plan would not be one any more: ${issue!.path.join('.')} ${issue!.message}.`;
  }
  const ordered = orderedChannels(channels);
  if (typeof ordered === 'string') return ordered;
  return ordered.every((channel, index) => channel === channels[index])
    ? null
    : 'The channels would not be in slot order.';
}
