import { z } from 'zod';
import { fittedChannelSchema, type FittedChannel } from '../models';
import { channelIdSchema, type ChannelId } from '../plan';
import { OBSTACLES } from './obstacle';

export const fitChangeSchema = z.object({
  id: channelIdSchema,
  what: z.enum(['name', 'power', 'tx', 'access']),
  /** In plain words: `Name shortened to ULLSMR`. */
  text: z.string(),
  /** The radio's reason: `6 characters, capitals only`. */
  because: z.string(),
});
/** Something that a model holds otherwise than the plan says. */
export type FitChange = z.infer<typeof fitChangeSchema>;

/** A channel as the model holds it. */
export type FittedPlanChannel = FittedChannel & { id: ChannelId };

export const fitSchema = z.object({
  modelId: z.string(),
  channels: z.array(fittedChannelSchema.extend({ id: channelIdSchema })),
  changes: z.array(fitChangeSchema),
  /** Channels that the model cannot hold, with all that is in the way. */
  leftOut: z.array(z.object({ id: channelIdSchema, obstacles: z.array(z.enum(OBSTACLES)) })),
});
/** A plan worked out for one model. */
export type Fit = z.infer<typeof fitSchema>;
