import { unzipSync } from 'fflate';
import writeExcelFile from 'write-excel-file/universal';
import { fail, ok, type Result } from '../result';
import { columnsOf, numberText, type Outgoing } from './columns';
import { dayStyles, firstSheet, readCells, sharedTexts, type RawCell } from './sheet-parts';
import { TABLE_LIMITS } from './table-limits';

/**
 * Spreadsheets (Office Open XML, ISO/IEC 29500). What a file says of its own size is not believed: it is unpacked no further than the
 * limits go, and no cell is kept that stands beyond them.
 */
export const SHEET_LIMITS = {
  /** Of all parts that are read, unpacked, bytes. */
  unpacked: 150_000_000,
  parts: 400,
  /** Cells with something in them. */
  cells: 2_000_000,
};

/** True where bytes begin as a zip archive does. */
export const isArchive = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

const NEEDED =
  /^(xl\/(workbook|sharedStrings|styles)\.xml|xl\/worksheets\/[^/]+\.xml|.*\.rels|\[Content_Types\]\.xml)$/;

/** The parts of a spreadsheet that are needed to read it, unpacked; fails where they are none, or too large. */
function parts(bytes: Uint8Array): Result<Record<string, Uint8Array>> {
  let [size, count] = [0, 0];
  let found: Record<string, Uint8Array>;
  try {
    found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!NEEDED.test(name)) return false;
        size += originalSize;
        count++;
        return size <= SHEET_LIMITS.unpacked && count <= SHEET_LIMITS.parts;
      },
    });
  } catch {
    return fail('This is a zip archive that is damaged or cut off. Nothing was read; save it again.');
  }
  if (size > SHEET_LIMITS.unpacked || count > SHEET_LIMITS.parts)
    return fail(
      `Unpacked this spreadsheet is larger than ${SHEET_LIMITS.unpacked / 1e6} MB. Nothing was read; save the rows that matter as CSV.`,
    );
  if (!found['xl/workbook.xml'])
    return fail(
      'This is a zip archive, and no spreadsheet (XLSX). Unpack it, or save it as XLSX, CSV, GPX, GeoJSON or KML.',
    );
  return ok(found);
}

/** The letters of a column by its number: 27 is AA. */
const columnLetters = (number: number): string =>
  (number > 26 ? columnLetters(Math.floor((number - 1) / 26)) : '') +
  String.fromCharCode(65 + ((number - 1) % 26));

/** ms of a day. */
const DAY_MS = 86_400_000;
/** The day 0 of sheets, ms since 1970: such that March 1st 1900 is day 61, since sheets know a February 29th of that year; or that of sheets that count from 1904. */
const [DAY_0, DAY_0_OF_1904] = [Date.UTC(1899, 11, 30), Date.UTC(1904, 0, 1)];
/** Days beyond which no calendar goes. */
const MOST_DAYS = 3_000_000;

/** What a cell says, as it would be typed; null where it names a text that is not there. */
function cellText(
  { type, style, value }: RawCell,
  texts: readonly string[],
  days: ReadonlySet<number>,
  day0: number,
): string | null {
  if (type === 's') return texts[/^\d{1,9}$/.test(value.trim()) ? Number(value) : -1] ?? null;
  if (type === 'b') return value === '1' ? 'yes' : value === '0' ? 'no' : '';
  if (type !== 'n') return value;
  if (value.trim() === '') return '';
  const number = Number(value);
  if (!Number.isFinite(number)) return value;
  if (days.has(style) && Math.abs(number) < MOST_DAYS)
    // eslint-disable-next-line no-restricted-syntax -- a moment that is given
    return new Date(Math.round(day0 + number * DAY_MS)).toISOString();
  return numberText(Number(number.toPrecision(12)));
}

/** The cells of the first sheet as text, row by row, as they stand there: row 1 is the first. Numbers read as they would be typed. */
export function readSpreadsheet(bytes: Uint8Array): Result<string[][]> {
  const unpacked = parts(bytes);
  if (!unpacked.ok) return unpacked;
  const [first, texts, days] = [
    firstSheet(unpacked.value),
    sharedTexts(unpacked.value),
    dayStyles(unpacked.value),
  ];
  for (const read of [first, texts, days]) if (!read.ok) return fail(`${read.reason} Nothing was read.`);
  if (!first.ok || !texts.ok || !days.ok) return fail('This spreadsheet cannot be read.');
  const day0 = first.value.from1904 ? DAY_0_OF_1904 : DAY_0;
  const rows: string[][] = [];
  let cells = 0;
  const wrong = readCells(first.value.sheet, {
    row: (row) =>
      row > TABLE_LIMITS.rows ? `Row ${row} stands beyond row ${TABLE_LIMITS.rows}. Part the table.` : '',
    take(cell) {
      const { row, column } = cell;
      const place = `Cell ${columnLetters(column)}${row}`;
      if (column > TABLE_LIMITS.columns)
        return `${place} stands beyond ${TABLE_LIMITS.columns} columns. This is not a table of stations.`;
      if (row < 1 || row > TABLE_LIMITS.rows)
        return `${place} stands beyond row ${TABLE_LIMITS.rows}. Part the table.`;
      if (++cells > SHEET_LIMITS.cells)
        return `This spreadsheet has more than ${SHEET_LIMITS.cells / 1e6} million cells. Split the table.`;
      const text = cellText(cell, texts.value, days.value, day0);
      if (text === null) return `${place} refers to a shared text that is missing. The file is damaged.`;
      if (text.length > TABLE_LIMITS.cell)
        return `${place} has more than ${TABLE_LIMITS.cell} characters, which is the most that is read.`;
      while (rows.length < row) rows.push([]);
      const into = rows[row - 1]!;
      while (into.length < column) into.push('');
      into[column - 1] = text;
      return '';
    },
  });
  return wrong === '' ? ok(rows) : fail(`${wrong} Nothing was read.`);
}

const hex = (sign: string) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`;

/**
 * A text as a cell has it: signs that XML does not hold, and what looks like one written out, as `_xHHHH_` (ISO/IEC 29500-1, 22.9.2.19).
 * So is the first letter of the words that every JavaScript object has: the library that writes looks texts up in one, and wrote no
 * number for a channel called `toString`.
 */
function sheetText(text: string): string {
  const held = text
    .replace(/_(?=x[0-9A-Fa-f]{4}_)/g, hex)
    // eslint-disable-next-line no-control-regex -- it is these that are meant
    .replace(/[\x00-\x08\x0b-\x1f\ufffe\uffff]/g, hex);
  return held in {} ? hex(held) + held.slice(1) : held;
}

/** A spreadsheet of channels: numbers as numbers, everything else as text, so that nothing in it is a formula. */
export async function writeSpreadsheet(channels: readonly Outgoing[], name: string): Promise<Uint8Array> {
  const columns = columnsOf(channels);
  const head = columns.map(({ heading }) => ({ value: heading, type: String, fontWeight: 'bold' as const }));
  const rows = channels.map((channel) =>
    columns.map(({ cell, decimals = 0 }) => {
      const has = cell(channel);
      if (has === null || has === '') return null;
      return typeof has === 'number'
        ? { value: has, type: Number, ...(decimals > 0 && { format: `0.${'0'.repeat(decimals)}##` }) }
        : { value: sheetText(has), type: String };
    }),
  );
  const blob = await writeExcelFile([head, ...rows], {
    sheet: sheetName(name),
    columns: columns.map(({ heading }) => ({ width: WIDTHS[heading] ?? 11 })),
    stickyRowsCount: 1,
  }).toBlob();
  return new Uint8Array(await blob.arrayBuffer());
}

const WIDTHS: Record<string, number> = {
  Name: 24,
  Place: 20,
  Note: 40,
  'Transmit MHz': 14,
  'Receive MHz': 14,
};

/** A name that a sheet may have: 31 characters, none of them one that parts references. */
const sheetName = (name: string) =>
  name
    .replace(/[\\/?*[\]:']/g, ' ')
    .trim()
    .slice(0, 31) || 'Channels';
