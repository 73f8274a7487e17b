import { readDocument, type Plan } from '../plan';
import { fail, ok, type Result } from '../result';
import { readLine, type PastedRow } from '../table';
import { decodeText, FILE_LIMIT, tooLarge, type Encoding } from './decode';
import { jsonFault } from './faults';
import { readGeography, type Geography } from './geography';
import { rowsOfPlaces } from './places';
import { isArchive, readSpreadsheet } from './spreadsheet';
import { readTable, tableOf, type Delimiter, type Table } from './table';

/** What a file turned out to be. */
export type FileContent =
  | { kind: 'table'; encoding: Encoding | 'spreadsheet'; table: Table }
  | { kind: 'list'; rows: PastedRow[] }
  | { kind: 'places'; what: Geography['kind']; rows: PastedRow[]; lines: Geography['lines'] }
  | { kind: 'plan'; name: string; plan: Plan };

/** Lines that are looked at to tell running text from a table. */
const LOOKED_AT = 60;
/** Longest text that is read as somebody would jot it down, characters. */
const JOTTED_CHARS = 1_000_000;

/**
 * A list as somebody jots it down, a station a line: `Ullsmere Hill 145.6125 -0.6 88.5 FM`. Null for what is none: most lines must have
 * a name and a frequency among words parted by spaces.
 */
function readJotted(text: string): PastedRow[] | null {
  if (text.length > JOTTED_CHARS) return null;
  const lines = text.split(/\r\n|\n|\r/);
  const written = lines.filter((line) => line.trim() !== '').slice(0, LOOKED_AT);
  const jotted = written.filter((line) => !/[\t;|]/.test(line) && (readLine(line)?.name ?? '') !== '');
  // Commas part cells where they part every line alike.
  const commas = new Set(written.map((line) => line.split(',').length));
  if (jotted.length * 2 <= written.length || (commas.size === 1 && !commas.has(1))) return null;
  return lines.flatMap((line, at) =>
    line.trim() === '' ? [] : [{ line: at + 1, cells: readLine(line) ?? { name: line.trim() } }],
  );
}

/** The rows of a spreadsheet that have something in them, as a table. */
function readSheetFile(bytes: Uint8Array): Result<FileContent> {
  if (bytes.length > FILE_LIMIT) return tooLarge(bytes.length);
  const cells = readSpreadsheet(bytes);
  if (!cells.ok) return cells;
  const filled = cells.value.flatMap((row, at) =>
    row.some((cell) => cell.trim() !== '') ? [{ row, line: at + 1 }] : [],
  );
  const table = tableOf(
    filled.map(({ row }) => row),
    filled.map(({ line }) => line),
    null,
  );
  return table.ok ? ok({ kind: 'table', encoding: 'spreadsheet', table: table.value }) : table;
}

/**
 * Works out from its bytes what a file is: a plan of ours, GeoJSON, GPX or KML, a spreadsheet, or a table. Its name says nothing. Fails
 * with what it is instead, or with where and why. `soFar` is told how much of a table has been read, 0 to 1.
 */
export async function readFile(
  bytes: Uint8Array,
  { delimiter, soFar }: { delimiter?: Delimiter | undefined; soFar?: (share: number) => void } = {},
): Promise<Result<FileContent>> {
  if (isArchive(bytes)) return readSheetFile(bytes);
  const decoded = decodeText(bytes);
  if (!decoded.ok) return decoded;
  const { text, encoding } = decoded.value;
  const begins = text.trimStart();
  if (begins.startsWith('{') || begins.startsWith('[') || begins.startsWith('<')) {
    if (begins.startsWith('{') && /"channels"\s*:/.test(text)) {
      let json: unknown;
      try {
        json = JSON.parse(text);
      } catch (error) {
        return fail(jsonFault(text, error));
      }
      const plan = readDocument(json);
      return plan.ok ? ok({ kind: 'plan', name: plan.value.name, plan: plan.value }) : plan;
    }
    const found = readGeography(text);
    if (!found.ok) return found;
    const { kind, places, lines } = found.value;
    return ok({ kind: 'places', what: kind, rows: rowsOfPlaces(places), lines });
  }
  const jotted = delimiter === undefined ? readJotted(text) : null;
  if (jotted) return ok({ kind: 'list', rows: jotted });
  const table = readTable(text, delimiter, soFar);
  return table.ok ? ok({ kind: 'table', encoding, table: table.value }) : table;
}
