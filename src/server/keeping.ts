import { readdir, readFile, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { count, isNotNull, isNull } from 'drizzle-orm';
import type { Keeping } from '../api';
import { copies, dataPlace, openDatabase, plans, radios, revisions, stations } from '../db';
import { backupFile, backUpDaily, listBackups } from './backup';
import { damagedCopies } from './copies';
import { reading } from './database';
import { notFound } from './problem';

/** The data directory as a whole: how large, what is in it, whether what was sealed is what was sealed. */

async function bytesIn(folder: string): Promise<number> {
  let sum = 0;
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile()) continue;
    // It may have gone in the meantime: the database tidies up as it works.
    sum += (await stat(join(entry.parentPath, entry.name)).catch(() => ({ size: 0 }))).size;
  }
  return sum;
}

export async function lookAtKeeping(): Promise<Keeping> {
  const database = await reading();
  const folder = dataPlace();
  const { kind } = await openDatabase();
  const one = async (rows: Promise<{ n: number }[]>) => (await rows)[0]!.n;
  const n = { n: count() };
  const holds = [
    { what: 'plans', count: await one(database.select(n).from(plans).where(isNull(plans.removedAt))) },
    {
      what: 'plans put away',
      count: await one(database.select(n).from(plans).where(isNotNull(plans.removedAt))),
    },
    { what: 'edits in their histories', count: await one(database.select(n).from(revisions)) },
    { what: 'radios that have been here', count: await one(database.select(n).from(radios)) },
    { what: 'sealed copies', count: await one(database.select(n).from(copies)) },
    {
      what: 'stations of directories',
      count: await one(database.select(n).from(stations).where(isNull(stations.goneAt))),
    },
  ];
  const disk = await statfs(folder).catch(() => null);
  return {
    ...{ folder, kind, holds },
    bytes: await bytesIn(folder),
    free: disk && disk.bavail * disk.bsize,
    damaged: await damagedCopies(),
    backups: await listBackups(),
  };
}

/** The bytes of a backup. */
export async function readBackup(name: string): Promise<Uint8Array> {
  const file = await backupFile(name);
  if (!file) throw notFound(`backup ${name}`);
  return readFile(file);
}

/** How often it is seen whether the day's backup is due, ms; the first time some minutes after the start, when nobody waits for a page. */
const DUE_MS = 30 * 60_000;
const FIRST_MS = 3 * 60_000;

/** Makes a backup each day. */
export function keepBackingUp(): void {
  const look = () =>
    backUpDaily().catch((error: unknown) => console.error('The daily backup could not be made.', error));
  setTimeout(() => {
    void look();
    setInterval(look, DUE_MS).unref();
  }, FIRST_MS).unref();
}
