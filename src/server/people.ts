import { and, desc, eq, inArray } from 'drizzle-orm';
import { findPeople, type ListedPerson, type PersonMark, type Roll } from '../core/people';
import { people, personMarks, rolls } from '../db';
import { reading, writing } from './database';
import { peopleText, rollInUse } from './people-text';
import { notFound } from './problem';

/** People: who is in the roll in use, found and listed, with what one says of them oneself. */

/** The roll in use; null where there is none. */
export async function rollNow(): Promise<Roll | null> {
  const database = await reading();
  const [row] = await database.select().from(rolls).where(eq(rolls.state, 'in use')).orderBy(desc(rolls.id));
  if (!row) return null;
  // Who asks for it looks for somebody next.
  void peopleText().catch(() => {});
  const { source, made, at, people: count, odd, news } = row;
  return { source, made, at: at.toISOString(), people: count, odd: odd ?? { count: 0, first: [] }, news };
}

/** The rows of some numbers, in their order, with what is said of them. */
export async function listed(roll: number | undefined, ids: readonly number[]): Promise<ListedPerson[]> {
  if (ids.length === 0) return [];
  const database = await reading();
  const rows =
    roll === undefined
      ? []
      : await database
          .select()
          .from(people)
          .where(and(eq(people.roll, roll), inArray(people.id, [...ids])));
  const marks = await database
    .select()
    .from(personMarks)
    .where(inArray(personMarks.id, [...ids]));
  const [byId, marked] = [rows, marks].map((all) => new Map(all.map((one) => [one.id, one]))) as [
    Map<number, (typeof rows)[number]>,
    Map<number, (typeof marks)[number]>,
  ];
  return ids.flatMap((id): ListedPerson[] => {
    const [row, said] = [byId.get(id), marked.get(id)];
    const mark = said ? { pinned: said.pinned, note: said.note } : null;
    if (row) {
      const { roll: _, ...person } = row;
      return [{ ...person, mark, known: true }];
    }
    return said
      ? [{ id, call: said.call, first: said.name, last: '', town: '', area: '', mark, known: false }]
      : [];
  });
}

/** People whom some words mean, by number. */
export async function searchPeople(question: string, most: number) {
  const all = await peopleText();
  if (!all) return { people: [], more: false };
  const { ids, more } = findPeople(all.text, question, most);
  return { people: await listed(all.roll, ids), more };
}

/** A stretch of all people by number: from which place on, how many; and how many there are in all. */
export async function listPeople(from: number, count: number) {
  const database = await reading();
  const [inUse] = await database
    .select({ roll: rolls.id, of: rolls.people })
    .from(rolls)
    .where(eq(rolls.state, 'in use'));
  if (!inUse) return { people: [], of: 0 };
  const rows = await database
    .select({ id: people.id })
    .from(people)
    .where(eq(people.roll, inUse.roll))
    .orderBy(people.id)
    .offset(from)
    .limit(count);
  return {
    people: await listed(
      inUse.roll,
      rows.map(({ id }) => id),
    ),
    of: inUse.of,
  };
}

/** Everybody of whom something is said, pinned first, then by number. */
export async function markedPeople(): Promise<ListedPerson[]> {
  const database = await reading();
  const marks = await database
    .select({ id: personMarks.id })
    .from(personMarks)
    .orderBy(desc(personMarks.pinned), personMarks.id);
  return listed(
    await rollInUse(),
    marks.map(({ id }) => id),
  );
}

/** Says something of a person, or nothing any more. It stays, whatever later rolls say. */
export async function markPerson(id: number, { pinned, note }: PersonMark): Promise<ListedPerson> {
  const database = await writing();
  const roll = await rollInUse();
  const [before] = await listed(roll, [id]);
  if (!before) throw notFound(`person with the number ${id}`);
  if (!pinned && note === '') await database.delete(personMarks).where(eq(personMarks.id, id));
  else {
    const name = before.known ? `${before.first} ${before.last}`.trim() : before.first;
    const set = { pinned, note, call: before.call, name };
    await database
      .insert(personMarks)
      .values({ id, ...set })
      .onConflictDoUpdate({ target: personMarks.id, set });
  }
  const [now] = await listed(roll, [id]);
  // Of somebody whom no roll knows nothing is left with the mark.
  return now ?? { ...before, mark: null };
}
