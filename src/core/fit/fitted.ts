import { z } from 'zod';
import { contentSchema, fittedChannelSchema, type FittedChannel } from '../models';
import { channelIdSchema, KIND_NAMES, heldValueSchema, type ChannelId } from '../plan';
import { OBSTACLES } from './obstacle';

export const fitChangeSchema = z.object({
  id: channelIdSchema,
  what: z.enum(['name', 'power', 'tx', 'access', 'mode', 'shift', 'digital', 'scan list']),
  /** In plain words: `Name shortened to ULLSMR`. */
  text: z.string(),
  /** The radio's reason: `6 characters, capitals only`. */
  because: z.string(),
});
/** Something that a model holds otherwise than the plan says. */
export type FitChange = z.infer<typeof fitChangeSchema>;

/** A channel as the model holds it. */
export type FittedPlanChannel = FittedChannel & { id: ChannelId };

export const fitBesideSchema = z.object({
  kind: z.enum(['setting', ...KIND_NAMES]),
  /** Of the record, or the setting's key. */
  id: z.string(),
  /** What becomes of it: `Left out`, `Named DAY ONE`. */
  text: z.string(),
  because: z.string(),
});
/** Something beside the channels that a model holds otherwise than the plan says, or not at all. */
export type FitBeside = z.infer<typeof fitBesideSchema>;

export const fitSchema = contentSchema.extend({
  modelId: z.string(),
  channels: z.array(fittedChannelSchema.extend({ id: channelIdSchema })),
  /** What is set on the radio by this plan. */
  settings: z.record(z.string(), heldValueSchema),
  changes: z.array(fitChangeSchema),
  besides: z.array(fitBesideSchema),
  /** Channels that the model cannot hold, with all that is in the way. */
  leftOut: z.array(z.object({ id: channelIdSchema, obstacles: z.array(z.enum(OBSTACLES)) })),
});
/** A plan worked out for one model. */
export type Fit = z.infer<typeof fitSchema>;

/** What is said of several alike, once, with how many they are. */
export function alikeOf(
  said: readonly Pick<FitBeside, 'text' | 'because'>[],
): { text: string; because: string; n: number }[] {
  const alike = new Map<string, { text: string; because: string; n: number }>();
  for (const { text, because } of said) {
    const before = alike.get(`${text} ${because}`);
    if (before) before.n++;
    else alike.set(`${text} ${because}`, { text, because, n: 1 });
  }
  return [...alike.values()];
}
