import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
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

const removeOf = <K extends OwnKind, I extends z.ZodType>(kind: K, id: I) =>
  z.object({
    name: z.literal('remove'),
    kind: z.literal(kind),
    ids: z.array(id).min(1).max(KINDS[kind].limit),
  });

export const removeSchema = z.discriminatedUnion('kind', [
  z.object({
    name: z.literal('remove'),
    /** The first logs know no other kind and do not name it. */
    kind: z.literal('channel').optional(),
    ids: z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT),
  }),
  removeOf('leftOver', channelIdSchema),
  removeOf('zone', zoneIdSchema),
  removeOf('skipSet', skipSetIdSchema),
  removeOf('scanEdge', scanEdgeIdSchema),
  removeOf('setUp', setUpIdSchema),
  removeOf('talkgroup', talkgroupIdSchema),
  removeOf('receiveList', receiveListIdSchema),
  removeOf('scanList', scanListIdSchema),
]);
export type RemoveEdit = z.infer<typeof removeSchema>;
