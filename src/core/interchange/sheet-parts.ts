import { Parser } from 'saxen';
import { fail, ok, type Result } from '../result';
import { TABLE_LIMITS } from './table-limits';

/** The XML parts of a spreadsheet (ISO/IEC 29500-1, 18). Every part is read in one pass, so that the time grows with its length alone. */

const decoder = new TextDecoder();
/** Signs by the names that XML gives them (XML 1.0, 4.6). */
const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

const decoded = (text: string): string =>
  text.includes('&')
    ? text.replace(/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(amp|lt|gt|quot|apos));/gi, (whole, ten, hex, name) => {
        if (name) return NAMED[(name as string).toLowerCase()]!;
        const point = ten ? Number(ten) : parseInt(hex as string, 16);
        return point <= 0x10ffff ? String.fromCodePoint(point) : whole;
      })
    : text;

/** A text as it was before signs that XML does not hold were written as `_xHHHH_` (22.9.2.19). */
const unescaped = (text: string): string =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
    : text;

/**
 * The longest text that is collected, in characters: `_xHHHH_` has seven for one. A text that is longer has more characters than a cell may have, so the rest of
 * it is not read.
 */
const LONGEST = 7 * (TABLE_LIMITS.cell + 1);
/** The most characters that XML needs to write one: `&#1114111;`. */
const OF_ONE = 10;

/** A text with the next piece of it added, as far as the limit goes. */
const grown = (text: string, piece: string, plain: boolean): string => {
  if (text.length >= LONGEST) return text;
  const some = piece.slice(0, OF_ONE * LONGEST);
  return text + (plain ? some : decoded(some));
};

/** What is told of a part while it is read. Names of elements and attributes come without their prefix. */
interface Hears {
  /** Gives what is wrong with the element, which ends the reading. */
  open(name: string, attributes: () => Record<string, string>): string | void;
  close?(name: string): string | void;
  /** `plain` where nothing in it stands for another sign. */
  text?(text: string, plain: boolean): void;
}

const withoutPrefix = (name: string): string => name.slice(name.indexOf(':') + 1);

function attributesOf(read: () => Record<string, string> | false): Record<string, string> {
  const found: Record<string, string> = {};
  for (const [name, value] of Object.entries(read() || {})) found[withoutPrefix(name)] = decoded(value);
  return found;
}

/** Reads a part through; gives what is wrong with it, nothing where all is well. */
function walk(part: Uint8Array, hears: Hears): string {
  let wrong = '';
  const parser = new Parser();
  const told = (said: string | void) => {
    if (!said || wrong !== '') return;
    wrong = said;
    parser.stop();
  };
  const broken = () => told('This spreadsheet is damaged: one of its parts is no XML.');
  parser
    .on('openTag', (name, attributes) =>
      told(hears.open(withoutPrefix(name), () => attributesOf(attributes))),
    )
    .on('closeTag', (name) => told(hears.close?.(withoutPrefix(name))))
    .on('text', (text) => hears.text?.(text, false))
    .on('cdata', (text) => hears.text?.(text, true))
    .on('error', broken);
  parser.parse(decoder.decode(part));
  return wrong;
}

type Parts = Readonly<Record<string, Uint8Array>>;

/** What a target of a relationship is called among the parts; it may be said from the root or from where the workbook lies. */
const partAt = (target: string): string =>
  target.startsWith('/') ? target.slice(1) : `xl/${target.replace(/^\.\//, '')}`;

/** Where the first sheet lies among the parts, and whether its days are counted from 1904 on. Fails where there is none. */
export function firstSheet(parts: Parts): Result<{ sheet: Uint8Array; from1904: boolean }> {
  let [id, from1904, target] = ['', false, ''];
  const wrong = walk(parts['xl/workbook.xml']!, {
    open(name, attributes) {
      if (name === 'sheet') id ||= attributes().id ?? '';
      else if (name === 'workbookPr') from1904 = /^(1|true)$/.test(attributes().date1904 ?? '');
    },
  });
  if (wrong !== '') return fail(wrong);
  const relations = parts['xl/_rels/workbook.xml.rels'];
  const odd = relations
    ? walk(relations, {
        open(name, attributes) {
          if (name !== 'Relationship' || target !== '') return;
          const { Id, Target } = attributes();
          if (Id === id) target = Target ?? '';
        },
      })
    : '';
  if (odd !== '') return fail(odd);
  const sheet = parts[target === '' ? 'xl/worksheets/sheet1.xml' : partAt(target)];
  return sheet ? ok({ sheet, from1904 }) : fail('This spreadsheet has no sheet with cells.');
}

/** Number formats that every reader knows as days or times (18.8.30). */
const isDay = (format: number): boolean =>
  (format >= 14 && format <= 22) ||
  (format >= 27 && format <= 36) ||
  (format >= 45 && format <= 47) ||
  (format >= 50 && format <= 58);

/** True where a format of the file writes a number as a day or a time: what is in quotes, brackets or behind a backslash is no part of it. */
const writesDay = (code: string): boolean =>
  /[ymdhs]/i.test(code.replace(/"[^"]*"|\[[^\]]*\]|\\.|_.|general/gi, ''));

/** The styles, by their numbers, that write a number as a day or a time. Fails where the part is damaged. */
export function dayStyles(parts: Parts): Result<ReadonlySet<number>> {
  const styles = parts['xl/styles.xml'];
  const days = new Set<number>();
  if (!styles) return ok(days);
  const own = new Map<number, boolean>();
  let [inCells, style] = [false, 0];
  const wrong = walk(styles, {
    open(name, attributes) {
      if (name === 'cellXfs') inCells = true;
      else if (name === 'numFmt') {
        const { numFmtId, formatCode } = attributes();
        own.set(Number(numFmtId), writesDay((formatCode ?? '').slice(0, 200)));
      } else if (name === 'xf' && inCells) {
        const format = Number(attributes().numFmtId ?? 0);
        if (own.get(format) ?? isDay(format)) days.add(style);
        style++;
      }
    },
    close(name) {
      if (name === 'cellXfs') inCells = false;
    },
  });
  return wrong === '' ? ok(days) : fail(wrong);
}

/** The texts that cells name by their numbers (18.4). Fails where the part is damaged. */
export function sharedTexts(parts: Parts): Result<string[]> {
  const part = parts['xl/sharedStrings.xml'];
  const texts: string[] = [];
  if (!part) return ok(texts);
  let [text, inText, aside] = ['', false, false];
  const wrong = walk(part, {
    open(name) {
      if (name === 'si') text = '';
      else if (name === 't') inText = true;
      // How it is spoken is not what is written.
      else if (name === 'rPh') aside = true;
    },
    close(name) {
      if (name === 'si') texts.push(unescaped(text));
      else if (name === 't') inText = false;
      else if (name === 'rPh') aside = false;
    },
    text(said, plain) {
      if (inText && !aside) text = grown(text, said, plain);
    },
  });
  return wrong === '' ? ok(texts) : fail(wrong);
}

/** A cell as it stands in a sheet. */
export interface RawCell {
  /** Row and column, from 1. */
  row: number;
  column: number;
  /** Its type (18.18.11), `n` where it says none. */
  type: string;
  style: number;
  value: string;
}

/** The number of a column by its letters: A is 1. */
const columnNumber = (letters: string) =>
  [...letters].reduce((number, letter) => number * 26 + letter.charCodeAt(0) - 64, 0);

/**
 * Gives `take` the cells of a sheet that have something in them, and `row` the rows, in the order of the file. What a cell does not say of its place
 * follows from the one before (18.3.1.4). Gives what is wrong with the sheet, or what `row` or `take` find wrong; nothing where all is well.
 */
export function readCells(
  sheet: Uint8Array,
  hears: { row(row: number): string; take(cell: RawCell): string },
): string {
  let [row, column, type, style, value, inValue, held, aside] = [0, 0, 'n', 0, '', false, false, false];
  return walk(sheet, {
    open(name, attributes) {
      if (name === 'row') {
        const said = attributes().r;
        row = said !== undefined && /^\d{1,9}$/.test(said) ? Number(said) : row + 1;
        column = 0;
        return hears.row(row);
      }
      if (name === 'c') {
        const { r = '', t, s } = attributes();
        const [, letters, figures] = /^([A-Z]{1,4})(\d{1,9})$/.exec(r) ?? [];
        column = letters === undefined ? column + 1 : columnNumber(letters);
        if (figures !== undefined) row = Number(figures);
        [type, style, value, held] = [t ?? 'n', Number(s ?? 0), '', false];
      } else if (name === 'v' || name === 't') inValue = held = true;
      else if (name === 'rPh') aside = true;
      return '';
    },
    close(name) {
      if (name === 'v' || name === 't') inValue = false;
      else if (name === 'rPh') aside = false;
      else if (name === 'c' && held) return hears.take({ row, column, type, style, value: unescaped(value) });
      return '';
    },
    text(said, plain) {
      if (inValue && !aside) value = grown(value, said, plain);
    },
  });
}
