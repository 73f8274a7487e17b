import { join } from 'node:path';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { checkPlace, checkRoom, dataPlace, lockPlace } from './place';
import * as schema from './schema';

/** A database with our schema, whichever driver carries it. */
export type Database = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface Opened {
  database: Database;
  /** `pglite` in the data directory, or the `server` that DATABASE_URL names. */
  kind: 'pglite' | 'server';
  close(): Promise<void>;
}

const MIGRATIONS = join(process.cwd(), 'src', 'db', 'migrations');

async function openServer(url: string): Promise<Opened> {
  const [{ Pool }, { drizzle }, { migrate }] = await Promise.all([
    import('pg'),
    import('drizzle-orm/node-postgres'),
    import('drizzle-orm/node-postgres/migrator'),
  ]);
  const pool = new Pool({ connectionString: url, max: 10 });
  const database = drizzle(pool, { schema });
  await migrate(database, { migrationsFolder: MIGRATIONS });
  return { database, kind: 'server', close: () => pool.end() };
}

async function openPglite(): Promise<Opened> {
  const place = dataPlace();
  checkPlace(place);
  checkRoom(place);
  lockPlace(place);
  const [{ PGlite }, { drizzle }, { migrate }] = await Promise.all([
    import('@electric-sql/pglite'),
    import('drizzle-orm/pglite'),
    import('drizzle-orm/pglite/migrator'),
  ]);
  const client = await PGlite.create(join(place, 'db'));
  const database = drizzle(client, { schema });
  await migrate(database, { migrationsFolder: MIGRATIONS });
  return { database, kind: 'pglite', close: () => client.close() };
}

const kept = globalThis as { veridonDatabase?: Promise<Opened> };

/**
 * The database of this process: opened once, brought to the newest schema, kept however often modules are loaded
 * again. Throws `DataPlaceError` where the data directory cannot be used.
 */
export function openDatabase(): Promise<Opened> {
  kept.veridonDatabase ??= (
    process.env.DATABASE_URL ? openServer(process.env.DATABASE_URL) : openPglite()
  ).catch((error) => {
    kept.veridonDatabase = undefined;
    throw error;
  });
  return kept.veridonDatabase;
}
