import {
  closeSync,
  mkdirSync,
  openSync,
  readFileSync,
  rmSync,
  statfsSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join, resolve } from 'node:path';

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
const RESERVE_MB = Number(process.env.VERIDON_RESERVE_MB ?? 64);

/** Throws `DataPlaceError` where the disk is about to be full; nothing has been written then. */
export function checkRoom(place: string): void {
  let freeMb: number;
  try {
    const { bavail, bsize } = statfsSync(place);
    freeMb = (bavail * bsize) / 1_000_000;
  } catch (error) {
    throw new DataPlaceError(`The data directory ${place} cannot be reached: ${reasonOf(error)}.`);
  }
  if (freeMb < RESERVE_MB)
    throw new DataPlaceError(
      `The data directory ${place} is nearly full (${Math.floor(freeMb)} MB free). Nothing was changed. Make room and try again.`,
    );
}

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
};

/**
 * Takes the directory for this process; a lock that a dead process left is taken over. Throws `DataPlaceError` where
 * another process has it.
 */
export function lockPlace(place: string): void {
  const file = join(place, 'veridon.lock');
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      const handle = openSync(file, 'wx');
      writeSync(handle, String(process.pid));
      closeSync(handle);
      process.on('exit', () => rmSync(file, { force: true }));
      return;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST')
        throw new DataPlaceError(`${file}: ${reasonOf(error)}`);
      const owner = Number(readFileSync(file, 'utf8'));
      if (owner === process.pid) return;
      if (owner > 0 && isAlive(owner))
        throw new DataPlaceError(
          `Another Veridon (process ${owner}) is using the data directory ${place}. Stop it, or name another with VERIDON_DATA_DIR.`,
        );
      rmSync(file, { force: true });
    }
  }
  throw new DataPlaceError(`The lock ${file} cannot be taken.`);
}
