import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelSchema } from '../channel.schema';
import { channelIdSchema } from '../ids.schema';
import { detailsSchema, headSchema } from '../plan.schema';
import { abbreviationsSchema } from '../abbreviations.schema';
import { zoneIdSchema } from '../ids.schema';
import { ZONE_LIMIT } from '../zone';
import { zoneSchema } from '../zone.schema';

const channels = z.array(channelSchema).max(CHANNEL_LIMIT);
const channelIds = z.array(channelIdSchema).max(CHANNEL_LIMIT);

const zoneIds = z.array(zoneIdSchema).max(ZONE_LIMIT);

export const restoreSchema = z.object({
  name: z.literal('restore'),
  records: z
    .object({
      channel: z.object({ put: channels, remove: channelIds }).optional(),
      zone: z
        .object({
          put: z.array(zoneSchema).max(ZONE_LIMIT),
          remove: zoneIds,
          order: zoneIds.optional(),
        })
        .optional(),
    })
    .strict()
    .optional(),
  head: headSchema.extend({ abbreviations: abbreviationsSchema.nullable() }).optional(),
  // How logs of format 1 have it: channels alone, and the oldest know no abbreviations.
  put: channels.optional(),
  remove: channelIds.optional(),
  details: detailsSchema.extend({ abbreviations: abbreviationsSchema.nullable().optional() }).optional(),
});
export type RestoreEdit = z.infer<typeof restoreSchema>;
