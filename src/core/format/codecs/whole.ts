import { z } from 'zod';
import { ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** A whole number from 0 up, least significant byte first; all bits set is “none”. */
export const whole = defineCodec({
  schema: z.object({ kind: z.literal('whole'), at: z.int().min(0), bytes: z.int().min(1).max(4) }),
  bits: ({ at, bytes }) => wholeBytes(at, bytes),
  read(image, base, { at, bytes }) {
    let value = 0;
    for (let i = bytes - 1; i >= 0; i--) value = value * 256 + image[base + at + i]!;
    return ok(value === 256 ** bytes - 1 ? null : value);
  },
  write(image, base, { at, bytes }, value) {
    const none = 256 ** bytes - 1;
    const number = value === null ? none : value;
    if (
      typeof number !== 'number' ||
      !Number.isInteger(number) ||
      number < 0 ||
      (number === none && value !== null) ||
      number > none
    )
      throw new Error(`${String(value)} is no whole number of ${bytes} bytes`);
    let rest = number;
    for (let i = 0; i < bytes; i++) {
      image[base + at + i] = rest % 256;
      rest = Math.floor(rest / 256);
    }
  },
});
