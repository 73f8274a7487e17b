import { z } from 'zod';
import { codeFigures, formatTone } from '../../radio';
import { fail, ok } from '../../result';
import { asSquelch, defineCodec, wholeBytes } from '../codec';

const BYTES = 6;

/** A tone or code as a line of text has it, six characters: `T088.5`, `N023` a code, `I023` an inverted one; spaces are none. */
export const squelchText = defineCodec({
  schema: z.object({ kind: z.literal('squelchText'), at: z.int().min(0) }),
  bits: ({ at }) => wholeBytes(at, BYTES),
  read(image, base, { at }, { tones, codes }) {
    const text = String.fromCharCode(...image.subarray(base + at, base + at + BYTES)).trimEnd();
    if (text === '') return ok(null);
    const [, figures] = /^T(\d{3}\.\d)$/.exec(text) ?? [];
    const tone = figures === undefined ? undefined : Number(figures.replace('.', ''));
    if (tone !== undefined && tones.includes(tone)) return ok({ kind: 'tone', tone });
    const code = /^[NI]\d{3}$/.test(text) ? Number(text.slice(1)) : undefined;
    if (code !== undefined && codes.includes(code))
      return ok({ kind: 'code', code, inverted: text.startsWith('I') });
    return fail(`the tone or code “${text}”`);
  },
  write(image, base, { at }, value, { tones, codes }) {
    const held = asSquelch(value);
    if (held && !(held.kind === 'tone' ? tones.includes(held.tone) : codes.includes(held.code)))
      throw new Error('A tone or code that the model does not have');
    const text = !held
      ? ''
      : held.kind === 'tone'
        ? `T${formatTone(held.tone).padStart(5, '0')}`
        : `${held.inverted ? 'I' : 'N'}${codeFigures(held.code)}`;
    const padded = text.padEnd(BYTES, ' ');
    for (let i = 0; i < BYTES; i++) image[base + at + i] = padded.charCodeAt(i);
  },
});
