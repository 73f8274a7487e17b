import { z } from 'zod';
import { fail, ok, type Result } from '../result';
import { codeFigures } from './code';
import { formatTone } from './tone';

/** A tone (tenths of Hz) or a code with its polarity. Off-list values are kept, so that Check can speak of them. */
export const squelchSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tone'), tone: z.int().min(600).max(2600) }),
  z.object({
    kind: z.literal('code'),
    code: z
      .int()
      .min(1)
      .max(777)
      .refine((code) => /^[0-7]{3}$/.test(codeFigures(code)), 'has a figure over 7'),
    inverted: z.boolean(),
  }),
]);
export type Squelch = z.infer<typeof squelchSchema>;

/**
 * What opens the other end (`send`) and our own squelch (`expect`); digital channels have a colour code (0 to 15) and
 * time slot (ETSI TS 102 361), or a network access code of 12 bits (TIA-102).
 */
export const accessSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('analogue'), send: squelchSchema.nullable(), expect: squelchSchema.nullable() }),
  z.object({
    kind: z.literal('dmr'),
    colourCode: z.int().min(0).max(15),
    timeSlot: z.union([z.literal(1), z.literal(2)]),
  }),
  z.object({ kind: z.literal('nac'), nac: z.int().min(0).max(0xfff) }),
]);
export type Access = z.infer<typeof accessSchema>;

/** Access of a channel that wants nothing. */
export const OPEN: Access = { kind: 'analogue', send: null, expect: null };

/** A tone or code in entry notation: `88.5`, `D023N`, `D023I`. */
export function formatSquelch(squelch: Squelch): string {
  return squelch.kind === 'tone'
    ? formatTone(squelch.tone)
    : `D${codeFigures(squelch.code)}${squelch.inverted ? 'I' : 'N'}`;
}

/** Access in entry notation, which `parseAccess` reads back to the same value; empty for an open channel. */
export function formatAccess(access: Access): string {
  if (access.kind === 'dmr') return `CC${access.colourCode} TS${access.timeSlot}`;
  if (access.kind === 'nac') return `NAC ${access.nac.toString(16).toUpperCase().padStart(3, '0')}`;
  const send = access.send ? formatSquelch(access.send) : '';
  return access.expect ? `${send}/${formatSquelch(access.expect)}` : send;
}

/** Access in words for a screen reader or a sentence: `sends 88.5 Hz, expects D023N`. */
export function describeAccess(access: Access): string {
  if (access.kind === 'dmr') return `colour code ${access.colourCode}, time slot ${access.timeSlot}`;
  if (access.kind === 'nac') return `network access code ${formatAccess(access).slice(4)}`;
  const say = (squelch: Squelch) => formatSquelch(squelch) + (squelch.kind === 'tone' ? ' Hz' : '');
  const parts = [
    access.send && `sends ${say(access.send)}`,
    access.expect && `expects ${say(access.expect)}`,
  ];
  return parts.filter(Boolean).join(', ') || 'open';
}

/**
 * Understands access notation: empty or `open`; `88.5` sends; `88.5/88.5` sends and expects; `/88.5` expects only;
 * `D023N`, `D023I`, `D023N/D047I`; `CC3 TS2`; `NAC 293` (hexadecimal). A tone or code off the list is
 * understood all the same; Check names it.
 */
export function parseAccess(text: string): Result<Access> {
  const shown = text.trim();
  const plain = shown.toUpperCase().replace(/\s+/g, ' ');
  if (plain === '' || plain === 'OPEN') return ok(OPEN);
  const dmr = /^CC ?(\d{1,2})(?:[ /,]*TS ?(\d))?$/.exec(plain);
  if (dmr) {
    const colourCode = Number(dmr[1]);
    if (colourCode > 15) return fail(`Colour codes run from 0 to 15, not ${colourCode}.`);
    if (dmr[2] === undefined)
      return fail(`Name the time slot too: CC${colourCode} TS1 or CC${colourCode} TS2.`);
    if (dmr[2] !== '1' && dmr[2] !== '2') return fail(`Time slots are 1 and 2, not ${dmr[2]}.`);
    return ok({ kind: 'dmr', colourCode, timeSlot: dmr[2] === '1' ? 1 : 2 });
  }
  const nac = /^NAC ?(?:0X)?([0-9A-F]+)H?$/.exec(plain);
  if (nac) {
    const value = Number.parseInt(nac[1]!, 16);
    return value > 0xfff ? fail(`NAC ${nac[1]} is over FFF.`) : ok({ kind: 'nac', nac: value });
  }
  const parts = plain.replace(/ ?HZ/g, '').split('/');
  if (parts.length > 2)
    return fail(`“${shown}” has more than one slash. Write send/expect, such as 88.5/88.5.`);
  const send = parseSquelch(parts[0]!.trim());
  if (!send.ok) return send;
  const expect = parts.length === 2 ? parseSquelch(parts[1]!.trim()) : ok(null);
  if (!expect.ok) return expect;
  return ok({ kind: 'analogue', send: send.value, expect: expect.value });
}

function parseSquelch(text: string): Result<Squelch | null> {
  if (text === '') return ok(null);
  const tone = /^(\d{2,3})(?:[.,](\d))?$/.exec(text);
  if (tone) {
    const tenths = Number(tone[1]) * 10 + Number(tone[2] ?? 0);
    if (tenths < 600 || tenths > 2600)
      return fail(`Tones lie between 60 and 260 Hz; ${text} does not. A code is written D023N.`);
    return ok({ kind: 'tone', tone: tenths });
  }
  const code = /^D(\d{3})([NI]?)$/.exec(text);
  if (code) {
    if (/[89]/.test(code[1]!)) return fail(`Codes are octal: D${code[1]} has a figure over 7.`);
    if (code[1] === '000') return fail('Code D000 does not exist.');
    if (code[2] === '') return fail(`Say the polarity: D${code[1]}N (normal) or D${code[1]}I (inverted).`);
    return ok({ kind: 'code', code: Number(code[1]), inverted: code[2] === 'I' });
  }
  return fail(
    `“${text}” is not a tone or code. Write a tone as 88.5, a code as D023N, both ways as 88.5/88.5.`,
  );
}
