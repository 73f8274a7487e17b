import { z } from 'zod';
import { codeFigures } from './code';

/** A tone (tenths of Hz) or a code with its polarity. Off-list values are kept, so that Check can speak of them. */
export const squelchSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tone'), tone: z.int().min(600).max(2600) }),
  z.object({
    kind: z.literal('code'),
    code: z
      .int()
      .min(1)
      .max(777)
      .refine((code) => /^[0-7]{3}$/.test(codeFigures(code)), 'has a figure over 7'),
    inverted: z.boolean(),
  }),
]);
export type Squelch = z.infer<typeof squelchSchema>;

/**
 * What opens the other end (`send`) and our own squelch (`expect`); digital channels have a colour code (0 to 15) and
 * time slot (ETSI TS 102 361), or a network access code of 12 bits (TIA-102).
 */
export const accessSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('analogue'), send: squelchSchema.nullable(), expect: squelchSchema.nullable() }),
  z.object({
    kind: z.literal('dmr'),
    colourCode: z.int().min(0).max(15),
    timeSlot: z.union([z.literal(1), z.literal(2)]),
  }),
  z.object({ kind: z.literal('nac'), nac: z.int().min(0).max(0xfff) }),
]);
export type Access = z.infer<typeof accessSchema>;
