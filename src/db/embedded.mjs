// @ts-check
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { SyncedFS } from './synced-fs.mjs';

/** The embedded database: opened so that what is committed is on disk, and spoken to as one speaks to a PostgreSQL server. */

/** The database's code, which is WebAssembly. @returns {Promise<WebAssembly.Module>} */
export async function codeOf() {
  const place = dirname(createRequire(import.meta.url).resolve('@electric-sql/pglite'));
  return WebAssembly.compile(await readFile(join(place, 'pglite.wasm')));
}

/**
 * Opens the database files in a folder.
 *
 * @param {string} folder
 * @param {{ heard?: (step: import('./synced-fs.mjs').DiskStep) => void, code?: WebAssembly.Module }} [how] `heard` is told every
 *   step that is done to the files
 */
export const openFiles = (folder, { heard, code } = {}) =>
  PGlite.create({
    ...(code && { pgliteWasmModule: code }),
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

/** A message of the protocol: Query, 13 bytes of length and text. */
const ROLLBACK = Buffer.from('Q\0\0\0\rROLLBACK\0', 'latin1');

/**
 * What the database says to a message. The stream that the package offers works at once, all of it before it returns; its plain call reads
 * every answer a second time and keeps what it read for good.
 *
 * @param {PGlite} files
 * @param {Uint8Array} asked
 */
function said(files, asked) {
  // Of one who connects the stream says nothing.
  if (asked[0] === 0) return files.execProtocolRawSync(asked);
  /** @type {Uint8Array[]} */
  const parts = [];
  // The parts lie in the database's own memory, where the next ones take their place.
  void files.execProtocolRawStream(asked, {
    syncToFs: false,
    onRawData: (bytes) => void parts.push(bytes.slice()),
  });
  // In a buffer of its own, which is given away.
  return new Uint8Array(Buffer.concat(parts));
}

/**
 * Carries one connection: each message is what a client sends at once (PostgreSQL's protocol 3.0), each answer all that the
 * database says to it. There is one session for all connections, so that they follow each other and never overlap.
 *
 * @param {PGlite} files
 * @param {import('node:worker_threads').MessagePort} port
 */
export function carry(files, port) {
  port.on('message', (/** @type {Uint8Array} */ asked) => {
    // Who connects finds a session of its own: nothing of a transaction that another left open.
    if (asked[0] === 0 && files.isInTransaction()) said(files, ROLLBACK);
    const answer = said(files, asked);
    port.postMessage(answer, answer.length > 0 ? [/** @type {ArrayBuffer} */ (answer.buffer)] : []);
  });
}
