/**
 * What people write, before it is understood: scripts, marks and figures brought to one form. Everything that reads a cell,
 * a row of a file or a directory's text goes through here first, so that one way of writing is known everywhere or nowhere.
 */

let figures: Map<string, string> | undefined;

/** The decimal figures of every script that the platform's Unicode data (CLDR, by Intl) knows, each with its value. */
function figureOf(character: string): string | undefined {
  if (!figures) {
    figures = new Map();
    for (const numberingSystem of Intl.supportedValuesOf('numberingSystem')) {
      const spelt = new Intl.NumberFormat('en', { numberingSystem, useGrouping: false });
      for (let value = 0; value <= 9; value++) {
        const figure = spelt.format(value);
        if (/^\p{Nd}$/u.test(figure)) figures.set(figure, String(value));
      }
    }
  }
  return figures.get(character);
}

/** Letters, figures and marks of ASCII that are in that form already, single spaces between them; no quotes, which may stand around. */
const PLAIN_ALREADY = /^[\w+\-.,/:%()#&;=@!?*]+(?: [\w+\-.,/:%()#&;=@!?*]+)*$/;

/**
 * A text in one form: figures of all scripts as 0 to 9, full-width and compatibility characters as their plain ones (Unicode
 * NFKC), every dash as `-`, every mark that stands for a decimal point in the middle of the line as `.`, apostrophes as
 * `'`, white space as single spaces; what cannot be seen (Unicode Cf: joiners, marks of direction) and quotes around the whole are gone.
 *
 * @example plain('“１４５·６ ㎒”') // '145.6 MHz'
 */
export function plain(text: string): string {
  if (PLAIN_ALREADY.test(text)) return text;
  const one = text
    .replace(/[\u00b4`\u2018\u2019\u02bc\u066c]/g, "'")
    .replace(/[\u00b7\u2027\u2219\u22c5\u30fb\uff65\u3002\uff61\u066b]/g, '.')
    .replace(/\u201a/g, ',')
    .normalize('NFKC')
    .replace(/\p{Cf}/gu, '')
    .replace(/(?![0-9])\p{Nd}/gu, (figure) => figureOf(figure) ?? figure)
    .replace(/[\p{Pd}\u2212]/gu, '-')
    .replace(/\s+/g, ' ')
    .trim();
  const inside = /^(?:"(.*)"|'(.*)'|“(.*)”|„(.*)[“”]|«(.*)»|»(.*)«)$/.exec(one);
  return inside
    ? inside
        .slice(1)
        .find((part) => part !== undefined)!
        .trim()
    : one;
}

/** One way to read a number: its figures before and after the decimal mark. */
export interface Reading {
  whole: string;
  fraction: string;
  /** True where marks were taken for groups of three figures. */
  grouped: boolean;
}

const SPACED = /^\d{1,3}(?:[ ']\d{3})+$/;

/** Figures whose groups, if there are any, are parted by spaces or apostrophes; undefined where they are parted elsewhere than by threes. */
function ungroup(text: string): string | undefined {
  if (/^\d*$/.test(text)) return text;
  return SPACED.test(text) ? text.replace(/[ ']/g, '') : undefined;
}

/**
 * The ways in which a number can be read: none, one, or two where a single `.` or `,` stands before just three figures and
 * may part thousands as well as decimals. The decimal reading comes first.
 *
 * @example readNumber('145,600') // 145.600 and 145600
 */
export function readNumber(text: string): Reading[] {
  const number = text.replace(/ ?([.,]) ?/g, '$1');
  const marks = number.match(/[.,]/g) ?? [];
  if (!/\d/.test(number)) return [];
  if (marks.length === 0) {
    const whole = ungroup(number);
    return whole === undefined ? [] : [{ whole, fraction: '', grouped: /[ ']/.test(number) }];
  }
  const last = Math.max(number.lastIndexOf('.'), number.lastIndexOf(','));
  const [before, after] = [number.slice(0, last), number.slice(last + 1)];
  if (marks.length > 1) {
    const alone = marks.filter((mark) => mark === number[last]).length === 1;
    if (/^\d{1,3}(?:[.,]\d{3})+$/.test(before) && new Set(before.match(/[.,]/g)).size === 1) {
      if (alone && /^\d*$/.test(after))
        return [{ whole: before.replace(/[.,]/g, ''), fraction: after, grouped: true }];
      if (!alone && /^\d{3}$/.test(after))
        return [{ whole: number.replace(/[.,]/g, ''), fraction: '', grouped: true }];
    }
    return [];
  }
  const whole = ungroup(before);
  // Figures behind the mark are parted by threes from the mark on: 145.612 5.
  const fraction = /^(?:\d{3}[ '])*\d{0,3}$|^\d*$/.test(after) ? after.replace(/[ ']/g, '') : undefined;
  if (whole === undefined || fraction === undefined) return [];
  const decimal: Reading = { whole, fraction, grouped: false };
  return /^[1-9]\d{0,2}$/.test(before) && /^\d{3}$/.test(after)
    ? [decimal, { whole: before + after, fraction: '', grouped: true }]
    : [decimal];
}

/** A reading as a count of 10^-scale units, exactly; undefined where figures finer than that are not zero. */
export function counted({ whole, fraction }: Reading, scale: number): number | undefined {
  if (/[1-9]/.test(fraction.slice(scale))) return undefined;
  return Number(whole + fraction.slice(0, scale).padEnd(scale, '0'));
}

/** Units of frequency as they are written in some scripts, in small letters, with the power of ten of hertz. */
const UNITS: Record<string, number> = {
  hz: 0,
  k: 3,
  khz: 3,
  kc: 3,
  m: 6,
  mhz: 6,
  mc: 6,
  g: 9,
  ghz: 9,
  // After the unit names of CLDR, with the short forms in use beside them.
  гц: 0,
  кгц: 3,
  мгц: 6,
  ггц: 9,
  赫: 0,
  赫兹: 0,
  赫茲: 0,
  千赫: 3,
  千赫兹: 3,
  千赫茲: 3,
  兆赫: 6,
  兆赫兹: 6,
  百万赫: 6,
  百萬赫: 6,
  吉赫: 9,
  ヘルツ: 0,
  キロヘルツ: 3,
  メガヘルツ: 6,
  ギガヘルツ: 9,
  헤르츠: 0,
  킬로헤르츠: 3,
  메가헤르츠: 6,
  기가헤르츠: 9,
  هرتز: 0,
  كيلوهرتز: 3,
  ميغاهرتز: 6,
  ميجاهرتز: 6,
  مگاهرتز: 6,
  הרץ: 0,
  קילוהרץ: 3,
  מגההרץ: 6,
};

/** The power of ten of hertz that a unit stands for; undefined where it is no unit of frequency. */
export function unitScale(unit: string): number | undefined {
  const key = unit.toLowerCase().replace(/[ .-]/g, '');
  // “kHz.” with its full stop, and Unicode's own compositions, are the same unit.
  return Object.hasOwn(UNITS, key.normalize('NFKC')) ? UNITS[key.normalize('NFKC')] : undefined;
}

/** A number and what follows it, as `plain` text has them: `145.6 MHz` is `145.6` and `MHz`. */
export function splitUnit(text: string): { number: string; unit: string } | undefined {
  const match = /^([\d.,' ]*\d[.,]?|[.,]\d+) ?([^\d]*)$/.exec(text);
  return match ? { number: match[1]!, unit: match[2]! } : undefined;
}
