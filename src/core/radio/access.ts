import { fail, ok, type Result } from '../result';
import { codeFigures, codeOnAir } from './code';
import { severalReadings } from './frequency';
import { formatTone, TONES } from './tone';
import { plain } from './written';
import type { Squelch, Access } from './access.schema';
import { quoted } from '../text';

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

/** Access as it is on air, for comparison: codes that are one under several names come out alike. */
export function accessOnAir(access: Access): string {
  if (access.kind !== 'analogue') return formatAccess(access);
  const side = (squelch: Squelch | null) =>
    squelch?.kind === 'code'
      ? `code ${codeOnAir(squelch.code, squelch.inverted)}`
      : squelch
        ? formatTone(squelch.tone)
        : '';
  return `${side(access.send)}/${side(access.expect)}`;
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

const NOTHING = ['', 'OPEN', 'NONE', 'OFF', 'NO', '0', '-', '--', '---', 'CSQ', 'CARRIER'];

/**
 * Understands access notation: empty, `open`, `none` or `off`; `88.5` or `CTCSS 88.5` sends; `88.5/88.5` sends and expects;
 * `/88.5` expects only; `D023N`, `023N`, `DCS 023 I`, `D023R` (inverted), `D023N/D047I`; `CC3 TS2` in any order; `NAC 293`
 * (hexadecimal). A tone or code off the list is understood all the same; Check names it. Three figures that are a code and
 * no tone, and a code without its polarity, are refused with their readings. docs/entry.md has a table of cases.
 */
export function parseAccess(text: string): Result<Access> {
  const shown = text.trim();
  const typed = plain(text).toUpperCase();
  if (NOTHING.includes(typed)) return ok(OPEN);
  const digital = parseDmr(typed) ?? parseNac(typed);
  if (digital) return digital;
  const parts = typed.split('/');
  if (parts.length > 2)
    return fail(`${quoted(shown)} has more than one slash. Write send/expect, such as 88.5/88.5.`);
  const send = parseSquelch(parts[0]!.trim());
  if (!send.ok) return send;
  const expect = parts.length === 2 ? parseSquelch(parts[1]!.trim()) : ok(null);
  if (!expect.ok) return expect;
  return ok({ kind: 'analogue', send: send.value, expect: expect.value });
}

const COLOUR_CODE = /(?:^|[ /,;])(?:CC|COLOU?R CODE)[ :=]*(\d{1,3})(?!\d)/;

const TIME_SLOT = /(?:^|[ /,;\d])(?:TS|SLOT|TIME SLOT)[ :=]*(\d{1,3})(?!\d)/;

/** Colour code and time slot in either order; undefined where the text speaks of neither or of more. */
function parseDmr(typed: string): Result<Access> | undefined {
  const [colour] = COLOUR_CODE.exec(typed) ?? [];
  const [slot] = TIME_SLOT.exec(typed) ?? [];
  if (colour === undefined && slot === undefined) return undefined;
  // The slot's match may begin with the last figure of the colour code, as in CC3TS2: only what is named counts.
  const named = [colour, slot].map((part) => part?.replace(/^[ /,;\d]/, ''));
  const rest = named.reduce<string>(
    (left, part) => (part === undefined ? left : left.replace(part, '')),
    typed,
  );
  if (/[^ /,;]/.test(rest)) return undefined;
  const figure = (part: string | undefined) =>
    part === undefined ? undefined : Number(/\d+$/.exec(part)![0]);
  const [colourCode, timeSlot] = [figure(colour), figure(slot)];
  if (colourCode !== undefined && colourCode > 15)
    return fail(`Colour codes run from 0 to 15, not ${colourCode}.`);
  if (timeSlot !== undefined && timeSlot !== 1 && timeSlot !== 2)
    return fail(`Time slots are 1 and 2, not ${timeSlot}.`);
  if (colourCode === undefined)
    return fail(`Name the colour code too: CC1 TS${timeSlot} or another of 0 to 15.`);
  if (timeSlot === undefined)
    return fail(`Name the time slot too: CC${colourCode} TS1 or CC${colourCode} TS2.`);
  return ok({ kind: 'dmr', colourCode, timeSlot });
}

function parseNac(typed: string): Result<Access> | undefined {
  const nac = /^NAC[ :=]*(?:0X|\$|#)?([0-9A-F]+)H?$/.exec(typed);
  if (!nac) return undefined;
  const value = Number.parseInt(nac[1]!, 16);
  return value > 0xfff ? fail(`NAC ${nac[1]} is over FFF.`) : ok({ kind: 'nac', nac: value });
}

const TONE_WORDS = /^(?:CTCSS|TONE|T)[ :=]*(?=[\d.,])/;

function parseSquelch(text: string): Result<Squelch | null> {
  if (NOTHING.includes(text)) return ok(null);
  const word = TONE_WORDS.exec(text)?.[0] ?? '';
  const figures = text.slice(word.length).replace(/ ?HZ\.?$/, '');
  const surelyTone = word !== '' || /HZ\.?$/.test(text) || /[.,]/.test(figures);
  const tone = /^(\d{2,3})(?:[.,](\d?)0*)?$/.exec(figures);
  if (tone) {
    const tenths = Number(tone[1]) * 10 + Number(tone[2] || 0);
    return surelyTone ? theTone(tenths, figures) : bareFigures(figures, tenths);
  }
  const code = /^(?:CDCSS|DCS|D)?[ :=-]*(\d{3})[ -]*([NIR]?|NORMAL|INV(?:ERTED|ERSE)?|REVERSED?)$/.exec(text);
  if (code) {
    if (/[89]/.test(code[1]!)) return fail(`Codes are octal: D${code[1]} has a figure over 7.`);
    if (code[1] === '000') return fail('Code D000 does not exist.');
    if (code[2] === '') return fail(`Say the polarity: D${code[1]}N (normal) or D${code[1]}I (inverted).`);
    return ok({ kind: 'code', code: Number(code[1]), inverted: code[2]![0] !== 'N' });
  }
  return fail(
    `${quoted(text)} is not a tone or code. Write a tone as 88.5, a code as D023N, both ways as 88.5/88.5.`,
  );
}

function theTone(tenths: number, shown: string): Result<Squelch> {
  if (tenths < 600 || tenths > 2600)
    return fail(`Tones lie between 60 and 260 Hz; ${shown} does not. A code is written D023N.`);
  return ok({ kind: 'tone', tone: tenths });
}

/** Two or three figures alone: a tone of the list, or else perhaps a code, whose figures are octal. */
function bareFigures(figures: string, tenths: number): Result<Squelch> {
  const octal = /^[0-7]{3}$/.test(figures) && figures !== '000';
  if (!octal || (TONES.includes(tenths) && !figures.startsWith('0'))) return theTone(tenths, figures);
  const readings = [`D${figures}N`, `D${figures}I`];
  if (tenths >= 600 && tenths <= 2600) readings.unshift(`${formatTone(tenths)} Hz`);
  return severalReadings(figures, readings);
}
