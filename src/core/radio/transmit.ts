import { fail, ok, type Result } from '../result';
import {
  formatFrequency,
  isFrequency,
  parseFrequency,
  severalReadings,
  within,
  type Hertz,
  type Range,
} from './frequency';
import type { Region } from './region';
import { formatShift, isUsualShift, usualShift } from './shift';
import { counted, plain, readNumber, splitUnit, unitScale, type Reading } from './written';
import { quoted } from '../text';

/** The transmit side as kept: an absolute frequency or null for listen only, and whether it was entered as one. */
export interface Transmit {
  tx: Hertz | null;
  /** True where transmit was given as a frequency of its own, so that it does not follow receive. */
  txFixed: boolean;
}

/** What entry is read against. */
export interface TransmitContext {
  rx: Hertz;
  region: Region;
  bands?: readonly Range[];
}

const SAME = ['', '=', 'same', 'same as receive', 'simplex', 's', '0', '+0', '-0', 'no shift'];
const LISTEN = [
  'x',
  'listen',
  'listen only',
  'listening only',
  'rx only',
  'rx-only',
  'receive only',
  'no tx',
  'no transmit',
  'monitor',
];
/** Words that say that something is off: taken for the transmitter, which is the safe one of their meanings. */
const OFF = ['off', 'none', 'no', 'tx off'];

/**
 * Understands the transmit side as typed: empty, `=`, `0` or `simplex` same as receive; `+` or `-` the usual shift here;
 * `+7.6`, `-600k`, `0.6-` a shift; `438.4875` absolute; `x` or `RX only` listen only. Every dash is a minus. `+` and `-`
 * alone fail where there is no usual shift to take the size from; against the usual direction they are taken, with a note.
 * A shift of 100 or more without a unit is kilohertz (`-600`), unless a band of the radio holds it as a frequency: then it is
 * refused with both readings. docs/entry.md has a table of cases.
 */
export const parseTransmit = (text: string, context: TransmitContext): Result<Transmit> =>
  transmitOf(text, context)(context.rx);

/** What a text of a transmit side comes to for each receive frequency, as `parseTransmit` reads it: in a long file there are few texts and many frequencies. */
export function transmitOf(
  text: string,
  { region, bands }: Omit<TransmitContext, 'rx'>,
): (rx: Hertz) => Result<Transmit> {
  const shown = text.trim();
  const typed = plain(text).toLowerCase();
  if (SAME.includes(typed)) return (rx) => ok({ tx: rx, txFixed: false });
  if (LISTEN.includes(typed)) return () => ok({ tx: null, txFixed: false });
  if (OFF.includes(typed))
    return () =>
      ok(
        { tx: null, txFixed: false },
        `${quoted(shown)} is read as listen only. Write = to send where it receives.`,
      );
  if (/^-+$/.test(typed)) return (rx) => usual('-', rx, region);
  if (typed === '+') return (rx) => usual('+', rx, region);
  const signed = /^([+-])\s*([^+-]+)$/.exec(typed) ?? /^([^+-]+?)\s*([+-])$/.exec(typed);
  if (signed) {
    const [sign, size] = /[+-]/.test(signed[1]!) ? [signed[1]!, signed[2]!] : [signed[2]!, signed[1]!];
    return shifted(sign as '+' | '-', size, shown, bands);
  }
  const absolute = parseFrequency(text, bands);
  if (absolute.ok) return (rx) => ok({ tx: absolute.value, txFixed: absolute.value !== rx }, absolute.note);
  const refused = /\d/.test(typed)
    ? absolute
    : fail(
        `${quoted(shown)} is not a transmit side. Type a frequency, a shift such as -0.6, = for same, or x for listen only.`,
      );
  return () => refused;
}

function shifted(
  sign: '+' | '-',
  text: string,
  shown: string,
  bands: readonly Range[] | undefined,
): (rx: Hertz) => Result<Transmit> {
  const size = parseShift(text, bands);
  if (!size.ok) return () => size;
  const shift = sign === '-' ? -size.value : size.value;
  return (rx) =>
    isFrequency(rx + shift)
      ? ok({ tx: rx + shift, txFixed: false }, size.note)
      : fail(`A shift of ${shown} leads to no usable frequency.`);
}

function usual(sign: '+' | '-', rx: Hertz, region: Region): Result<Transmit> {
  const found = usualShift(rx, region);
  if (!found)
    return fail(`There is no usual shift at ${formatFrequency(rx)}. Type its size, such as ${sign}0.6.`);
  const size = Math.abs(found.shift);
  const tx = rx + (sign === '+' ? size : -size);
  const other = Math.sign(found.shift) !== (sign === '+' ? 1 : -1);
  return ok(
    { tx, txFixed: false },
    other ? `The usual shift here is ${formatShift(found.shift)}, the other way.` : undefined,
  );
}

/** No shift in use is as large, MHz: larger figures without a unit are smaller units. */
const LARGEST_SHIFT_MHZ = 100;

/** A shift's size in Hz: bare numbers are MHz under 100, kHz under 100,000, Hz from there. */
function parseShift(text: string, bands?: readonly Range[]): Result<number> {
  const refused = fail(`${quoted(text)} is not a shift. Type MHz, such as -0.6, or kHz, such as -600k.`);
  const split = splitUnit(text);
  const readings = split ? readNumber(split.number) : [];
  if (!split || readings.length === 0) return refused;
  if (split.unit !== '') {
    const scale = unitScale(split.unit);
    if (scale === undefined) return refused;
    // Three figures behind a mark are decimals of MHz by custom; of kHz they may part thousands as well.
    const sizes = (scale >= 6 ? readings.slice(0, 1) : readings).map((reading) => counted(reading, scale));
    const whole = sizes.filter((size): size is number => size !== undefined);
    if (whole.length > 1)
      return severalReadings(
        text,
        whole.map((size) => `${formatFrequency(size)} MHz`),
      );
    return whole.length === 1 ? ok(whole[0]!) : refused;
  }
  const [reading] = readings as [Reading];
  const figure = Number(reading.whole);
  const scale = figure < LARGEST_SHIFT_MHZ ? 6 : figure < 100_000 ? 3 : 0;
  const size = counted(reading, scale);
  if (size === undefined) return refused;
  if (scale === 6) return ok(size);
  const frequency = counted(reading, 6);
  if (frequency !== undefined && bands?.some((band) => within(frequency, band)))
    return fail(
      `${quoted(text)} could be a shift of ${formatFrequency(size)} MHz or the frequency ${formatFrequency(frequency)} MHz. Write ${text}k for the shift; the frequency has no sign.`,
    );
  return ok(size, `Read as a shift of ${formatFrequency(size)} MHz.`);
}

/**
 * The transmit side in entry notation, which `parseTransmit` reads back to the same value: `x`, `=`, a shift, or,
 * where it was entered as a frequency of its own, that frequency.
 */
export function formatTransmit({ tx, txFixed }: Transmit, rx: Hertz): string {
  if (tx === null) return 'x';
  if (tx === rx) return '=';
  if (txFixed) return formatFrequency(tx);
  const shift = formatShift(tx - rx);
  // Without its unit a shift as large would be read as kilohertz.
  return Math.abs(tx - rx) < LARGEST_SHIFT_MHZ * 1_000_000 ? shift : `${shift} MHz`;
}

/**
 * The transmit side after receive changes from `from` to `to`. A shift is carried along; so is a fixed transmit that
 * happens to be the usual shift; a split made by absolute entry stays where it is, and listen only stays so.
 */
export function carryTransmit(transmit: Transmit, from: Hertz, to: Hertz, region: Region): Transmit {
  const { tx, txFixed } = transmit;
  if (tx === null) return transmit;
  if (txFixed && !isUsualShift(from, tx, region)) return transmit;
  return { tx: to + (tx - from), txFixed: false };
}
