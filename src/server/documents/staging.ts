import { eq, lt, sql, type SQL } from 'drizzle-orm';
import { stagedRecords, type Database } from '../../db';
import { giveBack } from '../space';

/**
 * Rows of records on their way into the tables. The embedded database does one statement after the other, and to read the JSON of thousands of rows takes it longer
 * than to write them. So many rows are staged first, in stretches between which others come, and the statement that puts them into a document moves them.
 */

/** A row of a record to put into a document. */
export interface RecordRow {
  document: string;
  kind: string;
  id: string;
  position: number | null;
  data: object;
}

/** Rows as a statement takes them: given with it, or staged before under the name of a load. */
export type RowsToPut = { given: readonly RecordRow[] } | { load: string };

/** Rows of one stretch, and the most that are given with a statement. */
const STRETCH = 400;
/** Loads that are older broke off, ms. */
const BROKE_OFF_MS = 3_600_000;

const recordset = (rows: readonly RecordRow[]): SQL =>
  sql`jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as given(document text, kind text, id text, position double precision, data jsonb)`;

/** Stages rows where there are many. Outside of a transaction: within one others wait until it ends. */
export async function stageRows(database: Database, rows: readonly RecordRow[]): Promise<RowsToPut> {
  if (rows.length <= STRETCH) return { given: rows };
  const load = crypto.randomUUID();
  try {
    for (let from = 0; from < rows.length; from += STRETCH)
      await database.execute(sql`
        insert into staged_records (load, document_id, kind, id, position, data)
        select ${load}, document, kind, id, position, data from ${recordset(rows.slice(from, from + STRETCH))}`);
  } catch (error) {
    await unstage(database, { load });
    throw error;
  }
  return { load };
}

/** The rows of all of them, for a statement to read; staged ones stay until `unstage`. */
export function rowsIn(puts: readonly RowsToPut[]): SQL {
  const loads = puts.flatMap((put) => ('load' in put ? put.load : []));
  const given = puts.flatMap((put) => ('given' in put ? put.given : []));
  const parts = loads.map(
    (load) =>
      sql`select document_id as document, kind, id, position, data from staged_records where load = ${load}`,
  );
  if (given.length > 0 || loads.length === 0)
    parts.push(sql`select document, kind, id, position, data from ${recordset(given)}`);
  return sql.join(parts, sql` union all `);
}

/** Removes staged rows and gives their space back. What cannot be removed now the next start removes. */
export async function unstage(database: Database, rows: RowsToPut): Promise<void> {
  if (!('load' in rows)) return;
  try {
    await database.delete(stagedRecords).where(eq(stagedRecords.load, rows.load));
    await giveBack('staged_records');
  } catch {
    // The data directory is full, or the database server is away.
  }
}

/** Removes the rows of loads that broke off. */
export async function forgetStaged(database: Database): Promise<void> {
  await database.delete(stagedRecords).where(lt(stagedRecords.at, new Date(Date.now() - BROKE_OFF_MS)));
}
