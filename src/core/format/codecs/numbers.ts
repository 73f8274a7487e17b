import { z } from 'zod';
import { fail, ok } from '../../result';
import { asNumbers, defineCodec, wholeBytes } from '../codec';
import { whole } from './whole';

/**
 * Numbers in an order of their own, in `count` places of `bytes` bytes each, least significant byte first. A place with all bits set is
 * empty: it reads as 0, and those behind the last number are not read.
 */
export const numbers = defineCodec({
  schema: z.object({
    kind: z.literal('numbers'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(2),
    count: z.int().min(1).max(512),
  }),
  bits: ({ at, bytes, count }) => wholeBytes(at, bytes * count),
  read(image, base, { at, bytes, count }, context) {
    const found: number[] = [];
    let last = 0;
    for (let place = 0; place < count; place++) {
      const read = whole.read(image, base, { kind: 'whole', at: at + place * bytes, bytes }, context);
      if (!read.ok) return read;
      if (read.value === 0) return fail('a place that names nothing');
      found.push(read.value === null ? 0 : Number(read.value));
      if (read.value !== null) last = place + 1;
    }
    return ok(found.slice(0, last));
  },
  write(image, base, { at, bytes, count }, value, context) {
    const wanted = asNumbers(value, 0, 256 ** bytes - 1);
    if (wanted.length > count) throw new Error(`${wanted.length} numbers in ${count} places`);
    for (let place = 0; place < count; place++)
      whole.write(
        image,
        base,
        { kind: 'whole', at: at + place * bytes, bytes },
        wanted[place] || null,
        context,
      );
  },
});
