import { z } from 'zod';
import { CHANNEL_LIMIT, LIST_LIMIT, SLOT_LIMIT } from '../channel';
import { channelIdSchema } from '../ids.schema';
import { HOW } from './arrange';

const slot = z.int().min(0).max(SLOT_LIMIT);

export const arrangeSchema = z.object({
  name: z.literal('arrange'),
  how: z.enum(Object.keys(HOW) as (keyof typeof HOW)[]),
  moves: z
    .array(
      z.object({
        id: channelIdSchema,
        from: slot,
        to: slot,
        /** The list that it goes to, where that is another one. */
        list: z
          .int()
          .min(0)
          .max(LIST_LIMIT - 1)
          .optional(),
      }),
    )
    .min(1)
    .max(CHANNEL_LIMIT),
});
export type ArrangeEdit = z.infer<typeof arrangeSchema>;
