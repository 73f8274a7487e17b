import { fail, ok, type Result } from '../result';
import { cutText, keepableText } from '../text';
import { rowSplitter } from './row-splitter';
import { LAST_PERSON_ID, PERSON_LIMITS, type OddRow, type OddRows, type Person } from './person.schema';

/** Odd rows that are told one by one; of the rest their number. */
const TOLD = 50;
/** Longest text of a field that is looked at, characters; what is longer is cut anyhow. */
const LONGEST_TEXT = 4_000;
/** Longest row, bytes: what goes on for longer is no roll, and would fill the memory. */
const LONGEST_ROW = 1_000_000;
/** Most people of a roll. */
export const MOST_PEOPLE = 2_000_000;

/** Reads a roll as it comes. */
export interface RollReader {
  /** Takes the next bytes; gives the people in them. Fails where it is no roll. */
  take: (bytes: Uint8Array) => Result<Person[]>;
  /** The end of the file; fails where it is not the end of a roll. */
  end: () => Result<{ made: string; people: number; odd: OddRows }>;
}

/** Signs that no display and no list has: controls, and what cannot be kept. */
// eslint-disable-next-line no-control-regex -- it is these that are meant
const CONTROLS = /[\u0000-\u001f\u007f-\u009f]+/g;
/** What is not as it is to be: most texts are. */
const ODD = /[^ -~]|^ | $| {2}/;
const clean = (text: string) =>
  ODD.test(text) ? keepableText(text).replace(CONTROLS, ' ').replace(/\s+/g, ' ').trim() : text;

/** A bit for each number that there is. */
class Numbers {
  private readonly bits = new Uint8Array((LAST_PERSON_ID >> 3) + 1);
  /** True where it was not there before. */
  add(id: number): boolean {
    const [at, bit] = [id >> 3, 1 << (id & 7)];
    if ((this.bits[at]! & bit) !== 0) return false;
    this.bits[at]! |= bit;
    return true;
  }
}

/** A row as a person, or why there is none in it; `cut` names what was longer than it may be. */
function personIn(row: unknown): { person: Person; cut: string[] } | string {
  if (typeof row !== 'object' || row === null || Array.isArray(row)) return 'It is no row of a roll.';
  const said = row as Record<string, unknown>;
  const { id } = said;
  if (typeof id !== 'number' || !Number.isInteger(id))
    return `Its number is ${id === undefined ? 'missing' : 'no whole number'}.`;
  if (id < 1 || id > LAST_PERSON_ID)
    return `${id} is no number of a person: they run from 1 to ${LAST_PERSON_ID}.`;
  const cut: string[] = [];
  const field = (name: 'call' | 'first' | 'last' | 'town' | 'island', most: number) => {
    const value = said[name];
    if (value === undefined || value === null) return '';
    if (typeof value !== 'string') return '';
    const text = clean(value.length > LONGEST_TEXT ? value.slice(0, LONGEST_TEXT) : value);
    const short = cutText(text, most);
    if (short !== text) cut.push(name);
    return short;
  };
  const call = field('call', PERSON_LIMITS.call).toUpperCase();
  const [first, last] = [field('first', PERSON_LIMITS.name), field('last', PERSON_LIMITS.name)];
  const [town, area] = [field('town', PERSON_LIMITS.place), field('island', PERSON_LIMITS.place)];
  if (call === '' && first === '' && last === '') return `${id} has neither a call sign nor a name.`;
  return { person: { id, call, first, last, town, area }, cut };
}

/** Gathers people row by row: what says nobody is told and counted, and of a number that comes twice the first row is taken. */
export function gatherer() {
  const seen = new Numbers();
  const odd: { count: number; first: OddRow[] } = { count: 0, first: [] };
  let [rows, people] = [0, 0];
  let found: Person[] = [];
  const strange = (reason: string) => {
    odd.count++;
    if (odd.first.length < TOLD) odd.first.push({ row: rows, reason });
  };
  return {
    /** How many rows there were so far. */
    rows: () => rows,
    row(value: unknown): void {
      rows++;
      const read = personIn(value);
      if (typeof read === 'string') return strange(read);
      const { person, cut } = read;
      if (!seen.add(person.id)) return strange(`${person.id} stands there twice; its first row was taken.`);
      if (people >= MOST_PEOPLE) return strange(`There are more than ${MOST_PEOPLE} people.`);
      if (cut.length > 0) strange(`${person.id}: ${cut.join(' and ')} cut, it was too long.`);
      people++;
      found.push(person);
    },
    /** Those who were found since it was last asked. */
    batch(): Person[] {
      const some = found;
      found = [];
      return some;
    },
    end(made: string): Result<{ made: string; people: number; odd: OddRows }> {
      if (people > 0) return ok({ made, people, odd });
      return fail(
        rows === 0
          ? 'There is nobody in what came: it is no Ident Roll, or an empty one.'
          : `None of the ${rows} rows of this roll is a person. The first: ${odd.first[0]!.reason}`,
      );
    },
  };
}

/**
 * Reads the Ident Roll, a JSON file of hundreds of thousands of people, as it comes: no more of it is held than what came last. A row that
 * says nobody is left out and told; a number that comes twice keeps its first row. What ends in the middle is no roll.
 */
export function rollReader(): RollReader {
  const people = gatherer();
  const rows = rowSplitter('people');
  let fault: string | null = null;
  let any = false;
  const brokenOff = () =>
    people.rows() === 0
      ? 'What came is no Ident Roll: it is no JSON.'
      : `It breaks off after row ${people.rows()}: what follows is no JSON.`;
  return {
    take(bytes) {
      any ||= bytes.length > 0;
      const found = rows.take(bytes);
      for (const row of found ?? rows.good()) people.row(row);
      if (!found) fault ??= brokenOff();
      if (rows.waiting() > LONGEST_ROW)
        fault ??= `Row ${people.rows() + 1} goes on for more than ${LONGEST_ROW / 1e6} MB: this is no Ident Roll.`;
      return fault === null ? ok(people.batch()) : fail(fault);
    },
    end() {
      if (fault !== null) return fail(fault);
      const head = rows.end();
      if (!head) {
        if (!any) return fail('Nothing came of the roll.');
        if (rows.spoilt()) return fail(brokenOff());
        return fail(
          people.rows() === 0 ? 'Nothing came of the roll.' : `It was cut off after row ${people.rows()}.`,
        );
      }
      const { made } = head;
      return people.end(typeof made === 'string' ? clean(made).slice(0, 40) : '');
    },
  };
}
