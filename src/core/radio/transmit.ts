import { fail, ok, type Result } from '../result';
import {
  formatFrequency,
  isFrequency,
  parseDecimal,
  parseFrequency,
  type Hertz,
  type Range,
} from './frequency';
import type { Region } from './region';
import { formatShift, isUsualShift, usualShift } from './shift';

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

/**
 * Understands the transmit side as typed: empty or `=` same as receive; `+` or `-` the usual shift here; `+7.6`,
 * `-600k` a shift; `438.4875` absolute; `x` listen only. `+` and `-` alone must agree with the usual direction where
 * there is one, and fail where there is no usual shift to take the size from.
 */
export function parseTransmit(text: string, context: TransmitContext): Result<Transmit> {
  const shown = text.trim();
  const plain = shown.toLowerCase().replace(/[\u2212\u2013]/g, '-');
  if (plain === '' || plain === '=' || plain === 'same') return ok({ tx: context.rx, txFixed: false });
  if (plain === 'x' || plain === 'listen only') return ok({ tx: null, txFixed: false });
  if (plain === '+' || plain === '-') return usual(plain, context);
  if (/^[+-]/.test(plain)) {
    const size = parseShift(plain.slice(1).trim());
    if (!size.ok) return size;
    const tx = context.rx + (plain.startsWith('-') ? -size.value : size.value);
    if (!isFrequency(tx)) return fail(`A shift of ${shown} leads to no usable frequency.`);
    return ok({ tx, txFixed: false });
  }
  const absolute = parseFrequency(shown, context.bands);
  if (!absolute.ok) {
    if (/\d/.test(shown)) return absolute;
    return fail(
      `“${shown}” is not a transmit side. Type a frequency, a shift such as -0.6, = for same, or x for listen only.`,
    );
  }
  return ok({ tx: absolute.value, txFixed: absolute.value !== context.rx }, absolute.note);
}

function usual(sign: '+' | '-', { rx, region }: TransmitContext): Result<Transmit> {
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

/** A shift's size: bare numbers are MHz. */
function parseShift(text: string): Result<number> {
  const match = /^([\d.,]+)\s*(mhz|khz|m|k|hz)?$/.exec(text);
  if (!match) return fail(`“${text}” is not a shift. Type MHz, such as -0.6, or kHz, such as -600k.`);
  const scale = match[2]?.startsWith('k') ? 3 : match[2] === 'hz' ? 0 : 6;
  const size = parseDecimal(match[1]!, scale);
  if (!size.ok) return fail(`“${text}” is not a shift. Type MHz, such as -0.6, or kHz, such as -600k.`);
  return size;
}

/**
 * The transmit side in entry notation, which `parseTransmit` reads back to the same value: `x`, `=`, a shift, or,
 * where it was entered as a frequency of its own, that frequency.
 */
export function formatTransmit({ tx, txFixed }: Transmit, rx: Hertz): string {
  if (tx === null) return 'x';
  if (tx === rx) return '=';
  return txFixed ? formatFrequency(tx) : formatShift(tx - rx);
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
