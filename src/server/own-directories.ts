import { and, asc, count, eq, ne, notInArray, sql } from 'drizzle-orm';
import type { DirectoryRead } from '../reader/directory';
import { openDatabase, ownDirectories, stations, type Database } from '../db';
import { reading, rowsOf, writing } from './database';
import { instanceId, living } from './instance';
import { clientOf, NOBODY, once, receiptOf } from './once';
import { notFound, Problem } from './problem';
import { runReader } from './reader';
import { placesGone } from './station-places';
import { keepStations } from './stations';

/** Most files that are directories of one's own. */
const MOST = 50;

/** What became of a file: how many stations are kept, and the rows of which none came. */
export interface OwnDirectory extends DirectoryRead {
  id: string;
}

/** The directories of one's own that are whole, by their names. */
export async function listOwn(): Promise<{ id: string; name: string }[]> {
  const database = await reading();
  return database
    .select({ id: ownDirectories.id, name: ownDirectories.name })
    .from(ownDirectories)
    .where(eq(ownDirectories.state, 'whole'))
    .orderBy(asc(ownDirectories.name), asc(ownDirectories.id));
}

/**
 * Takes a file as a directory of one's own: its stations are kept, and searched as those of any other. It counts once all of it is here;
 * sent again with the same key it is the same directory.
 */
export async function keepOwn(
  { name, base64 }: { name: string; base64: string },
  asker = NOBODY,
  gone?: AbortSignal,
  now = new Date(),
): Promise<OwnDirectory> {
  const database = await writing();
  const request = { directory: name, base64 };
  const before = await receiptOf<OwnDirectory>(database, asker, request);
  if (before) return before;
  const [held] = await database.select({ n: count() }).from(ownDirectories);
  if ((held?.n ?? 0) >= MOST)
    throw new Problem(
      422,
      'too-many',
      'Too many directories',
      `There are ${MOST} directories of your own; remove one before you open another.`,
    );
  const id = `own-${crypto.randomUUID().slice(0, 13)}`;
  await database.insert(ownDirectories).values({ id, name, state: 'loading', instance: instanceId });
  try {
    const bytes = new Uint8Array(Buffer.from(base64, 'base64'));
    const day = now.toISOString().slice(0, 10);
    const read = await runReader(
      'directory',
      { bytes, day },
      { lane: clientOf(asker), gone, part: (entries) => keepStations(id, entries, now) },
    );
    if (!read.ok) throw new Problem(422, 'unreadable', 'The file cannot be read', read.reason);
    const answer = { id, ...read.value };
    const kept = await database.transaction((transaction) =>
      once<OwnDirectory, OwnDirectory>(
        transaction,
        asker,
        request,
        async () => {
          await transaction
            .update(ownDirectories)
            .set({ state: 'whole', instance: null })
            .where(eq(ownDirectories.id, id));
          // What broke off before is here now.
          await transaction
            .delete(ownDirectories)
            .where(and(eq(ownDirectories.name, name), eq(ownDirectories.state, 'broken off')));
          return { answer, receipt: answer };
        },
        async (receipt) => receipt,
      ),
    );
    if (kept.id !== id) await forget(database, id);
    return kept;
  } catch (error) {
    await forget(database, id).catch(() => {});
    throw error;
  }
}

/** Removes the stations of a directory. */
async function forgetStations(database: Database, id: string): Promise<void> {
  const rows = await database
    .delete(stations)
    .where(eq(stations.source, id))
    .returning({ ref: stations.ref });
  await placesGone(
    id,
    rows.map(({ ref }) => ref),
  );
}

/** Stations first: as long as the directory has its row, the next start removes what a kill left. */
async function forget(database: Database, id: string): Promise<void> {
  await forgetStations(database, id);
  await database.delete(ownDirectories).where(eq(ownDirectories.id, id));
}

/** Removes a directory of one's own with its stations; what was placed of it stays where it is. */
export async function dropOwn(id: string, asker = NOBODY): Promise<{ id: string }> {
  const database = await writing();
  await database.transaction((transaction) =>
    once<void, object>(
      transaction,
      asker,
      { dropDirectory: id },
      async () => {
        const gone = await transaction
          .delete(ownDirectories)
          .where(and(eq(ownDirectories.id, id), ne(ownDirectories.state, 'loading')))
          .returning({ id: ownDirectories.id });
        if (gone.length === 0) throw notFound(`directory ${id.slice(0, 40)} of your own`);
        return { answer: undefined, receipt: {} };
      },
      async () => {},
    ),
  );
  await forgetStations(database, id);
  return { id };
}

/** Marks directories whose import was interrupted, and removes their stations. */
export async function closeBrokenOff(): Promise<void> {
  const database = await writing();
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const broken = await database
    .update(ownDirectories)
    .set({ state: 'broken off', instance: null })
    .where(and(eq(ownDirectories.state, 'loading'), notInArray(ownDirectories.instance, alive)))
    .returning({ id: ownDirectories.id });
  for (const { id } of broken) await forgetStations(database, id);
}

/** Removes stations whose directory of one's own was deleted by a process that was killed before it had deleted them too. */
export async function forgetOrphans(): Promise<void> {
  const database = await writing();
  const rows = await rowsOf<{ source: string }>(
    database,
    sql`select distinct source from stations where source like 'own-%' and source not in (select id from own_directories)`,
  );
  for (const { source } of rows) await forgetStations(database, source);
}
