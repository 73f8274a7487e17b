import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** Characters of the model, one a byte in ASCII, filled with spaces. */
export const text = defineCodec({
  schema: z.object({
    kind: z.literal('text'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(128),
    /** Its own characters, where they are not those of the radio's names. */
    characters: z.string().optional(),
  }),
  bits: ({ at, bytes }) => wholeBytes(at, bytes),
  read(image, base, { at, bytes, characters }, context) {
    const read = String.fromCharCode(...image.subarray(base + at, base + at + bytes)).trimEnd();
    return [...read].every((character) => (characters ?? context.characters).includes(character))
      ? ok(read)
      : fail('a text with characters that the radio does not have');
  },
  write(image, base, { at, bytes }, value) {
    const padded = String(value ?? '').padEnd(bytes, ' ');
    if (padded.length > bytes) throw new Error(`“${padded}” is longer than ${bytes}`);
    for (let i = 0; i < bytes; i++) image[base + at + i] = padded.charCodeAt(i);
  },
});
