import { z } from 'zod';
import { ok } from '../../result';
import { asNumbers, defineCodec, setBits } from '../codec';

/** A set of numbers from `first` up, a bit each, from the lowest bit of the first byte up. */
export const bits = defineCodec({
  schema: z.object({
    kind: z.literal('bits'),
    at: z.int().min(0),
    first: z.int().min(0),
    count: z.int().min(1).max(4096),
  }),
  bits: ({ at, count }) =>
    Array.from({ length: Math.ceil(count / 8) }, (_, byte) => [
      at + byte,
      byte === count >> 3 ? (1 << (count & 7)) - 1 : 0xff,
    ]),
  read(image, base, { at, first, count }) {
    const numbers: number[] = [];
    for (let bit = 0; bit < count; bit++)
      if ((image[base + at + (bit >> 3)]! >> (bit & 7)) & 1) numbers.push(first + bit);
    return ok(numbers);
  },
  write(image, base, { at, first, count }, value) {
    const wanted = new Set(asNumbers(value, first, count));
    for (let bit = 0; bit < count; bit++)
      setBits(image, base + at + (bit >> 3), 1 << (bit & 7), wanted.has(first + bit) ? 0xff : 0);
  },
});
