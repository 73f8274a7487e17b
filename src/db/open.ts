import { execFile } from 'node:child_process';
import { existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Pool, PoolClient } from 'pg';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { copyOn } from './copy';
import { checkPlace, checkRoom, dataPlace, lockPlace, unlockPlace } from './place.mjs';
import * as peopleSchema from './people-schema';
import * as planSchema from './schema';
import type { DiskStep } from './synced-fs.mjs';

const schema = { ...planSchema, ...peopleSchema };

/** A database with our schema, whichever driver carries it. */
export type Database = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface Opened {
  database: Database;
  /** `pglite` in the data directory, or the `server` that DATABASE_URL names. */
  kind: 'pglite' | 'server';
  /**
   * Carries out statements of which the last is a COPY from what follows, these lines; where one of them fails nothing is done. null on a
   * server: what stands between us and it may hand on messages one by one, and a COPY waits for its lines then.
   */
  copy: ((statements: string, lines: string) => Promise<void>) | null;
  close(): Promise<void>;
}

const MIGRATIONS = join(process.cwd(), 'src', 'db', 'migrations');
const MAKER = join(process.cwd(), 'src', 'db', 'make-database.mjs');

/** The migrations, in the order in which they are carried out. */
const journal = () =>
  JSON.parse(readFileSync(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };

/** The number of the schema: how many migrations have made it. */
export const schemaNumber = (): number => journal().entries.length;

/** Where the build has put an empty database of this version of PGlite and of this schema (scripts/prepare.mjs); making one takes seconds, copying it none. */
function preparedDatabase(): string {
  const { VERIDON_EMPTY_DATABASE: elsewhere } = process.env;
  if (elsewhere) return elsewhere;
  const { dependencies } = JSON.parse(readFileSync(join(process.cwd(), 'package.json'), 'utf8')) as {
    dependencies: Record<string, string>;
  };
  return join(
    process.cwd(),
    '.build',
    `empty-database-${dependencies['@electric-sql/pglite']}-${journal().entries.length}`,
  );
}

/**
 * Makes the database beside its place and puts it there whole: a power cut or a kill on the way leaves a folder that is
 * made anew the next time, never half a database.
 */
export async function makePglite(place: string): Promise<void> {
  const { copySynced, syncPath, syncTree } = await import('./synced-fs.mjs');
  const making = join(place, 'db.making');
  rmSync(making, { recursive: true, force: true });
  const prepared = preparedDatabase();
  if (existsSync(/*turbopackIgnore: true*/ prepared)) await copySynced(prepared, making);
  else {
    await promisify(execFile)(process.execPath, [MAKER, making], {
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    syncTree(making);
  }
  renameSync(making, join(place, 'db'));
  syncPath(place);
}

/** True where the schema is the newest already, by the moment of the last migration that was carried out. */
async function isNewest(asked: Pool | PoolClient): Promise<boolean> {
  const { entries } = journal();
  try {
    const { rows } = await asked.query<{ at: number | null }>(
      'select max(created_at)::float8 as at from drizzle.__drizzle_migrations',
    );
    return rows[0]?.at === Math.max(...entries.map(({ when }) => when));
  } catch {
    // No migration has been carried out yet: there is no such table.
    return false;
  }
}

/** The number by which those that bring one server to the newest schema wait for each other (PostgreSQL, 13.3.5). */
const MIGRATING = 5_604_201;

/** Brings the database to the newest schema; of several that start at once on one server, one does it, and the others wait and find it done. */
async function migrateAlone(pool: Pool): Promise<void> {
  const [{ drizzle }, { migrate }] = await Promise.all([
    import('drizzle-orm/node-postgres'),
    import('drizzle-orm/node-postgres/migrator'),
  ]);
  const client = await pool.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATING]);
    if (!(await isNewest(client))) await migrate(drizzle(client), { migrationsFolder: MIGRATIONS });
    await client.query('select pg_advisory_unlock($1)', [MIGRATING]);
    client.release();
  } catch (error) {
    // The lock goes with its connection.
    client.release(true);
    throw error;
  }
}

/** The database behind a pool of connections, brought to the newest schema; where that fails the pool is closed. */
async function openPool(pool: Pool): Promise<Database> {
  const { drizzle } = await import('drizzle-orm/node-postgres');
  // A connection that breaks while nobody uses it is taken out of the pool; unheard, it would end the process.
  pool.on('error', () => {});
  const database = drizzle(pool, { schema });
  try {
    // The usual case costs one question: each kind of statement that the database carries out first costs it tens of ms.
    if (!(await isNewest(pool))) await migrateAlone(pool);
  } catch (error) {
    await pool.end();
    throw error;
  }
  return database;
}

async function openServer(url: string): Promise<Opened> {
  const { Pool } = await import('pg');
  const pool = new Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 5000 });
  return { database: await openPool(pool), kind: 'server', copy: null, close: () => pool.end() };
}

/**
 * Opens the database files in a folder so that what is committed is on disk, and brings them to the newest schema; `heard`
 * is told every step.
 */
export async function openFolder(folder: string, heard?: (step: DiskStep) => void): Promise<Opened> {
  const [{ Pool }, { openHere, openInThread }] = await Promise.all([import('pg'), import('./thread')]);
  const embedded = await (heard ? openHere(folder, heard) : openInThread(folder));
  // There is one session: a connection at a time, which stays. The session knows one user and one database.
  const pool = new Pool({
    stream: () => embedded.connection(),
    max: 1,
    idleTimeoutMillis: 0,
    user: 'postgres',
    database: 'postgres',
    password: '',
  });
  const close = () => pool.end().finally(() => embedded.close());
  try {
    return { database: await openPool(pool), kind: 'pglite', copy: copyOn(pool), close };
  } catch (error) {
    await embedded.close();
    throw error;
  }
}

async function openPglite(): Promise<Opened> {
  const place = dataPlace();
  checkPlace(place);
  lockPlace(place);
  try {
    if (!existsSync(join(place, 'db'))) {
      checkRoom(place);
      await makePglite(place);
    }
    const opened = await openFolder(join(place, 'db'));
    return { ...opened, close: () => opened.close().finally(() => unlockPlace(place)) };
  } catch (error) {
    unlockPlace(place);
    throw error;
  }
}

const kept = globalThis as { veridonDatabase?: Promise<Opened> };

/**
 * The database of this process: opened once, brought to the newest schema, kept however often modules are loaded
 * again; tests say `how`. Throws `DataPlaceError` where the data directory cannot be used.
 */
export function openDatabase(
  how = () => (process.env.DATABASE_URL ? openServer(process.env.DATABASE_URL) : openPglite()),
): Promise<Opened> {
  kept.veridonDatabase ??= how().catch((error) => {
    kept.veridonDatabase = undefined;
    throw error;
  });
  return kept.veridonDatabase;
}
