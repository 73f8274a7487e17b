import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelIdSchema, zoneIdSchema } from '../ids.schema';
import { ZONE_LIMIT } from '../zone';

export const removeSchema = z.discriminatedUnion('kind', [
  z.object({
    name: z.literal('remove'),
    /** The first logs know no other kind and do not name it. */
    kind: z.literal('channel').optional(),
    ids: z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT),
  }),
  z.object({
    name: z.literal('remove'),
    kind: z.literal('zone'),
    ids: z.array(zoneIdSchema).min(1).max(ZONE_LIMIT),
  }),
]);
export type RemoveEdit = z.infer<typeof removeSchema>;
