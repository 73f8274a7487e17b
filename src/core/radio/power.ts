import { fail, ok, type Result } from '../result';
import { severalReadings } from './frequency';
import { counted, plain, readNumber, splitUnit } from './written';
import { quoted } from '../text';

/** A power in whole milliwatts. */
export type Milliwatts = number;

/** Highest power that Veridon keeps: 2 kW. */
export const HIGHEST_POWER = 2_000_000;

/** A power for people: `4 W`, `0.5 W`, `50 mW`; `parsePower` reads it back, so that watts never have three decimals. */
export function formatPower(power: Milliwatts): string {
  return power < 100 || power % 10 !== 0 ? `${power} mW` : `${String(power / 1000)} W`;
}

/**
 * Understands `4`, `4 W`, `0,5w`, `500 mW`, `1 kW`; a bare number is watts. Gives milliwatts, 1 to 2,000,000. `1,500 W` may
 * be 1.5 W or 1500 W and is refused with both.
 */
export function parsePower(text: string): Result<Milliwatts> {
  const shown = text.trim();
  const split = splitUnit(plain(text).toLowerCase());
  const scale = split && SCALES[split.unit];
  if (!split || scale === undefined)
    return fail(`${quoted(shown)} is not a power. Write watts, such as 4 W or 500 mW.`);
  const possible = readNumber(split.number)
    .map((reading) => counted(reading, scale))
    .filter((value): value is number => value !== undefined && value >= 1 && value <= HIGHEST_POWER);
  if (possible.length > 1) return severalReadings(shown, possible.map(formatPower));
  return possible.length === 1
    ? ok(possible[0]!)
    : fail(`${quoted(shown)} is not a power between 1 mW and 2 kW.`);
}

/** Units of power with the power of ten of milliwatts. */
const SCALES: Record<string, number> = {
  '': 3,
  w: 3,
  watt: 3,
  watts: 3,
  mw: 0,
  milliwatt: 0,
  milliwatts: 0,
  kw: 6,
};
