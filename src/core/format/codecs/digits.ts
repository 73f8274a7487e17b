import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** A number in decimal figures, as a line of text has it: filled with zeros from the left, counting `unit` (Hz for frequencies); spaces are “none”. */
export const digits = defineCodec({
  schema: z.object({
    kind: z.literal('digits'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(12),
    unit: z.int().min(1),
  }),
  bits: ({ at, bytes }) => wholeBytes(at, bytes),
  read(image, base, { at, bytes, unit }) {
    const figures = String.fromCharCode(...image.subarray(base + at, base + at + bytes));
    if (figures.trim() === '') return ok(null);
    return /^\d+$/.test(figures) ? ok(Number(figures) * unit) : fail(`“${figures}” where figures belong`);
  },
  write(image, base, { at, bytes, unit }, value) {
    const from = base + at;
    if (value === null) return void image.fill(0x20, from, from + bytes);
    const units = typeof value === 'number' ? value / unit : Number.NaN;
    const figures = String(units).padStart(bytes, '0');
    if (!Number.isInteger(units) || units < 0 || figures.length > bytes)
      throw new Error(`No ${bytes} figures for ${String(value)}`);
    for (let i = 0; i < bytes; i++) image[from + i] = figures.charCodeAt(i);
  },
});
