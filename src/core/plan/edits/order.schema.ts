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

const orderOf = <K extends OwnKind, I extends z.ZodType>(kind: K, id: I) =>
  z.object({
    name: z.literal('order'),
    kind: z.literal(kind),
    ids: z.array(id).min(1).max(KINDS[kind].limit),
    before: id.nullable(),
  });

export const orderSchema = z.discriminatedUnion('kind', [
  orderOf('leftOver', channelIdSchema),
  orderOf('zone', zoneIdSchema),
  orderOf('skipSet', skipSetIdSchema),
  orderOf('scanEdge', scanEdgeIdSchema),
  orderOf('setUp', setUpIdSchema),
  orderOf('talkgroup', talkgroupIdSchema),
  orderOf('receiveList', receiveListIdSchema),
  orderOf('scanList', scanListIdSchema),
]);
export type OrderEdit = z.infer<typeof orderSchema>;
