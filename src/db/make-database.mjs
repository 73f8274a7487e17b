// @ts-check
// Makes an empty database with today's schema in a folder: `node src/db/make-database.mjs FOLDER`. In a process of its own, since making one takes
// several hundred MB that a process would not give back.
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';

const client = await PGlite.create(process.argv[2]);
await migrate(drizzle(client), { migrationsFolder: fileURLToPath(new URL('migrations', import.meta.url)) });
await client.close();
