// @ts-check
import { closeSync, fsyncSync, mkdirSync, openSync, readdirSync } from 'node:fs';
import { copyFile, open, readdir } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { NodeFS } from '@electric-sql/pglite/nodefs';

// Plain JavaScript, since the thread of the database reads it as it is (database-thread.mjs).

/**
 * One thing done to the files of the database, in the order in which it was done. Paths are those of this machine.
 *
 * @typedef {{ kind: 'make', path: string, folder: boolean }
 *   | { kind: 'write', path: string, at: number, bytes: Uint8Array }
 *   | { kind: 'size', path: string, size: number }
 *   | { kind: 'rename', from: string, to: string }
 *   | { kind: 'remove', path: string }
 *   | { kind: 'sync', path: string }} DiskStep
 */

/**
 * What is used here of the file system inside PGlite (Emscripten's NODEFS), which publishes no types of its own.
 *
 * @typedef {{ id: number, mode: number }} Node
 * @typedef {{ nfd: number, node: Node }} Stream
 * @typedef {{
 *   realPath(node: Node): string,
 *   tryFSOperation<T>(run: () => T): T,
 *   node_ops: {
 *     mknod(parent: Node, name: string, mode: number, dev: number): Node,
 *     rename(node: Node, folder: Node, name: string): void,
 *     unlink(parent: Node, name: string): void,
 *     rmdir(parent: Node, name: string): void,
 *     setattr(node: Node, change: { size?: number }): void,
 *   },
 *   stream_ops: {
 *     write(stream: Stream, from: Uint8Array, offset: number, length: number, at: number): number,
 *     setattr(stream: Stream, change: { size?: number }): void,
 *     fsync?(stream: Stream): number,
 *   },
 * }} NodeFiles
 */

/** Syncs a file or folder by its path. @param {string} path */
export function syncPath(path) {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Syncs every file and folder below, and the folder itself. @param {string} folder */
export function syncTree(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.isDirectory()) syncTree(join(folder, entry.name));
    else if (entry.isFile()) syncPath(join(folder, entry.name));
  }
  syncPath(folder);
}

/** Files that are copied at once: the threads that Node has for files. */
const AT_ONCE = 4;

/**
 * Copies a folder with all that is below it, and syncs what it makes; others go on meanwhile.
 *
 * @param {string} from
 * @param {string} to
 */
export async function copySynced(from, to) {
  const entries = await readdir(from, { withFileTypes: true, recursive: true });
  const below = (/** @type {boolean} */ folder) =>
    entries
      .filter((entry) => (folder ? entry.isDirectory() : entry.isFile()))
      .map((entry) => relative(from, join(entry.parentPath ?? entry.path, entry.name)));
  const folders = [to, ...below(true).map((path) => join(to, path))];
  for (const folder of folders) mkdirSync(folder, { recursive: true });
  const files = below(false);
  const copy = async () => {
    for (let path = files.pop(); path !== undefined; path = files.pop()) {
      await copyFile(join(from, path), join(to, path));
      const made = await open(join(to, path), 'r');
      await made.sync().finally(() => made.close());
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, copy));
  for (const folder of folders) syncPath(folder);
}

const isFolder = (/** @type {number} */ mode) => (mode & 0o170000) === 0o040000;

/**
 * PGlite's files on this machine, with an fsync that is one. PGlite's own answers fsync without doing anything, so that
 * what was committed is in the machine's memory alone and a power cut takes it. Here the database's fsync reaches the disk,
 * and where the file was made or renamed since its folder was last synced, the folder is synced too: a file that is safe
 * under a name that is not would be gone all the same. An fsync that fails reaches the database, which then stops rather
 * than answer.
 */
export class SyncedFS extends NodeFS {
  /** @type {Set<string>} */
  #unsyncedFolders = new Set();
  /** @type {((step: DiskStep) => void) | undefined} */
  #heard;

  /**
   * @param {string} folder
   * @param {(step: DiskStep) => void} [heard] is told every step, for tests that cut the power
   */
  constructor(folder, heard) {
    super(folder);
    this.#heard = heard;
  }

  /**
   * @override
   * @param {Parameters<NodeFS['init']>[0]} pg
   * @param {Parameters<NodeFS['init']>[1]} options
   */
  async init(pg, options) {
    const made = await super.init(pg, options);
    const preRun = made.emscriptenOpts.preRun;
    const patch = (/** @type {unknown} */ module) =>
      this.#patch(/** @type {{ NODEFS: NodeFiles }} */ (module).NODEFS);
    return { emscriptenOpts: { ...made.emscriptenOpts, preRun: [patch, ...[preRun ?? []].flat()] } };
  }

  /** @param {string} path */
  #sync(path) {
    syncPath(path);
    this.#unsyncedFolders.delete(path);
    this.#heard?.({ kind: 'sync', path });
  }

  /** @param {NodeFiles} files */
  #patch(files) {
    const { realPath, node_ops, stream_ops } = files;
    const { mknod, rename, unlink, rmdir, setattr } = { ...node_ops };
    const { write, setattr: setStream } = { ...stream_ops };
    const at = (/** @type {Node} */ parent, /** @type {string} */ name) => join(realPath(parent), name);

    node_ops.mknod = (parent, name, mode, dev) => {
      const node = mknod(parent, name, mode, dev);
      this.#unsyncedFolders.add(realPath(parent));
      this.#heard?.({ kind: 'make', path: at(parent, name), folder: isFolder(mode) });
      return node;
    };
    node_ops.rename = (node, folder, name) => {
      const from = realPath(node);
      rename(node, folder, name);
      const to = at(folder, name);
      this.#unsyncedFolders.add(dirname(from)).add(dirname(to));
      this.#heard?.({ kind: 'rename', from, to });
    };
    node_ops.unlink = (parent, name) => {
      unlink(parent, name);
      this.#heard?.({ kind: 'remove', path: at(parent, name) });
    };
    node_ops.rmdir = (parent, name) => {
      rmdir(parent, name);
      this.#heard?.({ kind: 'remove', path: at(parent, name) });
    };
    node_ops.setattr = (node, change) => {
      setattr(node, change);
      if (change.size !== undefined) this.#heard?.({ kind: 'size', path: realPath(node), size: change.size });
    };
    stream_ops.setattr = (stream, change) => {
      setStream(stream, change);
      if (change.size !== undefined)
        this.#heard?.({ kind: 'size', path: realPath(stream.node), size: change.size });
    };
    stream_ops.write = (stream, from, offset, length, position) => {
      const written = write(stream, from, offset, length, position);
      this.#heard?.({
        kind: 'write',
        path: realPath(stream.node),
        at: position,
        bytes: from.slice(offset, offset + written),
      });
      return written;
    };
    stream_ops.fsync = (stream) =>
      files.tryFSOperation(() => {
        const path = realPath(stream.node);
        fsyncSync(stream.nfd);
        this.#unsyncedFolders.delete(path);
        this.#heard?.({ kind: 'sync', path });
        const folder = dirname(path);
        if (this.#unsyncedFolders.has(folder)) this.#sync(folder);
        return 0;
      });
  }
}
