import { fail, ok, type Result } from '../result';
import { parseDecimal } from './frequency';

/** A power in whole milliwatts. */
export type Milliwatts = number;

/** Highest power that Veridon keeps: 2 kW. */
export const HIGHEST_POWER = 2_000_000;

/** A power for people: `4 W`, `0.5 W`, `50 mW`; `parsePower` reads it back. */
export function formatPower(power: Milliwatts): string {
  return power < 100 ? `${power} mW` : `${String(power / 1000)} W`;
}

/** Understands `4`, `4 W`, `0,5w`, `500 mW`, `1 kW`; a bare number is watts. Gives milliwatts, 1 to 2,000,000. */
export function parsePower(text: string): Result<Milliwatts> {
  const match = /^([\d.,]+)(mw|kw|w)?$/.exec(text.trim().toLowerCase().replace(/\s/g, ''));
  if (!match) return fail(`“${text.trim()}” is not a power. Write watts, such as 4 W or 500 mW.`);
  const scale = match[2] === 'mw' ? 0 : match[2] === 'kw' ? 6 : 3;
  const value = parseDecimal(match[1]!, scale);
  if (!value.ok || value.value < 1 || value.value > HIGHEST_POWER)
    return fail(`“${text.trim()}” is not a power between 1 mW and 2 kW.`);
  return ok(value.value);
}
