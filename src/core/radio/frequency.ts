import { fail, ok, type Result } from '../result';
import {
  airFrequencyOf,
  airNeighbours,
  inNamedAirband,
  isAirName,
  isAirRaster,
  readsAsAirName,
} from './airband';
import { counted, plain, readNumber, splitUnit, unitScale, type Reading } from './written';
import { quoted } from '../text';

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

const MHZ = 6;
const HERTZ_KILO_MEGA = [0, 3, MHZ];

/** True where `range` holds `hz`. */
export function within(hz: Hertz, range: Range): boolean {
  return hz >= range.from && hz <= range.to;
}

/** True where a frequency is one that Veridon can keep and show without loss. */
export function isFrequency(hz: number): boolean {
  return Number.isInteger(hz) && within(hz, FREQUENCY_RANGE) && (hz % RESOLUTION_HZ === 0 || isAirRaster(hz));
}

/** The sentence for what has several meanings: all of them, each as it can be typed. */
export function severalReadings(shown: string, readings: readonly string[]): { ok: false; reason: string } {
  return fail(`${quoted(shown)} could be ${readings.join(' or ')}. Write the one that is meant.`);
}

const inMegahertz = (hz: Hertz) => `${formatFrequency(hz)} MHz`;

/**
 * Understands what a person types for a frequency. Gives Hz.
 *
 * `145.6`, `145,600`, `145.600 MHz`, `145600k`, `433500000`, `145.600.000`, `433 500 kHz`. A bare number under 1,000 is
 * megahertz; where `bands` are given it must lie in one of them. A bare whole number over that is read as kilohertz or
 * hertz where only that makes a frequency of `bands`. In the airband a name of the 8.33 kHz scheme stands for its
 * frequency (ICAO Annex 10, vol. V): `132.005` is 132.000 MHz; figures that name nothing there are refused.
 * What could mean two things is refused with both readings, never guessed. docs/entry.md has a table of cases.
 */
export function parseFrequency(text: string, bands?: readonly Range[]): Result<Hertz> {
  const shown = text.trim();
  const typed = plain(text);
  if (typed === '') return fail('Type a frequency, such as 145.600.');
  const split = splitUnit(typed);
  const scale = split?.unit ? unitScale(split.unit) : undefined;
  if (!split || (split.unit !== '' && scale === undefined))
    return fail(`${quoted(shown)} is not a frequency. Type it in MHz, such as 145.600.`);
  const readings = readNumber(split.number);
  if (readings.length === 0)
    return (split.number.match(/[.,]/g) ?? []).length > 1
      ? fail(`${quoted(shown)} has more than one decimal mark. Type it in MHz, such as 145.600.`)
      : fail(
          `${quoted(shown)} is not a frequency: its figures stand apart. Type it in MHz, such as 145.600.`,
        );
  return scale === undefined ? bare(readings, shown, bands) : withUnit(readings, scale, split.number, shown);
}

function withUnit(readings: readonly Reading[], scale: number, number: string, shown: string): Result<Hertz> {
  const [first] = readings;
  if (scale >= MHZ) {
    // In megahertz three figures behind a mark are decimals by custom; groups are what displays show: MHz, kHz and Hz.
    if (first!.grouped && scale === MHZ && first!.fraction === '') {
      const groups = number.trim().split(/[.,' ]/).length - 1;
      const shownHz = groups > 2 ? undefined : counted(first!, MHZ - 3 * groups)!;
      const wholeHz = counted(first!, MHZ)!;
      const both = [shownHz, wholeHz].filter((hz) => hz !== undefined && isFrequency(hz)) as Hertz[];
      return both.length === 2
        ? severalReadings(shown, both.map(inMegahertz))
        : checked(both[0] ?? wholeHz, shown);
    }
    const hz = counted(first!, scale);
    if (hz === undefined) return finer(shown);
    return scale === MHZ ? named(hz, first!, shown) : checked(hz, shown);
  }
  const all = readings.map((reading) => counted(reading, scale));
  const usable = all.filter((hz): hz is Hertz => hz !== undefined && isFrequency(hz));
  if (usable.length > 1) return severalReadings(shown, usable.toReversed().map(inMegahertz));
  if (usable.length === 1) return ok(usable[0]!);
  const known = all.find((hz) => hz !== undefined);
  return known === undefined ? finer(shown) : checked(known, shown);
}

function bare(readings: readonly Reading[], shown: string, bands?: readonly Range[]): Result<Hertz> {
  const [reading] = readings as [Reading];
  const tuned = (hz: Hertz | undefined): hz is Hertz =>
    hz !== undefined && isFrequency(hz) && (!bands || bands.some((band) => within(hz, band)));
  const whole = reading.fraction === '';
  const size = Number(reading.whole);
  // Nine figures or more are hertz: no radio reaches the other readings.
  if (whole && size >= 100_000_000) return checked(size, shown);
  const megahertz = counted(reading, MHZ);
  if (size < 1000) {
    if (megahertz === undefined) return finer(shown);
    if (!bands || bands.some((band) => within(megahertz, band))) return named(megahertz, reading, shown);
    return fail(`${shown} is in no band of this radio. Write ${shown} MHz to keep it all the same.`);
  }
  // With decimals it is megahertz wherever that can be: that is how frequencies are shown.
  if (!whole && (!bands || tuned(megahertz)))
    return megahertz === undefined ? finer(shown) : named(megahertz, reading, shown);
  const possible = (whole ? HERTZ_KILO_MEGA : [3]).map((scale) => counted(reading, scale)).filter(tuned);
  if (possible.length > 1) return severalReadings(shown, possible.map(inMegahertz));
  if (possible.length === 1) return ok(possible[0]!, `${shown} is read as ${inMegahertz(possible[0]!)}.`);
  if (megahertz === undefined) return finer(shown);
  if (bands) return fail(`${shown} is in no band of this radio. Write ${shown} MHz to keep it all the same.`);
  return checked(megahertz, shown);
}

function finer(shown: string): Result<Hertz> {
  return fail(`${quoted(shown)} is finer than 10 Hz, the finest that Veridon keeps.`);
}

/** In the airband three decimals or fewer are a channel's name; those that name nothing are refused with their neighbours. */
function named(hz: Hertz, { fraction }: Reading, shown: string): Result<Hertz> {
  if (fraction.length > 3 || !inNamedAirband(hz)) return checked(hz, shown);
  if (!isAirName(hz)) {
    const [below, above] = airNeighbours(hz).map((name) => formatName(name));
    return fail(
      `${shown} names no channel of the airband: the names beside it are ${below} and ${above}. A frequency is written with five decimals.`,
    );
  }
  if (!readsAsAirName(hz)) return checked(hz, shown);
  const frequency = airFrequencyOf(hz);
  return ok(
    frequency,
    `${shown} is a channel name at 8.33 kHz spacing; it stands for ${formatFrequency(frequency)} MHz.`,
  );
}

const formatName = (hz: Hertz) =>
  `${Math.floor(hz / 1_000_000)}.${String((hz % 1_000_000) / 1000).padStart(3, '0')}`;

function checked(hz: Hertz, shown: string): Result<Hertz> {
  if (!within(hz, FREQUENCY_RANGE)) return fail(`${shown} is outside 8.3 kHz to 275 GHz.`);
  if (!isFrequency(hz)) return finer(shown);
  return ok(hz);
}

/** A distance of frequencies in kHz with its unit: `12.5 kHz`. */
export const formatKilohertz = (hz: Hertz): string => `${String(hz / 1000)} kHz`;

/**
 * A frequency in MHz with three to five decimals, without the unit; six for the frequencies of 8.33 kHz channels. In the
 * airband three decimals are a channel's name, so that what is no name of its own has five.
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
  const mistakable =
    trimmed.length === 3 && inNamedAirband(size) && (readsAsAirName(size) || !isAirName(size));
  return `${sign}${whole}.${mistakable ? six.slice(0, 5) : trimmed}`;
}
