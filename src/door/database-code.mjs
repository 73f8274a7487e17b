// @ts-check
// The embedded database is WebAssembly: its code is made ready beside the framework, which is read meanwhile. Imported before all else.
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

if (!process.env.DATABASE_URL) {
  const place = dirname(createRequire(import.meta.url).resolve('@electric-sql/pglite'));
  const compiled = readFile(join(place, 'pglite.wasm')).then((bytes) => WebAssembly.compile(bytes));
  // Where it cannot be read, opening the database says so.
  compiled.catch(() => {});
  /** @type {{ veridonDatabaseCode?: Promise<WebAssembly.Module> }} */ (globalThis).veridonDatabaseCode =
    compiled;
}
