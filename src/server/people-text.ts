import { and, eq, gt, sql } from 'drizzle-orm';
import { lineOf, type PeopleText } from '../core/people';
import { people, rolls, type Database } from '../db';
import { reading } from './database';

/** All people of the roll in use as one text, in which they are found as one types; made when it is asked for, and kept. */

/** People that are fetched at once, so that others have the database in between. */
const STRETCH = 10_000;

interface Kept {
  roll: number;
  text: Promise<PeopleText>;
}
// One for the process, however often modules are loaded again.
const kept = globalThis as { veridonPeopleText?: Kept };

export function forgetPeopleText(): void {
  delete kept.veridonPeopleText;
}

/** The number of the roll in use; undefined where there is none. */
export async function rollInUse(): Promise<number | undefined> {
  const database = await reading();
  const [row] = await database.select({ id: rolls.id }).from(rolls).where(eq(rolls.state, 'in use'));
  return row?.id;
}

/** The people of the roll in use; undefined where there is none. */
export async function peopleText(): Promise<{ roll: number; text: PeopleText } | undefined> {
  const roll = await rollInUse();
  if (roll === undefined) return undefined;
  if (kept.veridonPeopleText?.roll !== roll) {
    const text = make(await reading(), roll);
    kept.veridonPeopleText = { roll, text };
    text.catch(() => forgetPeopleText());
  }
  return { roll, text: await kept.veridonPeopleText!.text };
}

async function make(database: Database, roll: number): Promise<PeopleText> {
  const parts: string[] = [];
  for (let from = 0; ;) {
    // As one text each: seven columns of a quarter of a million rows take the driver a second.
    const rows = await database
      .select({
        id: people.id,
        words: sql<string>`concat_ws(' ', call, first, last, town, area)`,
      })
      .from(people)
      .where(and(eq(people.roll, roll), gt(people.id, from)))
      .orderBy(people.id)
      .limit(STRETCH);
    if (rows.length === 0) break;
    parts.push(rows.map(({ id, words }) => lineOf(id, words)).join(''));
    from = rows.at(-1)!.id;
  }
  return { text: parts.join('') };
}
