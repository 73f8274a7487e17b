import {
  closeSync,
  constants,
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
export function dataPlace(): string {
  return resolve(/* turbopackIgnore: true */ process.env.VERIDON_DATA_DIR ?? '.data');
}

const REASONS: Record<string, string> = {
  EROFS: 'it is read-only',
  EACCES: 'this account may not write there',
  EPERM: 'this account may not write there',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  ENOTDIR: 'a file stands where a directory is wanted',
  EEXIST: 'a file stands where a directory is wanted',
};

function reasonOf(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  return REASONS[code ?? ''] ?? message;
}

/** Makes the directory and writes a small file into it; throws `DataPlaceError` where that does not go. */
export function checkPlace(place: string): void {
  const probe = join(place, '.probe');
  try {
    mkdirSync(place, { recursive: true });
    writeFileSync(probe, 'Veridon');
    rmSync(probe);
  } catch (error) {
    throw new DataPlaceError(
      `Veridon cannot write in its data directory ${place}: ${reasonOf(error)}. Make room or rights there, or name another with VERIDON_DATA_DIR.`,
    );
  }
}

/** MB that must stay free, so that the database never meets a full disk in the middle of a write. */
const reserveMb = () => Number(process.env.VERIDON_RESERVE_MB ?? 64);

/** Throws `DataPlaceError` where the disk is about to be full; nothing has been written then. */
export function checkRoom(place: string): void {
  let freeMb: number;
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

/** The directories that this process holds, with the open file that carries each lock. */
const held = new Map<string, number>();

/**
 * Takes the directory for this process. The lock is the operating system's and lies on an open file, so that it is given
 * back whenever its holder ends, however that comes about; nothing is left that could be stale, or be taken by two at once.
 * What the file says is for the message alone. Throws `DataPlaceError` where another process has it.
 */
export function lockPlace(place: string): void {
  if (held.has(place)) return;
  const file = join(place, 'veridon.lock');
  let handle: number;
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

/** Gives the directory back. */
export function unlockPlace(place: string): void {
  const handle = held.get(place);
  if (handle === undefined) return;
  held.delete(place);
  closeSync(handle);
}
