import type { SQL } from 'drizzle-orm';
import { openDatabase, type Database } from '../db';

/**
 * One commit for many. The embedded database has one connection, and a commit that is on the disk costs as much as the work
 * in it: what comes while a commit is under way goes into the next one together. A PostgreSQL server does so itself.
 */

interface Waiting {
  statement: SQL;
  done: (rows: unknown[]) => void;
  failed: (error: unknown) => void;
}

/** Most that goes into one commit: others want their turn at the connection too. */
const MOST = 32;

const shared = globalThis as { veridonCommits?: { waiting: Waiting[]; running: boolean } };
const state = (shared.veridonCommits ??= { waiting: [], running: false });

/** Carries a statement out, alone or with others in one commit; its rows, once they are on the disk. */
export async function committed(database: Database, statement: SQL): Promise<unknown[]> {
  if ((await openDatabase()).kind !== 'pglite') return rowsOf(await database.execute(statement));
  return new Promise((done, failed) => {
    state.waiting.push({ statement, done, failed });
    if (!state.running) void run(database);
  });
}

const rowsOf = (result: unknown) => (result as { rows: unknown[] }).rows;

async function run(database: Database): Promise<void> {
  state.running = true;
  while (state.waiting.length > 0) {
    // Whoever has sent something meanwhile is heard first: the database holds this thread while it works.
    await new Promise((heard) => setImmediate(heard));
    const batch = state.waiting.splice(0, MOST);
    if (batch.length === 1 || !(await together(database, batch)))
      for (const one of batch) await alone(database, one);
  }
  state.running = false;
}

async function alone(database: Database, { statement, done, failed }: Waiting): Promise<void> {
  await database.execute(statement).then((result) => done(rowsOf(result)), failed);
}

/** True where all of them were carried out, or none can be any more; false where one of them is refused, and each has to be asked for itself. */
async function together(database: Database, batch: readonly Waiting[]): Promise<boolean> {
  let refused = false;
  try {
    const rows = await database.transaction(async (transaction) => {
      const all = [];
      for (const { statement } of batch)
        all.push(
          rowsOf(
            await transaction.execute(statement).catch((error: unknown) => {
              refused = true;
              throw error;
            }),
          ),
        );
      return all;
    });
    batch.forEach(({ done }, at) => done(rows[at]!));
    return true;
  } catch (error) {
    if (refused) return false;
    for (const { failed } of batch) failed(error);
    return true;
  }
}
