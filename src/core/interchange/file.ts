import { readDocument, type Plan } from '../plan';
import { fail, ok, type Result } from '../result';
import type { PastedRow } from '../table';
import { decodeText, FILE_LIMIT, tooLarge, type Encoding } from './decode';
import { readGeography, type Geography } from './geography';
import { rowsOfPlaces } from './places';
import { isArchive, readSpreadsheet } from './spreadsheet';
import { readTable, tableOf, type Delimiter, type Table } from './table';

/** What a file turned out to be. */
export type FileContent =
  | { kind: 'table'; encoding: Encoding | 'spreadsheet'; table: Table }
  | { kind: 'places'; what: Geography['kind']; rows: PastedRow[]; lines: Geography['lines'] }
  | { kind: 'plan'; name: string; plan: Plan };

/** The rows of a spreadsheet that have something in them, as a table. */
async function readSheetFile(bytes: Uint8Array): Promise<Result<FileContent>> {
  if (bytes.length > FILE_LIMIT) return tooLarge(bytes.length);
  const cells = await readSpreadsheet(bytes);
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
        return fail(`This is no JSON: ${(error as Error).message}.`);
      }
      const plan = readDocument(json);
      return plan.ok ? ok({ kind: 'plan', name: plan.value.name, plan: plan.value }) : plan;
    }
    const found = readGeography(text);
    if (!found.ok) return found;
    const { kind, places, lines } = found.value;
    return ok({ kind: 'places', what: kind, rows: rowsOfPlaces(places), lines });
  }
  const table = readTable(text, delimiter, soFar);
  return table.ok ? ok({ kind: 'table', encoding, table: table.value }) : table;
}
