import type { Model } from '../models';
import {
  abbreviationsOf,
  fitName,
  nameTemplate,
  type Abbreviations,
  type NameRules,
  TALKGROUP_NAME_LIMIT,
  type Edit,
  type Plan,
  type PlainEdit,
  type Talkgroup,
  type TalkgroupId,
} from '../plan';
import { rememberedByText } from '../remember';
import { fail, ok, type Result } from '../result';
import { cutText } from '../text';
import type { Person } from './person.schema';

/** People chosen for a radio that holds them among its talkgroups. */

/** The fields that a display name knows of a person. */
const FIELDS = ['call', 'first', 'last', 'town', 'area', 'name', 'id'] as const;
const fieldOf = (person: Person, field: (typeof FIELDS)[number]): string =>
  field === 'name'
    ? `${person.first} ${person.last}`.trim()
    : field === 'id'
      ? String(person.id)
      : person[field];
/** A template is read once for a quarter of a million people. */
const templateOf = rememberedByText((template) => nameTemplate(template, FIELDS));

/** The name of a person by a template: with the call sign, or else the number, where nothing comes of it. */
export function displayName(person: Person, template: string): Result<string> {
  const fill = templateOf(template);
  if (!fill.ok) return fill;
  const name = fill.value((field) => fieldOf(person, field));
  return ok(cutText(name, TALKGROUP_NAME_LIMIT).trim() || person.call || String(person.id));
}

/** Room for people on a radio that holds them among its talkgroups: its limit, less talkgroups, less what is kept free. */
export function roomForPeople(plan: Plan, model: Model, reserve: number): number {
  const { digital } = model;
  if (!digital) return 0;
  if (digital.people.where === 'apart') return digital.people.count;
  const others = plan.talkgroups.filter(({ call }) => call !== 'private').length;
  return Math.max(0, digital.talkgroups.count - others - reserve);
}

/** How a name comes out on the radio, and what it lost. */
export interface ShownPerson {
  id: number;
  wanted: string;
  shown: string;
}

/** What the names of people may be on a model. */
export const peopleNameRules = ({ digital, names }: Model): NameRules => ({
  length: digital?.people.where === 'apart' ? digital.people.name : (digital?.talkgroups.name ?? 16),
  characters: names.characters,
});

/** A name as a radio shows it; the number, where nothing of a name is left in its characters. */
export function nameOnRadio(
  person: Person,
  template: string,
  rules: NameRules,
  abbreviations: Abbreviations,
): Result<string> {
  const name = displayName(person, template);
  if (!name.ok) return name;
  const text =
    fitName(name.value, rules, abbreviations).text || fitName(person.call, rules, abbreviations).text;
  return ok(text || String(person.id));
}

/** Names as the radio shows them, those that lose most first: what is worth looking at before it is done. */
export function worstNames(
  people: readonly Person[],
  template: string,
  plan: Plan,
  model: Model,
  most: number,
): ShownPerson[] {
  const rules = peopleNameRules(model);
  return people
    .flatMap((person): ShownPerson[] => {
      const name = displayName(person, template);
      if (!name.ok) return [];
      return [
        { id: person.id, wanted: name.value, shown: fitName(name.value, rules, abbreviationsOf(plan)).text },
      ];
    })
    .filter(({ wanted, shown }) => wanted !== shown)
    .sort((a, b) => b.wanted.length - b.shown.length - (a.wanted.length - a.shown.length) || a.id - b.id)
    .slice(0, most);
}

/** What choosing people comes to. */
export interface PeopleChosen {
  /** null where the plan has just these already. */
  edit: Edit | null;
  added: number;
  renamed: number;
  removed: number;
  /** Found no room. */
  over: number;
}

/**
 * Makes some people the contacts of a plan, in their order, each with a name by a template: number and name are one row. Those who were
 * there and are not chosen go, but for whom a channel or receive list names. No more are taken than `room`.
 */
export function choosePeople(
  plan: Plan,
  people: readonly Person[],
  template: string,
  { room, makeId }: { room: number; makeId: () => TalkgroupId },
): Result<PeopleChosen> {
  const named = new Set<string>([
    ...plan.channels.flatMap(({ talkgroup }) => talkgroup ?? []),
    ...plan.leftOver.flatMap(({ talkgroup }) => talkgroup ?? []),
    ...plan.receiveLists.flatMap(({ members }) => members),
  ]);
  const before = new Map<number, Talkgroup>();
  for (const contact of plan.talkgroups)
    if (contact.call === 'private' && !before.has(contact.number)) before.set(contact.number, contact);
  const wanted = new Set(people.map(({ id }) => id));
  // Who is named stays, and takes room.
  const staying = [...before.values()].filter(
    ({ id, number }) => named.has(id) && !wanted.has(number),
  ).length;
  const taken = [...new Map(people.map((person) => [person.id, person])).values()].slice(
    0,
    Math.max(0, room - staying),
  );
  const chosen = new Set(taken.map(({ id }) => id));
  const put: Talkgroup[] = [];
  const changes: { id: TalkgroupId; set: { name: string } }[] = [];
  for (const person of taken) {
    const name = displayName(person, template);
    if (!name.ok) return name;
    const known = before.get(person.id);
    if (!known) put.push({ id: makeId(), name: name.value, number: person.id, call: 'private' });
    else if (known.name !== name.value) changes.push({ id: known.id, set: { name: name.value } });
  }
  const gone = plan.talkgroups
    .filter(
      ({ id, call, number }) =>
        call === 'private' && !named.has(id) && (!chosen.has(number) || before.get(number)?.id !== id),
    )
    .map(({ id }) => id);
  const edits: PlainEdit[] = [];
  if (gone.length > 0) edits.push({ name: 'remove', kind: 'talkgroup', ids: gone });
  if (changes.length > 0) edits.push({ name: 'change', kind: 'talkgroup', changes });
  if (put.length > 0) edits.push({ name: 'put', kind: 'talkgroup', records: put, before: null });
  if (people.length > 0 && taken.length === 0)
    return fail('There is no room for anybody: talkgroups and the reserve take it all.');
  const counts = {
    added: put.length,
    renamed: changes.length,
    removed: gone.length,
    over: wanted.size - taken.length,
  };
  if (edits.length === 0) return ok({ edit: null, ...counts });
  return ok({
    edit: {
      name: 'together',
      label: `Choose ${taken.length === 1 ? '1 person' : `${taken.length} people`}`,
      edits,
    },
    ...counts,
  });
}
