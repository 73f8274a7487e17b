// @ts-check
// Makes an empty database in a folder: `node src/db/make-database.mjs FOLDER`. In a process of its own, since making one takes
// several hundred MB that a process would not give back.
import { PGlite } from '@electric-sql/pglite';

const client = await PGlite.create(process.argv[2]);
await client.close();
