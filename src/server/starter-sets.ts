import { asc, count, eq } from 'drizzle-orm';
import { ownSet, starterSets as setsOf, type StarterSet } from '../core/directory';
import type { ChannelFields } from '../core/plan';
import type { Region } from '../core/radio';
import { starterSets } from '../db';
import { reading, writing } from './database';
import { notFound, Problem } from './problem';

/** Most sets of one's own. */
const MOST = 200;

/** The sets of a region, then one's own in the order in which they were made. */
export async function listSets(region: Region): Promise<StarterSet[]> {
  const database = await reading();
  const own = await database.select().from(starterSets).orderBy(asc(starterSets.at), asc(starterSets.id));
  return [...setsOf(region), ...own.map(({ id, name, channels }) => ownSet(id, name, channels))];
}

/** Keeps a set of one's own. */
export async function keepSet(name: string, channels: ChannelFields[]): Promise<{ id: string }> {
  const database = await writing();
  const [held] = await database.select({ n: count() }).from(starterSets);
  if ((held?.n ?? 0) >= MOST)
    throw new Problem(
      422,
      'too-many',
      'Too many sets',
      `There are ${MOST} sets of your own; take one away before you keep another.`,
    );
  const id = `own-${crypto.randomUUID()}`;
  await database.insert(starterSets).values({ id, name, channels });
  return { id };
}

/** Takes a set of one's own away. */
export async function dropSet(id: string): Promise<{ id: string }> {
  const database = await writing();
  const gone = await database
    .delete(starterSets)
    .where(eq(starterSets.id, id))
    .returning({ id: starterSets.id });
  if (gone.length === 0) throw notFound(`set ${id.slice(0, 60)} of your own`);
  return { id };
}
