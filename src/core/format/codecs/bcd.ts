import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** Packed binary-coded decimal, least significant byte first, counting `unit` (Hz for frequencies); all bits set is “none”. */
export const bcd = defineCodec({
  schema: z.object({
    kind: z.literal('bcd'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(6),
    unit: z.int().min(1),
  }),
  bits: ({ at, bytes }) => wholeBytes(at, bytes),
  read(image, base, { at, bytes, unit }) {
    let digits = '';
    for (let i = bytes - 1; i >= 0; i--) digits += image[base + at + i]!.toString(16).padStart(2, '0');
    if (/^f+$/.test(digits)) return ok(null);
    return /^\d+$/.test(digits) ? ok(Number(digits) * unit) : fail(`figures ${digits}`);
  },
  write(image, base, { at, bytes, unit }, value) {
    const from = base + at;
    if (value === null) return void image.fill(0xff, from, from + bytes);
    const units = typeof value === 'number' ? value / unit : Number.NaN;
    const digits = String(units).padStart(bytes * 2, '0');
    if (!Number.isInteger(units) || digits.length > bytes * 2) throw new Error(`No BCD for ${String(value)}`);
    for (let i = 0; i < bytes; i++)
      image[from + i] = Number.parseInt(digits.slice(digits.length - 2 * i - 2, digits.length - 2 * i), 16);
  },
});
