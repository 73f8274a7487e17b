import { unzipSync, zipSync } from 'fflate';
import { readSheet } from 'read-excel-file/universal';
import writeExcelFile from 'write-excel-file/universal';
import { fail, ok, type Result } from '../result';
import { columnsOf, numberText, type Outgoing } from './columns';
import { TABLE_LIMITS } from './table-limits';

/**
 * Spreadsheets (Office Open XML, ISO/IEC 29500). What a file says of its own size is not believed: it is unpacked no further than the
 * limits go, and what its cells claim to be is looked at before anything makes rows of it.
 */
export const SHEET_LIMITS = {
  /** Of all parts that are read, unpacked, bytes. */
  unpacked: 150_000_000,
  parts: 400,
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

/** The number of a column by its letters: A is 1. */
const columnNumber = (letters: string) =>
  [...letters].reduce((number, letter) => number * 26 + letter.charCodeAt(0) - 64, 0);

/** The letters of a column by its number: 27 is AA. */
const columnLetters = (number: number): string =>
  (number > 26 ? columnLetters(Math.floor((number - 1) / 26)) : '') +
  String.fromCharCode(65 + ((number - 1) % 26));

/** What is odd about where the cells of a sheet say that they are; empty where nothing is. */
function oddPlaces(sheet: Uint8Array): string {
  const text = new TextDecoder().decode(sheet);
  for (const [, letters, row] of text.matchAll(/<(?:\w+:)?c\s[^>]*?\br="([A-Z]{1,12})(\d{1,12})"/g)) {
    if (letters!.length > 3 || columnNumber(letters!) > TABLE_LIMITS.columns)
      return `Cell ${letters}${row} stands beyond ${TABLE_LIMITS.columns} columns. This is not a table of stations.`;
    if (Number(row) > TABLE_LIMITS.rows)
      return `Cell ${letters}${row} stands beyond row ${TABLE_LIMITS.rows}. Part the table.`;
  }
  for (const [, row] of text.matchAll(/<(?:\w+:)?row\s[^>]*?\br="(\d{1,12})"/g))
    if (Number(row) > TABLE_LIMITS.rows)
      return `Row ${row} stands beyond row ${TABLE_LIMITS.rows}. Part the table.`;
  return '';
}

const cellText = (value: unknown): string => {
  if (typeof value === 'number') return numberText(Number(value.toPrecision(12)));
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value instanceof Date) return value.toISOString();
  return typeof value === 'string' ? value : '';
};

/** The cells of the first sheet as text, row by row, as they stand there: row 1 is the first. Numbers read as they would be typed. */
export async function readSpreadsheet(bytes: Uint8Array): Promise<Result<string[][]>> {
  const unpacked = parts(bytes);
  if (!unpacked.ok) return unpacked;
  for (const [name, content] of Object.entries(unpacked.value)) {
    const odd = name.startsWith('xl/worksheets/') && name.endsWith('.xml') ? oddPlaces(content) : '';
    if (odd !== '') return fail(`${odd} Nothing was read.`);
  }
  // Packed again as it was found, so that nothing is unpacked that was not looked at.
  const looked = zipSync(unpacked.value, { level: 0 });
  try {
    const rows = await readSheet(looked.buffer as ArrayBuffer, { trim: false });
    const cells = rows.map((row) => row.map(cellText));
    for (const [at, row] of cells.entries()) {
      const long = row.findIndex((cell) => cell.length > TABLE_LIMITS.cell);
      if (long >= 0)
        return fail(
          `Cell ${columnLetters(long + 1)}${at + 1} has ${row[long]!.length} characters; ${TABLE_LIMITS.cell} are the most. Nothing was read.`,
        );
    }
    return ok(cells);
  } catch (error) {
    return fail(`This spreadsheet cannot be read: ${(error as Error).message || 'it is damaged'}.`);
  }
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
