// @ts-check
import { parentPort } from 'node:worker_threads';
import { carry, codeOf, openFiles } from './embedded.mjs';

/**
 * The embedded database in a thread of its own: what it works on keeps nobody waiting who only wants to be let in. It is told
 * which folder to open, then given a port for each connection (thread.ts).
 *
 * @typedef {{ open: string } | { connection: import('node:worker_threads').MessagePort } | { close: true }} Told
 * @typedef {{ opened: true } | { closed: true } | { failed: string }} Said
 */

const owner = /** @type {import('node:worker_threads').MessagePort} */ (parentPort);
const say = (/** @type {Said} */ said) => owner.postMessage(said);
// Begun before it is known which folder: the code is the same for all of them.
const code = codeOf();

/** @type {import('@electric-sql/pglite').PGlite | undefined} */
let files;

owner.on('message', async (/** @type {Told} */ told) => {
  try {
    if ('open' in told) {
      files = await openFiles(told.open, { code: await code });
      say({ opened: true });
    } else if ('connection' in told) {
      if (files) carry(files, told.connection);
      else told.connection.close();
    } else {
      await files?.close();
      say({ closed: true });
    }
  } catch (error) {
    say({ failed: error instanceof Error ? error.message : String(error) });
  }
});
