import type { SQL } from 'drizzle-orm';
import { checkRoom, DataPlaceError, dataPlace, openDatabase, roomFault, type Database } from '../db';
import { Problem } from './problem';

// A connection that is refused, broken or timed out, as Node and the driver say it; and the classes of SQLSTATE in which a
// server says that it is going down, coming up or full (PostgreSQL, appendix A: 08, 53300, 57P01 to 57P03).
const AWAY_CODE = /^(ECONN|ETIMEDOUT|EPIPE|ENOTFOUND|EHOSTUNREACH|ENETUNREACH|08|53300|57P0[123])/;
const AWAY_TEXT = /Connection terminated|timeout exceeded when trying to connect|not queryable/i;

function isAway(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, message, cause, errors } = error as {
    code?: unknown;
    message?: unknown;
    cause?: unknown;
    errors?: unknown;
  };
  const away = process.env.DATABASE_URL
    ? AWAY_CODE.test(String(code)) || AWAY_TEXT.test(String(message))
    : // Our own, which has broken down and is begun anew (db/thread.ts).
      code === 'DATABASE_STOPPED';
  if (away) return true;
  return (Array.isArray(errors) && errors.some(isAway)) || isAway(cause);
}

/** True where the disk was full in the middle of a write: disk_full of PostgreSQL (appendix A: 53100), or as the system says it. */
function isFull(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, message, cause } = error as { code?: unknown; message?: unknown; cause?: unknown };
  return (
    /^(53100|ENOSPC|EDQUOT)$/.test(String(code)) ||
    /No space left on device|ENOSPC/.test(String(message)) ||
    isFull(cause)
  );
}

/** Why nothing can be changed at the moment, in a sentence; null where it can. */
export function readOnlyBecause(): string | null {
  return process.env.DATABASE_URL ? null : roomFault(dataPlace());
}

/** The problem that an error of the data directory or of the database server is for people; undefined for any other. */
export function problemOf(error: unknown): Problem | undefined {
  if (error instanceof Problem) return error;
  if (error instanceof DataPlaceError)
    return new Problem(507, 'data-directory', 'The data directory cannot be used', error.message);
  if (isFull(error))
    return new Problem(
      507,
      'data-directory',
      'The data directory cannot be used',
      'The disk of the data directory is full. What you asked for was not done. Make room and try again.',
    );
  if (isAway(error))
    return new Problem(
      503,
      'database-away',
      'The database does not answer',
      process.env.DATABASE_URL
        ? 'The database server that DATABASE_URL names does not answer. What you asked for was not confirmed; Veridon goes on by itself as soon as the server is back.'
        : 'Veridon’s own database stopped while it worked on this and is begun anew. What you asked for was not confirmed; look whether it was done, and try again.',
    );
  return undefined;
}

/** The database for reading. A data directory or server that cannot be used becomes a problem that says so. */
export async function reading(): Promise<Database> {
  try {
    return (await openDatabase()).database;
  } catch (error) {
    throw problemOf(error) ?? error;
  }
}

/** The database for writing: refuses beforehand when the disk is nearly full, so that no write is cut in the middle. */
export async function writing(): Promise<Database> {
  try {
    const opened = await openDatabase();
    if (opened.kind === 'pglite') checkRoom(dataPlace());
    return opened.database;
  } catch (error) {
    throw problemOf(error) ?? error;
  }
}

/** Rows of an answer of the database, whichever driver gave it. */
export const rowsOf = async <R>(database: Pick<Database, 'execute'>, query: SQL): Promise<R[]> =>
  ((await database.execute(query)) as unknown as { rows: R[] }).rows;
