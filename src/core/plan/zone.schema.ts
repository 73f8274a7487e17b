import { z } from 'zod';
import { wantedText } from '../text.schema';
import { CHANNEL_LIMIT } from './channel';
import { channelIdSchema, zoneIdSchema } from './ids.schema';
import { ZONE_NAME_LIMIT } from './zone';

/** Channels in an order, each once. */
export const membersSchema = z
  .array(channelIdSchema)
  .max(CHANNEL_LIMIT)
  .refine((members) => new Set(members).size === members.length, 'has a channel twice');

/** What a person sets on a zone. */
export const zoneFieldsSchema = z.object({
  name: wantedText(ZONE_NAME_LIMIT),
  /** In the order in which they are in the zone; a channel once. */
  members: membersSchema,
});

export const zoneSchema = zoneFieldsSchema.extend({ id: zoneIdSchema });

/** A named set of channels in an order of its own; a channel may be in several. Radios call it zone or bank. */
export type Zone = z.infer<typeof zoneSchema>;
