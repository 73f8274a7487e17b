import { fail, ok, type Result } from '../result';
import type { Point } from './geo';
import { quoted } from '../text';

/** What each pair of characters counts in, and from which letter or figure; field, square, subsquare, extended square. */
const PAIRS = [
  { base: 18, from: 'A' },
  { base: 10, from: '0' },
  { base: 24, from: 'A' },
  { base: 10, from: '0' },
] as const;
/** Steps in 10° of latitude down to each length; longitude has as many in 20°. */
const STEPS = [1, 10, 240, 2400] as const;

/**
 * The Maidenhead locator of a point, of 2, 4, 6 or 8 characters (IARU, Maidenhead 1980). The poles and the date line
 * belong to the last field.
 *
 * @example locator({ lat: 52.06, lon: -29.84 }, 8) // 'HO52bb94'
 */
export function locator({ lat, lon }: Point, characters: 2 | 4 | 6 | 8 = 6): string {
  const pairs = characters / 2;
  const steps = STEPS[pairs - 1]!;
  // A hair is added, since 2.06 - 2 is less than 0.06 in binary fractions.
  const count = (share: number) => Math.min(18 * steps - 1, Math.floor(share * steps + 1e-9));
  let x = count((lon + 180) / 20);
  let y = count((lat + 90) / 10);
  let text = '';
  for (const [index, { base, from }] of [...PAIRS.slice(0, pairs).entries()].reverse()) {
    const sign = (n: number) => String.fromCharCode(from.charCodeAt(0) + (n % base));
    const pair = sign(x) + sign(y);
    text = (index === 2 ? pair.toLowerCase() : pair) + text;
    x = Math.floor(x / base);
    y = Math.floor(y / base);
  }
  return text;
}

/** The middle of the square that a locator of 2, 4, 6 or 8 characters names, in capitals or not. Fails with what is wrong. */
export function parseLocator(text: string): Result<Point> {
  const signs = text.trim().toUpperCase();
  if (!/^[A-R]{2}(\d{2}([A-X]{2}(\d{2})?)?)?$/.test(signs))
    return fail(`${quoted(text)} is not a locator. Write one as HO52 or HO52bb.`);
  let x = 0;
  let y = 0;
  for (let i = 0; i < signs.length; i += 2) {
    const { base, from } = PAIRS[i / 2]!;
    x = x * base + signs.charCodeAt(i) - from.charCodeAt(0);
    y = y * base + signs.charCodeAt(i + 1) - from.charCodeAt(0);
  }
  const steps = STEPS[signs.length / 2 - 1]!;
  return ok({ lat: ((y + 0.5) / steps) * 10 - 90, lon: ((x + 0.5) / steps) * 20 - 180 });
}
