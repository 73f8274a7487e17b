import Papa from 'papaparse';
import { TONES } from '../radio';
import { fail, ok, type Result } from '../result';
import { isHeadings, meaningOf, type ColumnMeaning } from '../table';
import { isWritten } from '../text';
import { armed } from './formula';
import { TABLE_LIMITS } from './table-limits';

/** What parts the cells of a line. */
export const DELIMITERS = { '\t': 'tabs', ';': 'semicolons', '|': 'bars', ',': 'commas' } as const;
export type Delimiter = keyof typeof DELIMITERS;

/** A file of rows and cells, with what each column is, as far as that is known. */
export interface Table {
  /** null where the cells of a spreadsheet need none. */
  delimiter: Delimiter | null;
  /** The headings as they stand there; null where there are none. */
  headings: string[] | null;
  /** What each column is; undefined where nobody knows. */
  meanings: (ColumnMeaning | undefined)[];
  rows: string[][];
  /** The line in which each row begins, from 1. */
  lines: number[];
  /** How many rows there are beyond those that are read. */
  beyond: number;
}

/** What is read at once, characters; then one tells how far it is. */
const STRETCH = 500_000;
/** Rows by which delimiter and meanings are told. */
const LOOKED_AT = 60;
/** What is looked at at most, characters: a line without an end is no table. */
const LOOKED_CHARS = 200_000;

/** Characters by which the ends of lines are told. */
const ENDS_LOOKED_AT = 20_000;

/** How the lines of a text end, outside of what is in quotation marks. The library tells it by a million characters, each time that it is asked. */
function lineEndOf(text: string): '\n' | '\r\n' | '\r' {
  const looked = text.slice(0, ENDS_LOOKED_AT).replace(/"[^"]*"?/g, '');
  const [returns, feeds, both] = [/\r/g, /\n/g, /\r\n/g].map((end) => looked.match(end)?.length ?? 0);
  if (returns === 0 || feeds! > returns!) return '\n';
  return both! * 2 >= returns! ? '\r\n' : '\r';
}

/** How evenly a delimiter parts the first rows: the share of rows with the most frequent number of cells, where that is two or more. */
function evenness(text: string, delimiter: string): { share: number; columns: number } {
  const { data } = Papa.parse<string[]>(text.slice(0, LOOKED_CHARS), {
    delimiter,
    newline: lineEndOf(text),
    preview: LOOKED_AT,
    skipEmptyLines: true,
  });
  const counts = new Map<number, number>();
  for (const row of data) counts.set(row.length, (counts.get(row.length) ?? 0) + 1);
  const [[columns, most]] = [...counts].sort((a, b) => b[1] - a[1]) as [[number, number]];
  return columns < 2 ? { share: 0, columns } : { share: most / data.length, columns };
}

/** Which delimiter a text has: the most even one; of several as even tabs, then semicolons, since a comma may stand in a number. */
export function delimiterOf(text: string): Delimiter {
  let best: { delimiter: Delimiter; share: number } = { delimiter: ',', share: 0 };
  for (const delimiter of Object.keys(DELIMITERS) as Delimiter[]) {
    if (!text.slice(0, LOOKED_CHARS).includes(delimiter)) continue;
    const { share } = evenness(text, delimiter);
    if (share > best.share + 0.05) best = { delimiter, share };
  }
  return best.delimiter;
}

/** True for what reads as a frequency in MHz; a tone of the list is none. */
const isFrequencyText = (cell: string): boolean => {
  const [, number] = /^(\d{2,4}[.,]\d{1,6})( ?mhz)?$/i.exec(cell) ?? [];
  return (
    number !== undefined && !TONES.includes(Math.round(Number(number.replace(',', '.')) * 10 * 1e5) / 1e5)
  );
};

const CONTENT: readonly [ColumnMeaning, (cell: string) => boolean][] = [
  ['rx', isFrequencyText],
  ...(
    [
      ['shift', /^[+-]\d{0,3}([.,]\d+)?( ?mhz|k)?$/i],
      ['access', /^(\d{2,3}[.,]\d|d\d{3}[ni]|cc\d{1,2} ts[12])(\/.*)?$/i],
      ['mode', /^(n?fm|am|usb|lsb|cw|dmr|p25|nxdn|c4fm)$/i],
      ['power', /^\d+([.,]\d+)? ?w$/i],
      ['locator', /^[a-r]{2}\d{2}([a-x]{2}(\d{2})?)?$/i],
      ['call', /^[a-z]{1,2}\d[a-z]{1,4}$/i],
    ] as const
  ).map(([meaning, form]): [ColumnMeaning, (cell: string) => boolean] => [
    meaning,
    (cell) => form.test(cell),
  ]),
];

/** What columns without headings are, by what most of their cells read as; the first that reads as words is the name. */
export function meaningsByContent(rows: readonly (readonly string[])[]): (ColumnMeaning | undefined)[] {
  const columns = Math.max(0, ...rows.map((row) => row.length));
  const taken = new Set<ColumnMeaning>();
  const meanings = Array.from({ length: columns }, (_, column): ColumnMeaning | undefined => {
    const cells = rows.map((row) => (row[column] ?? '').trim()).filter((cell) => cell !== '');
    if (cells.length === 0) return undefined;
    for (const [meaning, reads] of CONTENT) {
      const share = cells.filter(reads).length / cells.length;
      if (share < 0.75) continue;
      // A second column of frequencies is the other side.
      const found = meaning === 'rx' && taken.has('rx') ? 'tx' : meaning;
      if (taken.has(found)) continue;
      taken.add(found);
      return found;
    }
    return undefined;
  });
  const wordy = meanings.findIndex(
    (meaning, column) =>
      meaning === undefined &&
      rows.filter((row) => /\p{L}{2}/u.test(row[column] ?? '')).length * 2 > rows.length,
  );
  if (wordy >= 0) meanings[wordy] = 'name';
  return meanings;
}

/** How many ends of lines there are from one place of a text to another, and the longest way between two of them, characters. */
function linesIn(text: string, from: number, to: number): { ends: number; longest: number } {
  let [ends, longest, began] = [0, 0, from];
  for (let at = text.indexOf('\n', from); at >= 0 && at < to; at = text.indexOf('\n', at + 1)) {
    ends++;
    if (at - began > longest) longest = at - began;
    began = at;
  }
  return { ends, longest: Math.max(longest, to - began) };
}

/**
 * Reads a text as rows and cells (RFC 4180, with any of the delimiters): delimiter, headings and what the columns are come from the
 * content. Fails for what is no table, with what to do.
 */
export function readTable(
  text: string,
  delimiter: Delimiter = delimiterOf(text),
  soFar?: (share: number) => void,
): Result<Table> {
  const rows: string[][] = [];
  const lines: number[] = [];
  let beyond = 0;
  let odd = '';
  let [line, read] = [1, 0];
  const nextApostrophe = (from: number) => {
    const at = text.indexOf("'", from);
    return at < 0 ? Infinity : at;
  };
  let apostrophe = nextApostrophe(0);
  /** Takes a row that begins in `line`; false where it is no row of a table. Where it is `plain` no cell needs to be looked at for itself. */
  const take = (data: string[], plain: boolean): boolean => {
    const at = line++;
    if (!data.some(isWritten)) {
      if (!plain) for (const said of data) line += linesIn(said, 0, said.length).ends;
      return true;
    }
    let long = -1;
    for (let cell = 0; !plain && cell < data.length; cell++) {
      const said = data[cell]!;
      if (said.length > TABLE_LIMITS.cell && long < 0) long = cell;
      // What was kept from running as a formula is itself again.
      if (said.startsWith("'")) data[cell] = armed(said);
      // A cell in quotes goes over as many lines as it has ends of them.
      line += linesIn(said, 0, said.length).ends;
    }
    if (data.length > TABLE_LIMITS.columns)
      odd = `Line ${at} has ${data.length} cells; ${TABLE_LIMITS.columns} are the most. This is not a table of stations.`;
    else if (long >= 0)
      odd = `Line ${at}, cell ${long + 1} has ${data[long]!.length} characters; ${TABLE_LIMITS.cell} are the most. A quotation mark may be open there.`;
    if (odd) return false;
    if (rows.length >= TABLE_LIMITS.rows) beyond++;
    else {
      rows.push(data);
      lines.push(at);
    }
    return true;
  };
  /** Takes the rows of a stretch from one on, in which no cell needs to be looked at for itself, up to the first that wants more thought; gives which that is. */
  const takePlain = (data: readonly string[][], from: number): number => {
    const room = Math.min(data.length, from + TABLE_LIMITS.rows - rows.length);
    let at = from;
    for (; at < room; at++) {
      const row = data[at]!;
      if (!isWritten(row[0] ?? '') || row.length > TABLE_LIMITS.columns) break;
      rows.push(row);
      lines.push(line + at - from);
    }
    line += at - from;
    return at;
  };
  const config: Papa.ParseConfig<string[]> & { chunkSize: number; chunk: unknown } = {
    delimiter,
    newline: lineEndOf(text),
    skipEmptyLines: false,
    // By stretches: to be called for each row costs as much as to read it.
    chunkSize: STRETCH,
    chunk: ({ data, meta }: Papa.ParseResult<string[]>, parser: Papa.Parser) => {
      // As many ends of lines as rows, and none too long: no cell has an end of a line or is too long itself. The last row may have no end.
      const rowsEnded = data.length - (meta.cursor >= text.length ? 1 : 0);
      const { ends, longest } = linesIn(text, read, meta.cursor);
      if (apostrophe < read) apostrophe = nextApostrophe(read);
      const plain = ends <= rowsEnded && longest <= TABLE_LIMITS.cell && apostrophe >= meta.cursor;
      read = meta.cursor;
      for (let at = 0; at < data.length; at++) {
        if (plain) at = takePlain(data, at);
        if (at < data.length && !take(data[at]!, plain)) {
          parser.abort();
          break;
        }
      }
      soFar?.(read / text.length);
    },
  };
  Papa.parse<string[]>(text, config);
  if (odd) return fail(`${odd} Nothing was read.`);
  return tableOf(rows, lines, delimiter, beyond);
}

/** Rows of cells as a table, by its headings or by what its columns hold. `lines` has where each row begins. */
export function tableOf(
  rows: string[][],
  lines: readonly number[],
  delimiter: Delimiter | null,
  beyond = 0,
): Result<Table> {
  if (rows.length === 0) return fail('There is nothing in this file but empty lines.');
  const headed = isHeadings(rows[0]!);
  const body = headed ? rows.slice(1) : rows;
  return ok({
    delimiter,
    headings: headed ? rows[0]! : null,
    meanings: headed ? rows[0]!.map(meaningOf) : meaningsByContent(body.slice(0, LOOKED_AT)),
    rows: body,
    lines: headed ? lines.slice(1) : [...lines],
    beyond,
  });
}
