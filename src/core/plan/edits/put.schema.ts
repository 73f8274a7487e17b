import { z } from 'zod';
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

const putOf = <K extends OwnKind, I extends z.ZodType>(kind: K, id: I) =>
  z.object({
    name: z.literal('put'),
    kind: z.literal(kind),
    records: z.array(SCHEMAS[kind]).min(1).max(KINDS[kind].limit),
    before: id.nullable(),
  });

export const putSchema = z.discriminatedUnion('kind', [
  putOf('leftOver', channelIdSchema),
  putOf('zone', zoneIdSchema),
  putOf('skipSet', skipSetIdSchema),
  putOf('scanEdge', scanEdgeIdSchema),
  putOf('setUp', setUpIdSchema),
  putOf('talkgroup', talkgroupIdSchema),
  putOf('receiveList', receiveListIdSchema),
  putOf('scanList', scanListIdSchema),
]);
export type PutEdit = z.infer<typeof putSchema>;
