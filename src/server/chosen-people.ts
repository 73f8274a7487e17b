import { and, eq, gt } from 'drizzle-orm';
import type { PeopleChoice } from '../core/bench';
import { encodePeople, peopleMemoryOf, type ShownName } from '../core/image';
import type { Model } from '../core/models';
import { nameOnRadio, peopleNameRules } from '../core/people/choose';
import type { Person } from '../core/people';
import { abbreviationsOf, type Plan } from '../core/plan';
import { people as peopleTable } from '../db';
import { reading } from './database';
import { rankedNumbers } from './heard-board';
import { listed } from './people';
import { rollInUse } from './people-text';
import { Problem } from './problem';

/** Everybody who is chosen for the memory that a radio has for people, as its bytes. */

/** People that are fetched and named at once: others have the database and this thread in between. */
const STRETCH = 2500;

export interface PeopleForRadio {
  bytes: Uint8Array;
  people: number;
  /** Found no room. */
  over: number;
}

/** Gathers people by a choice, each with the name that the radio shows; `told` hears how many there are. */
export async function peopleForRadio(
  choice: PeopleChoice,
  plan: Plan,
  model: Model,
  signal: AbortSignal,
  told: (people: number) => void,
): Promise<PeopleForRadio> {
  const room = peopleMemoryOf(model)!.count;
  const rules = peopleNameRules(model);
  const abbreviations = abbreviationsOf(plan);
  const shown: ShownName[] = [];
  let over = 0;
  const take = (persons: readonly Person[]) => {
    for (const person of persons) {
      if (shown.length >= room) {
        over++;
        continue;
      }
      const name = nameOnRadio(person, choice.template, rules, abbreviations);
      if (!name.ok) throw new Problem(422, 'name-template', 'This is no template', name.reason);
      shown.push({ id: person.id, name: name.value });
    }
    told(shown.length);
    signal.throwIfAborted();
  };
  const roll = await rollInUse();
  const { heard, rest, ...query } = choice;
  const ranked = heard === 0 ? [] : (await rankedNumbers(query)).ranked.slice(0, heard).map(({ id }) => id);
  for (let from = 0; from < ranked.length; from += STRETCH) {
    const ids = ranked.slice(from, from + STRETCH);
    const known = new Map((await listed(roll, ids)).map((person) => [person.id, person]));
    take(ids.map((id) => known.get(id) ?? { id, ...{ call: '', first: '', last: '', town: '', area: '' } }));
  }
  if (rest && roll !== undefined) {
    const database = await reading();
    const there = new Set(ranked);
    for (let after = 0; ;) {
      const rows = await database
        .select()
        .from(peopleTable)
        .where(and(eq(peopleTable.roll, roll), gt(peopleTable.id, after)))
        .orderBy(peopleTable.id)
        .limit(STRETCH);
      if (rows.length === 0) break;
      take(rows.filter(({ id }) => !there.has(id)));
      after = rows.at(-1)!.id;
    }
  }
  if (shown.length === 0)
    throw new Problem(
      422,
      'nobody-chosen',
      'Nobody is chosen',
      'Nobody is chosen: load a roll, or the Heard Board, and choose who goes into the radio.',
    );
  return { bytes: encodePeople(shown, model), people: shown.length, over };
}
