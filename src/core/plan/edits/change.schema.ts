import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelFieldsSchema } from '../channel.schema';
import {
  channelIdSchema,
  receiveListIdSchema,
  scanEdgeIdSchema,
  scanListIdSchema,
  setUpIdSchema,
  skipSetIdSchema,
  talkgroupIdSchema,
  zoneIdSchema,
  type ChannelId,
} from '../ids.schema';
import { KINDS, type OwnKind } from '../kinds';
import { receiveListFieldsSchema } from '../receive-list.schema';
import { scanEdgeFieldsSchema } from '../scan-edge.schema';
import { scanListFieldsSchema } from '../scan-list.schema';
import { setUpFieldsSchema } from '../set-up.schema';
import { skipSetFieldsSchema } from '../skip-set.schema';
import { talkgroupFieldsSchema } from '../talkgroup.schema';
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

const changesOf = <K extends OwnKind, I extends z.ZodType, F extends z.ZodRawShape>(
  kind: K,
  id: I,
  fields: z.ZodObject<F>,
) =>
  z.object({
    name: z.literal('change'),
    kind: z.literal(kind),
    changes: z
      .array(z.object({ id, set: fields.partial().strict() }))
      .min(1)
      .max(KINDS[kind].limit),
  });

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
  changesOf('leftOver', channelIdSchema, channelFieldsSchema),
  changesOf('zone', zoneIdSchema, zoneFieldsSchema),
  changesOf('skipSet', skipSetIdSchema, skipSetFieldsSchema),
  changesOf('scanEdge', scanEdgeIdSchema, scanEdgeFieldsSchema),
  changesOf('setUp', setUpIdSchema, setUpFieldsSchema),
  changesOf('talkgroup', talkgroupIdSchema, talkgroupFieldsSchema),
  changesOf('receiveList', receiveListIdSchema, receiveListFieldsSchema),
  changesOf('scanList', scanListIdSchema, scanListFieldsSchema),
]);
export type ChangeEdit = z.infer<typeof changeSchema>;
