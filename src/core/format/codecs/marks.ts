import { z } from 'zod';
import { fail, ok } from '../../result';
import { asNumbers, defineCodec, wholeBytes } from '../codec';

/** A set of numbers from `first` up, a character each, as a line of text has it: X is in it, - is not. */
export const marks = defineCodec({
  schema: z.object({
    kind: z.literal('marks'),
    at: z.int().min(0),
    first: z.int().min(0),
    count: z.int().min(1).max(64),
  }),
  bits: ({ at, count }) => wholeBytes(at, count),
  read(image, base, { at, first, count }) {
    const text = String.fromCharCode(...image.subarray(base + at, base + at + count));
    if (!/^[X-]*$/.test(text)) return fail(`“${text}” where X and - belong`);
    return ok([...text].flatMap((mark, place) => (mark === 'X' ? [first + place] : [])));
  },
  write(image, base, { at, first, count }, value) {
    const wanted = new Set(asNumbers(value, first, count));
    for (let place = 0; place < count; place++)
      image[base + at + place] = (wanted.has(first + place) ? 'X' : '-').charCodeAt(0);
  },
});
