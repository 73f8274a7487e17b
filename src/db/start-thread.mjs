// @ts-check
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { Worker } from 'node:worker_threads';
import { checkPlace, dataPlace, lockPlace } from './place.mjs';

/** Starts the thread of the embedded database, and asks it one thing after the other. */
export function startThread() {
  // The database's code is compiled once, when it is first run, and not again when it is hot: that costs a start a third of a
  // second beside it, and 60 MB for good, and what a query takes is hardly less for it.
  setFlagsFromString('--wasm-tiering-budget=1000000000');
  const file = join(process.cwd(), 'src', 'db', 'database-thread.mjs');
  // What a query is made of is gone as soon as it is answered.
  const options = { resourceLimits: { maxYoungGenerationSizeMb: 8 } };
  // Reflect.construct keeps the bundler from processing the file: bundled, it does not find the database's code.
  const worker = /** @type {Worker} */ (Reflect.construct(Worker, [file, options]));
  /** @param {import('./database-thread.mjs').Told} told @returns {Promise<void>} */
  const ask = (told) =>
    new Promise((done, failed) => {
      const stopped = (/** @type {unknown} */ error) =>
        failed(error instanceof Error ? error : new Error('The thread of the database has ended.'));
      worker.once('error', stopped);
      worker.once('exit', stopped);
      worker.once('message', (/** @type {import('./database-thread.mjs').Said} */ said) => {
        worker.off('error', stopped);
        worker.off('exit', stopped);
        if ('failed' in said) failed(new Error(said.failed));
        else done();
      });
      worker.postMessage(told);
    });
  return { worker, ask };
}

/** @typedef {ReturnType<typeof startThread>} DatabaseThread */

/**
 * A thread that was started ahead of everything else, and the folder that it opens if there is one.
 *
 * @typedef {{ thread: DatabaseThread, folder?: string, opened?: Promise<void> }} Ahead
 * @typedef {{ veridonDatabaseAhead?: Ahead | undefined }} Shared
 */
const shared = /** @type {Shared} */ (globalThis);

/**
 * Opens the database of the data directory before it is asked for: making its code ready and opening its files takes as long
 * as reading the framework, and goes on beside it. Where something is in the way, who opens it later says what.
 */
export function openAhead() {
  const ahead = (shared.veridonDatabaseAhead = /** @type {Ahead} */ ({ thread: startThread() }));
  try {
    const place = dataPlace();
    checkPlace(place);
    lockPlace(place);
    const folder = join(place, 'db');
    if (!existsSync(folder)) return;
    ahead.folder = folder;
    ahead.opened = ahead.thread.ask({ open: folder });
    ahead.opened.catch(() => {});
  } catch {
    // Said by whoever opens it.
  }
}

/**
 * The thread in which the files of a folder are open: the one that was started ahead, or one of its own.
 *
 * @param {string} folder
 * @returns {Promise<DatabaseThread>}
 */
export async function threadWith(folder) {
  const { thread, folder: opening, opened } = shared.veridonDatabaseAhead ?? { thread: startThread() };
  shared.veridonDatabaseAhead = undefined;
  await (opening === folder ? opened : thread.ask({ open: folder }));
  return thread;
}
