import { z } from 'zod';
import { GRADES, REGIONS } from '../radio';
import { channelSchema, type Channel } from './channel';
import { planIdSchema } from './ids';
import { ABBREVIATIONS, abbreviationsSchema, type Abbreviations } from './names';

/** Whose plan it is, and by which licence it is guarded. */
export const ownerSchema = z.object({
  callSign: z.string().trim().max(16),
  region: z.enum(REGIONS),
  grade: z.enum(GRADES),
  /** Guard strictly: transmitting outside the licence is a stop, not a caution. */
  strict: z.boolean(),
});

export const detailsSchema = z.object({
  name: z.string().trim().min(1, 'is empty').max(60, 'is longer than 60 characters'),
  /** The model that the plan is made for; a fit can be asked for any other. */
  modelId: z.string().min(1).max(40),
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
  channels: z.array(channelSchema).max(10_000),
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

/** The channels in slot order, ids and slots unique, or what is wrong with them. */
export function orderedChannels(channels: readonly Channel[]): Channel[] | string {
  const sorted = [...channels].sort((a, b) => a.slot - b.slot);
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
