import { z } from 'zod';
import { wantedText } from '../text.schema';
import { CHANNEL_LIMIT } from './channel';
import { channelIdSchema, scanListReferenceSchema, zoneIdSchema } from './ids.schema';
import { KNOB_LIMIT, ZONE_NAME_LIMIT } from './zone';

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
  /** What each position of the knob does, from 1 on; the members in their order where it is not said. A position may be empty. */
  knob: z
    .array(z.object({ channel: channelIdSchema.nullable() }))
    .max(KNOB_LIMIT)
    .nullable()
    .optional(),
  /** What is looked at when the scan is begun in it, on radios that keep it by zone. */
  scanList: scanListReferenceSchema.nullable().optional(),
});

export const zoneSchema = zoneFieldsSchema.extend({ id: zoneIdSchema });

/** A named set of channels in an order of its own; a channel may be in several. Radios call it zone or bank. */
export type Zone = z.infer<typeof zoneSchema>;
