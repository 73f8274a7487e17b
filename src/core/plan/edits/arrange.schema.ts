import { z } from 'zod';
import { CHANNEL_LIMIT, LIST_LIMIT, SLOT_LIMIT } from '../channel';
import { channelIdSchema } from '../ids.schema';
import { ARRANGE_WORDS } from '../label';

const slot = z.int().min(0).max(SLOT_LIMIT);

export const arrangeSchema = z.object({
  name: z.literal('arrange'),
  how: z.enum(Object.keys(ARRANGE_WORDS) as (keyof typeof ARRANGE_WORDS)[]),
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
