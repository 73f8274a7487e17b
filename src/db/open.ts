import { execFile } from 'node:child_process';
import { existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { PGlite } from '@electric-sql/pglite';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { checkPlace, checkRoom, dataPlace, lockPlace, unlockPlace } from './place';
import * as schema from './schema';
import type { DiskStep } from './synced-fs';

/** A database with our schema, whichever driver carries it. */
export type Database = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface Opened {
  database: Database;
  /** `pglite` in the data directory, or the `server` that DATABASE_URL names. */
  kind: 'pglite' | 'server';
  close(): Promise<void>;
}

const MIGRATIONS = join(process.cwd(), 'src', 'db', 'migrations');
const MAKER = join(process.cwd(), 'src', 'db', 'make-database.mjs');

/** The migrations, in the order in which they are carried out. */
const journal = () =>
  JSON.parse(readFileSync(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };

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

async function openServer(url: string): Promise<Opened> {
  const [{ Pool }, { drizzle }, { migrate }] = await Promise.all([
    import('pg'),
    import('drizzle-orm/node-postgres'),
    import('drizzle-orm/node-postgres/migrator'),
  ]);
  const pool = new Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 5000 });
  // A connection that breaks while nobody uses it is taken out of the pool; unheard, it would end the process.
  pool.on('error', () => {});
  const database = drizzle(pool, { schema });
  try {
    await migrate(database, { migrationsFolder: MIGRATIONS });
  } catch (error) {
    await pool.end();
    throw error;
  }
  return { database, kind: 'server', close: () => pool.end() };
}

/**
 * Makes the database beside its place and puts it there whole: a power cut or a kill on the way leaves a folder that is
 * made anew the next time, never half a database.
 */
export async function makePglite(place: string): Promise<void> {
  const { copySynced, syncPath, syncTree } = await import('./synced-fs');
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
async function isNewest(client: PGlite): Promise<boolean> {
  const { entries } = journal();
  try {
    const { rows } = await client.query<{ at: number | null }>(
      'select max(created_at)::float8 as at from drizzle.__drizzle_migrations',
    );
    return rows[0]?.at === Math.max(...entries.map(({ when }) => when));
  } catch {
    // No migration has been carried out yet: there is no such table.
    return false;
  }
}

/**
 * Opens the database files in a folder so that what is committed is on disk, and brings them to the newest schema; `heard`
 * is told every step.
 */
export async function openFolder(folder: string, heard?: (step: DiskStep) => void): Promise<Opened> {
  const [{ PGlite }, { SyncedFS }, { drizzle }, { migrate }] = await Promise.all([
    import('@electric-sql/pglite'),
    import('./synced-fs'),
    import('drizzle-orm/pglite'),
    import('drizzle-orm/pglite/migrator'),
  ]);
  // The server has begun to compile it before anything else (src/door/database-code.mjs).
  const { veridonDatabaseCode } = globalThis as { veridonDatabaseCode?: Promise<WebAssembly.Module> };
  const client = await PGlite.create({
    pgliteWasmModule: await veridonDatabaseCode,
    fs: new SyncedFS(folder, heard),
    // -F would switch fsync off; of the ways to sync the log, fsync is the one that the files know.
    startParams: [
      ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
      ...['-c', 'wal_sync_method=fsync'],
      // No process writes checkpoints beside us; a log of the usual 1 GB would be gone through after every kill.
      ...['-c', 'max_wal_size=64MB'],
      // The usual 160 MB are for servers; what is read again is in the memory of the system besides.
      ...['-c', 'shared_buffers=24MB'],
    ],
  });
  const database = drizzle(client, { schema });
  // The usual case costs one question: each kind of statement that the database carries out first costs it tens of ms.
  if (!(await isNewest(client))) await migrate(database, { migrationsFolder: MIGRATIONS });
  return { database, kind: 'pglite', close: () => client.close() };
}

async function openPglite(): Promise<Opened> {
  const place = dataPlace();
  checkPlace(place);
  checkRoom(place);
  lockPlace(place);
  try {
    if (!existsSync(join(place, 'db'))) await makePglite(place);
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
