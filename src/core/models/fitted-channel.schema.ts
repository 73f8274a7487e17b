import { z } from 'zod';
import { MODES, squelchSchema, type Mode } from '../radio';

/** A channel as a radio holds it: what the fit works out, and what the bytes say. */
export const fittedChannelSchema = z.object({
  slot: z.int().min(0),
  name: z.string(),
  rx: z.number(),
  /** null is listen only. */
  tx: z.number().nullable(),
  send: squelchSchema.nullable(),
  expect: squelchSchema.nullable(),
  mode: z.enum(MODES as [Mode, ...Mode[]]),
  /** mW, one of the model's. */
  power: z.number(),
  scan: z.boolean(),
});
export type FittedChannel = z.infer<typeof fittedChannelSchema>;
