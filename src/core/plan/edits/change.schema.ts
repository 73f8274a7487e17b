import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelFieldsSchema } from '../channel.schema';
import { channelIdSchema, type ChannelId } from '../ids.schema';
import type { OwnKind } from '../kinds';
import { eachOwnKind, type IdOf, type SetOf } from '../kinds.schema';

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

/** The first logs know no other kind than channels and do not name it. */
export type ChangeEdit =
  | { name: 'change'; kind?: 'channel' | undefined; changes: ChannelChange[] }
  | {
      [K in OwnKind]: {
        name: 'change';
        kind: K;
        changes: { id: IdOf<K>; set: SetOf<K> }[];
      };
    }[OwnKind];

export const changeSchema = eachOwnKind<ChangeEdit>(
  (kind, { id, fields }, limit) =>
    z.object({
      name: z.literal('change'),
      kind: z.literal(kind),
      changes: z
        .array(z.object({ id, set: fields.partial().strict() }))
        .min(1)
        .max(limit),
    }),
  z.object({
    name: z.literal('change'),
    kind: z.literal('channel').optional(),
    changes: z
      .array(z.object({ id: channelIdSchema, set: channelSetSchema }))
      .min(1)
      .max(CHANNEL_LIMIT),
  }),
);
