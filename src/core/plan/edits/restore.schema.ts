import { z } from 'zod';
import { abbreviationsSchema } from '../abbreviations.schema';
import { CHANNEL_LIMIT } from '../channel';
import { channelSchema } from '../channel.schema';
import {
  channelIdSchema,
  receiveListIdSchema,
  scanEdgeIdSchema,
  scanListIdSchema,
  setUpIdSchema,
  skipSetIdSchema,
  talkgroupIdSchema,
  zoneIdSchema,
} from '../ids.schema';
import { KINDS, type OwnKind } from '../kinds';
import { SCHEMAS } from '../kinds.schema';
import { detailsSchema, headSchema, lookedAtSchema, originSchema, settingsSchema } from '../plan.schema';
import { unitSchema } from '../unit.schema';

const channels = z.array(channelSchema).max(CHANNEL_LIMIT);
const channelIds = z.array(channelIdSchema).max(CHANNEL_LIMIT);

const ownOf = <K extends OwnKind, I extends z.ZodType>(kind: K, id: I) => {
  const ids = z.array(id).max(KINDS[kind].limit);
  return z
    .object({ put: z.array(SCHEMAS[kind]).max(KINDS[kind].limit), remove: ids, order: ids.optional() })
    .optional();
};

export const restoreSchema = z.object({
  name: z.literal('restore'),
  records: z
    .object({
      channel: z.object({ put: channels, remove: channelIds }).optional(),
      leftOver: ownOf('leftOver', channelIdSchema),
      zone: ownOf('zone', zoneIdSchema),
      skipSet: ownOf('skipSet', skipSetIdSchema),
      scanEdge: ownOf('scanEdge', scanEdgeIdSchema),
      setUp: ownOf('setUp', setUpIdSchema),
      talkgroup: ownOf('talkgroup', talkgroupIdSchema),
      receiveList: ownOf('receiveList', receiveListIdSchema),
      scanList: ownOf('scanList', scanListIdSchema),
    })
    .strict()
    .optional(),
  /** Older heads know no settings, no origin, nothing of plans that were looked at: they stay as they are then. */
  head: headSchema
    .extend({
      abbreviations: abbreviationsSchema.nullable(),
      settings: settingsSchema.optional(),
      origin: originSchema.nullable().optional(),
      lookedAt: lookedAtSchema.optional(),
      unit: unitSchema.nullable().optional(),
    })
    .optional(),
  // How logs of format 1 have it: channels alone, and the oldest know no abbreviations.
  put: channels.optional(),
  remove: channelIds.optional(),
  details: detailsSchema.extend({ abbreviations: abbreviationsSchema.nullable().optional() }).optional(),
});
export type RestoreEdit = z.infer<typeof restoreSchema>;
