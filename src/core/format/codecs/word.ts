import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** One of several values, each as a word of its own, filled with spaces. */
export const word = defineCodec({
  schema: z.object({
    kind: z.literal('word'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(16),
    words: z
      .array(z.object({ word: z.string(), value: z.union([z.string(), z.number(), z.boolean()]) }))
      .min(2),
  }),
  bits: ({ at, bytes }) => wholeBytes(at, bytes),
  read(image, base, { at, bytes, words }) {
    const read = String.fromCharCode(...image.subarray(base + at, base + at + bytes)).trimEnd();
    const found = words.find((one) => one.word === read);
    return found ? ok(found.value) : fail(`the word “${read}”`);
  },
  write(image, base, { at, bytes, words }, value) {
    const found = words.find((one) => one.value === value);
    if (!found) throw new Error(`${String(value)} has no word`);
    const padded = found.word.padEnd(bytes, ' ');
    for (let i = 0; i < bytes; i++) image[base + at + i] = padded.charCodeAt(i);
  },
});
