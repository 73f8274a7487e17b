import Papa from 'papaparse';
import { decodeText, delimiterOf } from '../interchange';
import { isArchive, readSpreadsheet } from '../interchange/spreadsheet';
import { fail, ok, type Result } from '../result';
import type { OddRows, Person } from './person.schema';
import { gatherer } from './read-roll';

/** People of files of other shapes than the Ident Roll: CSV in any dialect, XLSX, JSON with a list of people somewhere in it. */

/** What a column or a member is, by the words that files have for it; as they are compared: small letters and figures alone. */
const WORDS: Readonly<
  Record<'id' | 'call' | 'first' | 'last' | 'name' | 'town' | 'island', readonly string[]>
> = {
  id: ['id', 'number', 'radioid', 'dmrid', 'userid', 'ident', 'no'],
  call: ['call', 'callsign', 'sign'],
  first: ['first', 'firstname', 'forename', 'givenname'],
  last: ['last', 'lastname', 'surname', 'familyname'],
  name: ['name', 'fullname', 'operator'],
  town: ['town', 'city', 'place', 'location'],
  island: ['island', 'area', 'region', 'state', 'country', 'county'],
};
type Field = keyof typeof WORDS;

const bare = (text: string) => text.toLowerCase().replaceAll(/[^a-z0-9]/g, '');

/** Which field each heading is; the first that is one is it. */
function fieldsIn(headings: readonly string[]): (Field | undefined)[] {
  const taken = new Set<Field>();
  return headings.map((heading) => {
    const field = (Object.keys(WORDS) as Field[]).find((one) => WORDS[one].includes(bare(heading)));
    if (field === undefined || taken.has(field)) return undefined;
    taken.add(field);
    return field;
  });
}

/** A row of the file as a row of a roll: figures as a number, one name as first and last. */
function asRow(cells: Partial<Record<Field, unknown>>): unknown {
  const { id, name, first, last, ...rest } = cells;
  const text = typeof id === 'string' ? id.trim() : id;
  const whole = typeof name === 'string' ? name.trim() : '';
  const gap = whole.indexOf(' ');
  return {
    ...rest,
    id: typeof text === 'string' && /^\d{1,8}$/.test(text) ? Number(text) : text === '' ? undefined : text,
    first: first ?? (gap < 0 ? whole : whole.slice(0, gap)),
    last: last ?? (gap < 0 ? '' : whole.slice(gap + 1)),
  };
}

/** The list of people in a JSON document: the longest list of objects, at most three levels down. */
function listIn(document: unknown, depth = 0): readonly object[] | null {
  if (Array.isArray(document))
    return document.some((one) => typeof one === 'object' && one !== null && !Array.isArray(one))
      ? document
      : null;
  if (typeof document !== 'object' || document === null || depth > 2) return null;
  return Object.values(document)
    .map((one) => listIn(one, depth + 1))
    .reduce((best, one) => ((one?.length ?? 0) > (best?.length ?? 0) ? one : best), null);
}

/** What came of a file. */
export interface FilePeople {
  people: Person[];
  odd: OddRows;
}

/** Reads people from a file by what is in it. Fails with what is wrong with it; rows that are nobody are told and counted. */
export async function peopleOfFile(bytes: Uint8Array): Promise<Result<FilePeople>> {
  if (isArchive(bytes)) {
    const sheet = readSpreadsheet(bytes);
    return sheet.ok ? ofCells(sheet.value) : sheet;
  }
  const decoded = decodeText(bytes);
  if (!decoded.ok) return decoded;
  const { text } = decoded.value;
  if (/^\s*[[{]/.test(text)) return ofJson(text);
  const { data } = Papa.parse<string[]>(text, { delimiter: delimiterOf(text), skipEmptyLines: 'greedy' });
  return ofCells(data);
}

function ofJson(text: string): Result<FilePeople> {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    return fail('The file begins as JSON and does not end so: it is damaged or cut off.');
  }
  const list = listIn(document);
  if (!list) return fail('There is no list of people in this JSON.');
  const people = gatherer();
  for (const one of list) {
    const cells: Partial<Record<Field, unknown>> = {};
    for (const [at, field] of fieldsIn(Object.keys(one ?? {})).entries())
      if (field) cells[field] = Object.values(one)[at];
    people.row(typeof one === 'object' && one !== null ? asRow(cells) : one);
  }
  return ended(people);
}

function ofCells(rows: readonly (readonly string[])[]): Result<FilePeople> {
  const [headings, ...rest] = rows;
  const fields = fieldsIn(headings ?? []);
  if (!fields.includes('id'))
    return fail(
      'No column is a number of people: its first row has to say which is which, such as “id, call, name, town”.',
    );
  const people = gatherer();
  for (const row of rest) {
    const cells: Partial<Record<Field, unknown>> = {};
    for (const [at, field] of fields.entries()) if (field) cells[field] = row[at];
    people.row(asRow(cells));
  }
  return ended(people);
}

function ended(gathered: ReturnType<typeof gatherer>): Result<FilePeople> {
  const end = gathered.end('');
  return end.ok ? ok({ people: gathered.batch(), odd: end.value.odd }) : end;
}
