import { z } from 'zod';
import { MODES, squelchSchema, type Mode } from '../radio';

/** A channel as a radio holds it: what the fit works out, and what the bytes say. */
export const fittedChannelSchema = z.object({
  /** Which of the radio's lists it is in; 0 is the first. */
  list: z.int().min(0),
  slot: z.int().min(0),
  name: z.string(),
  rx: z.number(),
  /** null is listen only. */
  tx: z.number().nullable(),
  /** Kept as two frequencies by a radio that stores one shift a band, and shown as such. */
  split: z.literal(true).optional(),
  send: squelchSchema.nullable(),
  expect: squelchSchema.nullable(),
  mode: z.enum(MODES as [Mode, ...Mode[]]),
  /** mW, one of the model's; the highest where a memory knows no power. */
  power: z.number(),
  scan: z.boolean(),
});
export type FittedChannel = z.infer<typeof fittedChannelSchema>;
