import { sql } from 'drizzle-orm';
import { openDatabase } from '../db';

/** Changes after which the tables are tidied. */
const EVERY = 500;
let changed = 0;
let tidying = false;

/**
 * Counts a change, and now and then gives the space of what rows were before back to the tables: the embedded database has no
 * process beside it that would. A PostgreSQL server has one, and is left alone.
 */
export function giveSpaceBack(): void {
  if (++changed < EVERY || tidying) return;
  changed = 0;
  tidying = true;
  tidy()
    .catch(() => {})
    .finally(() => (tidying = false));
}

async function tidy(): Promise<void> {
  for (const table of ['documents', 'records', 'summaries', 'changes']) await giveBack(table);
}

/** Gives the space of what rows of a table were before back to it. */
export async function giveBack(table: string): Promise<void> {
  const { database, kind } = await openDatabase();
  if (kind === 'pglite') await database.execute(sql.raw(`vacuum ${table}`));
}
