import { asc, eq } from 'drizzle-orm';
import { ownSet, starterSets as setsOf, type StarterSet } from '../core/directory';
import type { ChannelFields } from '../core/plan';
import type { Region } from '../core/radio';
import { starterSets } from '../db';
import { reading, writing } from './database';
import { NOBODY, once } from './once';
import { notFound, Problem } from './problem';

/** Most sets of one's own. */
const MOST = 200;

/** The sets of a region, then one's own in the order in which they were made. */
export async function listSets(region: Region): Promise<StarterSet[]> {
  const database = await reading();
  const own = await database.select().from(starterSets).orderBy(asc(starterSets.at), asc(starterSets.id));
  return [...setsOf(region), ...own.map(({ id, name, channels }) => ownSet(id, name, channels))];
}

/** Saves a set of one's own, once: the set and the key of the request are saved together. */
export async function keepSet(
  name: string,
  channels: ChannelFields[],
  asker = NOBODY,
): Promise<{ id: string }> {
  const database = await writing();
  return database.transaction((transaction) =>
    once<{ id: string }, { id: string }>(
      transaction,
      asker,
      { set: name, channels },
      async () => {
        if ((await transaction.$count(starterSets)) >= MOST)
          throw new Problem(
            422,
            'too-many',
            'Too many sets',
            `There are ${MOST} sets of your own; remove one before you save another.`,
          );
        const id = `own-${crypto.randomUUID()}`;
        await transaction.insert(starterSets).values({ id, name, channels });
        return { answer: { id }, receipt: { id } };
      },
      async (receipt) => receipt,
    ),
  );
}

/** Deletes a set of one's own. */
export async function dropSet(id: string, asker = NOBODY): Promise<{ id: string }> {
  const database = await writing();
  return database.transaction((transaction) =>
    once<{ id: string }, { id: string }>(
      transaction,
      asker,
      { dropSet: id },
      async () => {
        const gone = await transaction
          .delete(starterSets)
          .where(eq(starterSets.id, id))
          .returning({ id: starterSets.id });
        if (gone.length === 0) throw notFound(`set ${id.slice(0, 60)} of your own`);
        return { answer: { id }, receipt: { id } };
      },
      async (receipt) => receipt,
    ),
  );
}
