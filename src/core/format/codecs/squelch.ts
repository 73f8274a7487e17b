import { z } from 'zod';
import { codeFigures, type Squelch } from '../../radio';
import { fail, ok } from '../../result';
import { asSquelch, defineCodec, setBits, type CodecContext } from '../codec';

/**
 * A tone or code in one byte: 0 none, `tonesFrom` + its place a tone, `codesFrom` + its place a code; whether a code is inverted
 * stands in one bit elsewhere.
 */
export const squelch = defineCodec({
  schema: z.object({
    kind: z.literal('squelch'),
    at: z.int().min(0),
    tonesFrom: z.int().min(1),
    codesFrom: z.int().min(1),
    inverted: z.object({ at: z.int().min(0), bit: z.int().min(0).max(7) }),
  }),
  bits: ({ at, inverted }) => [
    [at, 0xff],
    [inverted.at, 1 << inverted.bit],
  ],
  read(image, base, { at, tonesFrom, codesFrom, inverted }, { tones, codes }) {
    const index = image[base + at]!;
    if (index === 0) return ok(null);
    const tone = tones[index - tonesFrom];
    if (index < codesFrom && tone !== undefined) return ok({ kind: 'tone', tone });
    const code = codes[index - codesFrom];
    if (code === undefined || !/^[0-7]{3}$/.test(codeFigures(code)))
      return fail(`tone or code number ${index}`);
    const turned = ((image[base + inverted.at]! >> inverted.bit) & 1) === 1;
    return ok({ kind: 'code', code, inverted: turned });
  },
  write(image, base, spec, value, context) {
    const held = asSquelch(value);
    image[base + spec.at] = held === null ? 0 : placeOf(held, spec, context);
    const turned = held?.kind === 'code' && held.inverted;
    setBits(image, base + spec.inverted.at, 1 << spec.inverted.bit, turned ? 0xff : 0);
  },
});

function placeOf(
  held: Squelch,
  { tonesFrom, codesFrom }: { tonesFrom: number; codesFrom: number },
  { tones, codes }: CodecContext,
): number {
  const place = held.kind === 'tone' ? tones.indexOf(held.tone) : codes.indexOf(held.code);
  if (place < 0) throw new Error('A tone or code that the model does not have');
  return place + (held.kind === 'tone' ? tonesFrom : codesFrom);
}
