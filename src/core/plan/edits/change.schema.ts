import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelFieldsSchema } from '../channel.schema';
import { channelIdSchema, zoneIdSchema, type ChannelId } from '../ids.schema';
import { ZONE_LIMIT } from '../zone';
import { zoneFieldsSchema } from '../zone.schema';

/** Fields to set on one channel; what is not named stays. */
export const channelSetSchema = channelFieldsSchema
  .partial()
  .strict()
  .refine((set) => set.txFixed === undefined || set.tx !== undefined, 'has txFixed without tx');
export type ChannelSet = z.infer<typeof channelSetSchema>;

/** What to set on which channel. */
export interface ChannelChange {
  id: ChannelId;
  set: ChannelSet;
}

const zones = zoneFieldsSchema.partial().strict();

export const changeSchema = z.discriminatedUnion('kind', [
  z.object({
    name: z.literal('change'),
    /** The first logs know no other kind and do not name it. */
    kind: z.literal('channel').optional(),
    changes: z
      .array(z.object({ id: channelIdSchema, set: channelSetSchema }))
      .min(1)
      .max(CHANNEL_LIMIT),
  }),
  z.object({
    name: z.literal('change'),
    kind: z.literal('zone'),
    changes: z
      .array(z.object({ id: zoneIdSchema, set: zones }))
      .min(1)
      .max(ZONE_LIMIT),
  }),
]);
export type ChangeEdit = z.infer<typeof changeSchema>;
