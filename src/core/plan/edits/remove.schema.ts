import { z } from 'zod';
import { CHANNEL_LIMIT } from '../channel';
import { channelIdSchema, type ChannelId } from '../ids.schema';
import type { OwnKind } from '../kinds';
import { eachOwnKind, type IdOf } from '../kinds.schema';

/** The first logs know no other kind than channels and do not name it. */
export type RemoveEdit =
  | { name: 'remove'; kind?: 'channel' | undefined; ids: ChannelId[] }
  | {
      [K in OwnKind]: {
        name: 'remove';
        kind: K;
        ids: IdOf<K>[];
      };
    }[OwnKind];

export const removeSchema = eachOwnKind<RemoveEdit>(
  (kind, { id }, limit) =>
    z.object({ name: z.literal('remove'), kind: z.literal(kind), ids: z.array(id).min(1).max(limit) }),
  z.object({
    name: z.literal('remove'),
    kind: z.literal('channel').optional(),
    ids: z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT),
  }),
);
