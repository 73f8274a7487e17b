import { fail, ok, type Result } from '../result';
import { airFrequencyOf, inAirband, isAirRaster, readsAsAirName } from './airband';

/** A frequency in whole hertz. Never a float: 145.6 MHz is 145_600_000. */
export type Hertz = number;

/** A range of frequencies in Hz, both ends included. */
export interface Range {
  from: Hertz;
  to: Hertz;
}

/** Lowest and highest frequency that Veridon keeps, Hz (the span of the ITU table of allocations). */
export const FREQUENCY_RANGE: Range = { from: 8_300, to: 275_000_000_000 };

/** Frequencies are kept to 10 Hz, which five decimals of a megahertz show in full; 8.33 kHz channels are exact to 1 Hz. */
export const RESOLUTION_HZ = 10;

const UNITS: Record<string, number> = { hz: 0, k: 3, khz: 3, m: 6, mhz: 6, g: 9, ghz: 9 };

/** True where `range` holds `hz`. */
export function within(hz: Hertz, range: Range): boolean {
  return hz >= range.from && hz <= range.to;
}

/** True where a frequency is one that Veridon can keep and show without loss. */
export function isFrequency(hz: number): boolean {
  return Number.isInteger(hz) && within(hz, FREQUENCY_RANGE) && (hz % RESOLUTION_HZ === 0 || isAirRaster(hz));
}

/**
 * Reads a decimal number with one `.` or `,` as a count of 10^-scale units, exactly.
 * Fails where digits finer than the unit are not zero.
 */
export function parseDecimal(text: string, scale: number): Result<number> {
  const match = /^(\d*)(?:[.,](\d*))?$/.exec(text);
  if (!match || (match[1] === '' && (match[2] ?? '') === '')) return fail(`“${text}” is not a number.`);
  const fraction = match[2] ?? '';
  const kept = fraction.slice(0, scale).padEnd(scale, '0');
  if (/[1-9]/.test(fraction.slice(scale))) return fail(`“${text}” is finer than this can hold.`);
  return ok(Number((match[1] ?? '') + kept));
}

/**
 * Understands what a person types for a frequency. Gives Hz.
 *
 * `145.6`, `145,600`, `145.600 MHz`, `145600k`, `433500000`, `145.600.000`. A bare number that lies in one of
 * `bands` as megahertz is megahertz; without `bands` any bare number under 1,000 is. In the airband a name of the
 * 8.33 kHz scheme stands for its frequency (ICAO Annex 10, vol. V): `132.005` is 132.000 MHz.
 * What could mean two things is refused with a reason, never guessed.
 */
export function parseFrequency(text: string, bands?: readonly Range[]): Result<Hertz> {
  const shown = text.trim();
  if (shown === '') return fail('Type a frequency, such as 145.600.');
  const match = /^([\d.,]+)(ghz|mhz|khz|hz|g|m|k)?$/.exec(
    shown.toLowerCase().replace(/[\s\u00a0\u202f]/g, ''),
  );
  if (!match) return fail(`“${shown}” is not a frequency. Type it in MHz, such as 145.600.`);
  const number = match[1]!;
  const unit = match[2];
  if (/^\d{1,3}(\.\d{3}){2,}$|^\d{1,3}(,\d{3}){2,}$/.test(number) && (unit === undefined || unit === 'hz')) {
    return checked(Number(number.replace(/[.,]/g, '')), shown);
  }
  if ((number.match(/[.,]/g) ?? []).length > 1)
    return fail(`“${shown}” has more than one decimal mark. Type it in MHz, such as 145.600.`);
  if (unit !== undefined) {
    const parsed = parseDecimal(number, UNITS[unit]!);
    if (!parsed.ok) return finer(shown);
    return UNITS[unit] === 6 ? named(parsed.value, number, shown) : checked(parsed.value, shown);
  }
  const whole = !/[.,]/.test(number);
  if (whole && Number(number) >= 1_000_000) return checked(Number(number), shown);
  const megahertz = parseDecimal(number, 6);
  if (!megahertz.ok) return /\d/.test(number) ? finer(shown) : fail(`“${shown}” is not a frequency.`);
  if (bands) {
    if (bands.some((band) => within(megahertz.value, band))) return named(megahertz.value, number, shown);
    if (megahertz.value >= 1_000_000_000 && whole)
      return fail(`“${shown}” could be kHz or MHz. Write ${shown}k or ${shown} MHz.`);
    return fail(`${shown} is in no band of this radio. Write ${shown} MHz to keep it all the same.`);
  }
  if (megahertz.value >= 1_000_000_000 && whole)
    return fail(`“${shown}” could be kHz or MHz. Write ${shown}k or ${shown} MHz.`);
  return named(megahertz.value, number, shown);
}

function finer(shown: string): Result<Hertz> {
  return fail(`“${shown}” is finer than 10 Hz, the finest that Veridon keeps.`);
}

/** In the airband exactly three decimals are a channel name where the scheme has that name. */
function named(hz: Hertz, number: string, shown: string): Result<Hertz> {
  const decimals = /[.,](\d+)$/.exec(number)?.[1]?.length ?? 0;
  if (decimals === 3 && inAirband(hz) && readsAsAirName(hz)) {
    const named = airFrequencyOf(hz);
    return ok(
      named,
      `${shown} is a channel name at 8.33 kHz spacing; it stands for ${formatFrequency(named)} MHz.`,
    );
  }
  return checked(hz, shown);
}

function checked(hz: Hertz, shown: string): Result<Hertz> {
  if (!within(hz, FREQUENCY_RANGE)) return fail(`${shown} is outside 8.3 kHz to 275 GHz.`);
  if (!isFrequency(hz)) return finer(shown);
  return ok(hz);
}

/**
 * A frequency in MHz with three to five decimals, without the unit; six for the frequencies of 8.33 kHz channels.
 * What it gives, `parseFrequency` reads back to the same Hz.
 *
 * @example formatFrequency(145_612_500) // '145.6125'
 */
export function formatFrequency(hz: Hertz): string {
  const sign = hz < 0 ? '-' : '';
  const size = Math.abs(hz);
  const whole = Math.floor(size / 1_000_000);
  const six = String(size % 1_000_000).padStart(6, '0');
  if (isAirRaster(size) || size % RESOLUTION_HZ !== 0) return `${sign}${whole}.${six}`;
  const trimmed = six.slice(0, 5).replace(/0{1,2}$/, '');
  const mistakable = trimmed.length === 3 && inAirband(size) && readsAsAirName(size);
  return `${sign}${whole}.${mistakable ? six.slice(0, 5) : trimmed}`;
}
