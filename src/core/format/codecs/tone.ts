import { z } from 'zod';
import { fail, ok } from '../../result';
import { asSquelch, defineCodec, wholeBytes } from '../codec';

/** A tone in one byte, by its place in the radio's list from 1 up; 0 is none. For radios without codes. */
export const tone = defineCodec({
  schema: z.object({ kind: z.literal('tone'), at: z.int().min(0) }),
  bits: ({ at }) => wholeBytes(at, 1),
  read(image, base, { at }, { tones }) {
    const place = image[base + at]!;
    if (place === 0) return ok(null);
    const held = tones[place - 1];
    return held === undefined ? fail(`tone number ${place}`) : ok({ kind: 'tone', tone: held });
  },
  write(image, base, { at }, value, { tones }) {
    const held = asSquelch(value);
    const place = held === null ? 0 : held.kind === 'tone' ? tones.indexOf(held.tone) + 1 : 0;
    if (held !== null && place === 0) throw new Error('A tone or code that the model does not have');
    image[base + at] = place;
  },
});
