import { z } from 'zod';
import { CHANNEL_LIMIT, LIST_LIMIT, SLOT_LIMIT } from '../channel';
import { newChannelSchema } from '../channel.schema';
import { PLACEMENTS } from '../slots';

const slot = z.int().min(0).max(SLOT_LIMIT);

export const placeSchema = z.object({
  name: z.literal('place'),
  channels: z.array(newChannelSchema).min(1).max(CHANNEL_LIMIT),
  placement: z.enum(PLACEMENTS),
  /** The list of slots; the first where it is not said. */
  list: z
    .int()
    .min(0)
    .max(LIST_LIMIT - 1)
    .optional(),
  at: slot,
  range: z.object({
    first: slot,
    count: z
      .int()
      .min(1)
      .max(SLOT_LIMIT + 1),
  }),
  /** The slot of each channel, all of them free: then neither the way nor `at` counts. */
  slots: z.array(slot).max(CHANNEL_LIMIT).optional(),
  /** The slots that the preview showed; the edit is refused where they are no longer what it would give. */
  expect: z.array(slot).max(CHANNEL_LIMIT).optional(),
});
export type PlaceEdit = z.infer<typeof placeSchema>;
