import { z } from 'zod';
import { besideChangeSchema, contentChangeSchema } from '../compare';

/** In what something else differs from a sealed copy: channel by channel, bank and setting in words, and the bytes below. */
export const copyComparisonSchema = z.object({
  /** What it is held against, for people: a unit and a time, or a plan. */
  called: z.string(),
  /** `added` is there and not in the copy. */
  change: contentChangeSchema,
  besides: z.array(besideChangeSchema),
  /** Bytes that differ, area by area, those that the radio changes itself too; null against a plan, which has none. */
  bytes: z
    .object({
      of: z.int(),
      different: z.int(),
      areas: z.array(z.object({ label: z.string(), different: z.int() })),
    })
    .nullable(),
});
export type CopyComparison = z.infer<typeof copyComparisonSchema>;
