import { fail, ok, type Result } from '../result';
import { severalReadings } from './frequency';
import type { Point } from './geo';
import { parseLocator } from './locator';
import { plain } from './written';
import { quoted } from '../text';

const NUMBER = String.raw`\d{1,3}(?:[.,]\d+)?`;
/** Degrees, with minutes and seconds where they are marked. */
const ANGLE = String.raw`([+-]?${NUMBER}) ?(?:° ?(?:(${NUMBER}) ?['\u2032] ?(?:(${NUMBER}) ?(?:"|''|\u2032\u2032|\u2033) ?)?)?)?`;
const [BEFORE, AFTER] = [`([NSEW]) ?${ANGLE}`, `${ANGLE}([NSEW])`];
const LETTERED = [BEFORE, AFTER].map((half) => new RegExp(`^${half}[ ,;/]*${half}$`));
const DOTTED = /^([+-]?\d{1,3}(?:\.\d+)?)°?(?: ?[,;] ?| )([+-]?\d{1,3}(?:\.\d+)?)°?$/;
const COMMAED = /^([+-]?\d{1,3}(?:,\d+)?)°?(?: ?; ?|, | )([+-]?\d{1,3}(?:,\d+)?)°?$/;

/**
 * Reads a place: degrees as `52.06, -29.84`, `52.06N, 29.84W`, `52°03'36"N 29°50'24"W` or with decimal commas
 * `52,06; -29,84`; or a locator of four characters or more (`HO52bb`). North and east are positive. `52,06` alone may be
 * half of a place or two whole degrees and is refused with both.
 */
export function parsePoint(text: string): Result<Point> {
  const shown = text.trim();
  const typed = plain(text).toUpperCase();
  if (typed.length >= 4) {
    const square = parseLocator(typed);
    if (square.ok) return square;
  }
  const lettered = byLetters(typed);
  if (lettered) return checked(lettered.lat, lettered.lon, shown);
  const lone = /^([+-]?\d{1,3}),(\d+)$/.exec(typed);
  if (lone)
    return severalReadings(shown, [
      `${lone[1]}.${lone[2]} degrees, of which the other half is missing,`,
      `${lone[1]}, ${Number(lone[2])}`,
    ]);
  const two = DOTTED.exec(typed) ?? COMMAED.exec(typed);
  return checked(degrees(two?.[1]), degrees(two?.[2]), shown);
}

const degrees = (text: string | undefined) =>
  text === undefined ? Number.NaN : Number(text.replace(',', '.'));

function byLetters(typed: string): Point | undefined {
  const parts = LETTERED.map((form) => form.exec(typed))
    .find(Boolean)
    ?.slice(1);
  if (!parts) return undefined;
  const halves = [parts.slice(0, 4), parts.slice(4)].map((half) => {
    const letter = half.find((part) => part !== undefined && /^[NSEW]$/.test(part))!;
    const [whole, minutes = '0', seconds = '0'] = half.filter((part) => part !== letter);
    const size = degrees(whole) + degrees(minutes) / 60 + degrees(seconds) / 3600;
    const sound = !/^[+-]/.test(whole!) && degrees(minutes) < 60 && degrees(seconds) < 60;
    return {
      north: 'NS'.includes(letter),
      value: !sound ? Number.NaN : 'SW'.includes(letter) ? -size : size,
    };
  });
  const [a, b] = halves as [{ north: boolean; value: number }, { north: boolean; value: number }];
  if (a.north === b.north) return undefined;
  return a.north ? { lat: a.value, lon: b.value } : { lat: b.value, lon: a.value };
}

function checked(lat: number, lon: number, shown: string): Result<Point> {
  return Math.abs(lat) <= 90 && Math.abs(lon) <= 180
    ? ok({ lat, lon })
    : fail(
        `${quoted(shown)} is not a place. Name a town, or type degrees such as 52.06, -29.84 or a locator such as HO52bb.`,
      );
}
