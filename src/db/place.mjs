// @ts-check
// Plain JavaScript, since the door reads it as it is before anything else (../door/database-ahead.mjs).
import {
  closeSync,
  constants,
  existsSync,
  ftruncateSync,
  mkdirSync,
  openSync,
  readFileSync,
  rmSync,
  statfsSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join, resolve } from 'node:path';
import { tryLock } from 'fs-native-extensions';

/** The data directory cannot be used; the message says why and what to do. */
export class DataPlaceError extends Error {}

/** Where everything is kept: `VERIDON_DATA_DIR`, or `.data` below the application. */
export function dataPlace() {
  return resolve(/* turbopackIgnore: true */ process.env.VERIDON_DATA_DIR ?? '.data');
}

/** @type {Record<string, string>} */
const REASONS = {
  EROFS: 'it is read-only',
  EACCES: 'this account may not write there',
  EPERM: 'this account may not write there',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  ENOTDIR: 'a file stands where a directory is wanted',
  EEXIST: 'a file stands where a directory is wanted',
};

/** @param {unknown} error */
function reasonOf(error) {
  const { code, message } = /** @type {NodeJS.ErrnoException} */ (error);
  return REASONS[code ?? ''] ?? message;
}

/**
 * Makes the directory and writes a small file into it; throws `DataPlaceError` where that does not go. On a disk that is full what is there already can be read all
 * the same.
 *
 * @param {string} place
 */
export function checkPlace(place) {
  const probe = join(place, '.probe');
  try {
    mkdirSync(place, { recursive: true });
    writeFileSync(probe, 'Veridon');
    rmSync(probe);
  } catch (error) {
    const { code } = /** @type {NodeJS.ErrnoException} */ (error);
    if ((code === 'ENOSPC' || code === 'EDQUOT') && existsSync(join(place, 'db'))) return;
    throw new DataPlaceError(
      `Veridon cannot write in its data directory ${place}: ${reasonOf(error)}. Make room or rights there, or name another with VERIDON_DATA_DIR.`,
    );
  }
}

/** MB that must stay free, so that the database never meets a full disk in the middle of a write. */
const reserveMb = () => Number(process.env.VERIDON_RESERVE_MB ?? 64);

/** What keeps Veridon from writing there, in a sentence; null where nothing does. @param {string} place */
export function roomFault(place) {
  try {
    checkRoom(place);
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** Throws `DataPlaceError` where the disk is about to be full; nothing has been written then. @param {string} place */
export function checkRoom(place) {
  /** @type {number} */
  let freeMb;
  try {
    const { bavail, bsize } = statfsSync(place);
    freeMb = (bavail * bsize) / 1_000_000;
  } catch (error) {
    throw new DataPlaceError(`The data directory ${place} cannot be reached: ${reasonOf(error)}.`);
  }
  if (freeMb < reserveMb())
    throw new DataPlaceError(
      `The data directory ${place} is nearly full (${Math.floor(freeMb)} MB free). Nothing was changed. Make room and try again.`,
    );
}

/**
 * The directories that this process holds, with the open file that carries each lock. One for the process, however often
 * modules are loaded again.
 *
 * @typedef {{ veridonPlaces?: Map<string, number> }} Shared
 */
const shared = /** @type {Shared} */ (globalThis);
const held = (shared.veridonPlaces ??= new Map());

/**
 * Takes the directory for this process. The lock is the operating system's and lies on an open file, so that it is given
 * back whenever its holder ends, however that comes about; nothing is left that could be stale, or be taken by two at once.
 * What the file says is for the message alone. Throws `DataPlaceError` where another process has it.
 *
 * @param {string} place
 */
export function lockPlace(place) {
  if (held.has(place)) return;
  const file = join(place, 'veridon.lock');
  /** @type {number} */
  let handle;
  try {
    handle = openSync(file, constants.O_RDWR | constants.O_CREAT, 0o644);
  } catch (error) {
    throw new DataPlaceError(`${file}: ${reasonOf(error)}`);
  }
  if (!tryLock(handle)) {
    const owner = readFileSync(handle, 'utf8').trim();
    closeSync(handle);
    throw new DataPlaceError(
      `Another Veridon (process ${owner || 'unknown'}) is using the data directory ${place}. Stop it, or name another with VERIDON_DATA_DIR.`,
    );
  }
  ftruncateSync(handle);
  writeSync(handle, String(process.pid), 0);
  held.set(place, handle);
}

/** Gives the directory back. @param {string} place */
export function unlockPlace(place) {
  const handle = held.get(place);
  if (handle === undefined) return;
  held.delete(place);
  closeSync(handle);
}
