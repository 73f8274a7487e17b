import { asc, count, eq } from 'drizzle-orm';
import { entryOf } from '../core/directory';
import { channelsIn, readFile } from '../core/interchange';
import { USUAL_REGION } from '../core/radio';
import { makeId } from '../core/plan';
import { ownDirectories, stations } from '../db';
import { reading, writing } from './database';
import { notFound, Problem } from './problem';
import { placesGone } from './station-places';
import { keepStations } from './stations';

/** Most files that are directories of one's own. */
const MOST = 50;

/** What became of a file: how many stations are kept, and the rows of which none came. */
export interface OwnDirectory {
  id: string;
  kept: number;
  /** Rows whose station has no place: it cannot be searched. */
  placeless: number;
  refused: { line: number; text: string; reason: string }[];
}

/** The directories of one's own, by their names. */
export async function listOwn(): Promise<{ id: string; name: string }[]> {
  const database = await reading();
  return database
    .select({ id: ownDirectories.id, name: ownDirectories.name })
    .from(ownDirectories)
    .orderBy(asc(ownDirectories.name), asc(ownDirectories.id));
}

/** Takes a file as a directory of one's own: its stations are kept, and searched as those of any other. */
export async function keepOwn(name: string, base64: string, now = new Date()): Promise<OwnDirectory> {
  const read = await readFile(new Uint8Array(Buffer.from(base64, 'base64')));
  if (!read.ok) throw new Problem(422, 'unreadable', 'The file cannot be read', read.reason);
  const made = channelsIn(read.value, { region: USUAL_REGION }, () =>
    makeId('ch', crypto.getRandomValues(new Uint8Array(12))),
  );
  const day = now.toISOString().slice(0, 10);
  const entries = made.channels.flatMap((channel, n) => entryOf(channel, `row ${n + 1}`, day) ?? []);
  if (entries.length === 0)
    throw new Problem(
      422,
      'unreadable',
      'No station with a place',
      made.refused[0] && made.channels.length === 0
        ? `No channel came of it. Line ${made.refused[0].line}: ${made.refused[0].reason}`
        : 'A directory is searched by place, and this file says of no station where it is. It wants latitude and longitude, or a locator.',
    );
  const database = await writing();
  const [held] = await database.select({ n: count() }).from(ownDirectories);
  if ((held?.n ?? 0) >= MOST)
    throw new Problem(
      422,
      'too-many',
      'Too many directories',
      `There are ${MOST} directories of your own; take one away before you open another.`,
    );
  const id = `own-${crypto.randomUUID().slice(0, 13)}`;
  await database.insert(ownDirectories).values({ id, name });
  await keepStations(id, entries, now);
  return {
    id,
    kept: entries.length,
    placeless: made.channels.length - entries.length,
    refused: made.refused.slice(0, 200),
  };
}

/** Takes a directory of one's own away, with its stations; what was placed of it stays where it is. */
export async function dropOwn(id: string): Promise<{ id: string }> {
  const database = await writing();
  const gone = await database
    .delete(ownDirectories)
    .where(eq(ownDirectories.id, id))
    .returning({ id: ownDirectories.id });
  if (gone.length === 0) throw notFound(`directory ${id.slice(0, 40)} of your own`);
  const rows = await database
    .delete(stations)
    .where(eq(stations.source, id))
    .returning({ ref: stations.ref });
  await placesGone(
    id,
    rows.map(({ ref }) => ref),
  );
  return { id };
}
