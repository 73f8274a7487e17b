import { readDocument, type Channel } from '../plan';
import { fail, type Result } from '../result';
import { ok } from '../result';
import type { PastedRow } from '../table';
import { decodeText, type Encoding } from './decode';
import { readGeography, type Geography } from './geography';
import { rowsOfPlaces } from './places';
import { readTable, type Delimiter, type Table } from './table';

/** What a file turned out to be. */
export type FileContent =
  | { kind: 'table'; encoding: Encoding; table: Table }
  | { kind: 'places'; what: Geography['kind']; rows: PastedRow[]; lines: Geography['lines'] }
  | { kind: 'plan'; name: string; channels: Channel[] };

/**
 * Works out from its bytes what a file is: a plan of ours, GeoJSON, GPX or KML, or a table. Its name says nothing. Fails with what it is
 * instead, or with where and why.
 */
export function readFile(bytes: Uint8Array, delimiter?: Delimiter): Result<FileContent> {
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
      return plan.ok ? ok({ kind: 'plan', name: plan.value.name, channels: [...plan.value.channels] }) : plan;
    }
    const found = readGeography(text);
    if (!found.ok) return found;
    const { kind, places, lines } = found.value;
    return ok({ kind: 'places', what: kind, rows: rowsOfPlaces(places), lines });
  }
  const table = readTable(text, delimiter);
  return table.ok ? ok({ kind: 'table', encoding, table: table.value }) : table;
}
