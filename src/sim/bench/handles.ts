import { z } from 'zod';

/** What a person does with a radio on the bench. */
export const handleSchema = z.strictObject({
  plugged: z.boolean().optional(),
  on: z.boolean().optional(),
  /** Steps of the knob, to and fro through the channels in use. */
  turn: z.int().min(-150).max(150).optional(),
  slot: z.int().min(0).max(9999).optional(),
  keyDown: z.boolean().optional(),
  /** Puts something into a memory on its own keys, or empties it. */
  key: z
    .strictObject({
      list: z.int().min(0).max(8).default(0),
      slot: z.int().min(0).max(9999),
      name: z.string().max(16).optional(),
      rx: z.int().min(0).max(1_300_000_000).optional(),
      clear: z.boolean().optional(),
    })
    .optional(),
  /** Somebody keys up near it, by ID, for a talkgroup or a person; null when they let go. */
  talk: z
    .strictObject({ from: z.int().min(1).max(0xffffff), to: z.int().min(1).max(0xffffff) })
    .nullable()
    .optional(),
  /** What is chosen in its menu: all goes to its card, or comes from there. */
  card: z.enum(['save', 'load']).optional(),
  battery: z.int().min(0).max(100).optional(),
  /** Puts the cable into another socket of the computer. */
  cable: z.int().min(0).max(9).optional(),
});

const towards = z.enum(['radio', 'host']).default('radio');

/** Faults to order. Bytes are counted on the line towards the radio, or towards the host, from the order on. */
export const faultSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('pull'), atByte: z.int().min(1), towards }),
  z.strictObject({ kind: z.literal('flip'), atByte: z.int().min(1), towards }),
  z.strictObject({ kind: z.literal('rubbish') }),
  // At once, or from that byte towards the radio on.
  z.strictObject({ kind: z.literal('silent'), atByte: z.int().min(1).optional() }),
  z.strictObject({ kind: z.literal('wrong model'), ident: z.string().length(8) }),
  z.strictObject({ kind: z.literal('newer firmware'), version: z.string().regex(/^\d\.\d\d$/) }),
  z.strictObject({ kind: z.literal('refuse') }),
  z.strictObject({ kind: z.literal('slow'), factor: z.number().min(1).max(100) }),
]);
export type Fault = z.infer<typeof faultSchema>;
