import { z } from 'zod';
import { ok } from '../../result';
import { defineCodec, setBits } from '../codec';

/** Yes or no in one bit; set is yes, or no where `set` says so. */
export const flag = defineCodec({
  schema: z.object({
    kind: z.literal('flag'),
    at: z.int().min(0),
    bit: z.int().min(0).max(7),
    set: z.boolean().default(true),
  }),
  bits: ({ at, bit }) => [[at, 1 << bit]],
  read: (image, base, { at, bit, set }) => ok((((image[base + at]! >> bit) & 1) === 1) === set),
  write: (image, base, { at, bit, set }, value) =>
    setBits(image, base + at, 1 << bit, (value === true) === set ? 0xff : 0),
});
