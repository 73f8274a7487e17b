import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, setBits } from '../codec';

/** One of `values`, by its place in the list, in `width` bits of a byte from bit `shift` up. */
export const choice = defineCodec({
  schema: z.object({
    kind: z.literal('choice'),
    at: z.int().min(0),
    shift: z.int().min(0).max(7),
    width: z.int().min(1).max(8),
    values: z.array(z.union([z.string(), z.number(), z.boolean()])).min(2),
  }),
  bits: ({ at, shift, width }) => [[at, ((1 << width) - 1) << shift]],
  read(image, base, { at, shift, width, values }) {
    const index = (image[base + at]! >> shift) & ((1 << width) - 1);
    return index < values.length ? ok(values[index]!) : fail(`choice ${index} of ${values.length}`);
  },
  write(image, base, { at, shift, width, values }, value) {
    const index = values.findIndex((one) => one === value);
    if (index < 0) throw new Error(`${String(value)} is not one of ${values.join(', ')}`);
    setBits(image, base + at, ((1 << width) - 1) << shift, index << shift);
  },
});
