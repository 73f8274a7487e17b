import { fail, ok, type Result } from '../result';
import type { Stepwise } from '../stepwise';
import { danglingFault } from './references';
import {
  changedPlaces,
  fieldIn,
  headIn,
  listIn,
  sameIds,
  withList,
  type AnyDocument,
  type AnyRecord,
  type Shape,
} from './shape';
import { foreignParts } from './uses';

type Loose = Record<string, unknown>;

const isLoose = (value: unknown): value is Loose => typeof value === 'object' && value !== null;

/** A document of any format that there was, in the newest; what is no document stays what it is. */
export function migrated(shape: Shape, document: unknown): unknown {
  let now = document;
  while (isLoose(now)) {
    const step = shape.migrations[now.format as number];
    if (!step) return now;
    now = step(now);
  }
  return now;
}

/** Records that are validated in one step. */
const STEP = 50;

/** The document that a value of any format is, or what is wrong with it, in a sentence; in steps, since a large one takes a tenth of a second. */
export function* reading<D extends AnyDocument>(shape: Shape, value: unknown): Stepwise<Result<D>> {
  const { word, kinds, placed } = shape;
  const none = (what: string) => fail(`Its document is no ${word}: ${what}`);
  const noneAt = (path: readonly PropertyKey[]) => {
    const where = path.join('.');
    return none(`${where || 'all of it'} is not what a ${word} holds${where && ' there'}.`);
  };
  const now = migrated(shape, value);
  const whole = isLoose(now) ? now : {};
  // Long lists are validated record by record, and the document without them.
  const long = Object.keys(kinds).filter((kind) => {
    const list = whole[kinds[kind]!.list];
    return Array.isArray(list) && list.length > STEP;
  });
  const rest = Object.fromEntries(long.map((kind) => [kinds[kind]!.list, []]));
  const head = shape.document.safeParse(long.length > 0 ? { ...whole, ...rest } : now);
  if (!head.success) return noneAt(head.error.issues[0]!.path);
  let document = head.data as D;
  for (const kind of long) {
    const { list, limit } = kinds[kind]!;
    const given = whole[list] as unknown[];
    if (given.length > limit) return noneAt([list]);
    const records: AnyRecord[] = [];
    for (const [place, record] of given.entries()) {
      if (place % STEP === 0) yield;
      const read = shape.schemas[kind]!.record.safeParse(record);
      if (!read.success) return noneAt([list, place, ...read.error.issues[0]!.path]);
      records.push(read.data as AnyRecord);
    }
    document = withList(shape, document, kind, records);
  }
  yield;
  const fault = listsFault(shape, document, null);
  if (fault !== null) return none(fault);
  if (!placed) return ok(document);
  yield;
  const ordered = placed.ordered(listIn(shape, document, placed.kind));
  return typeof ordered === 'string' ? none(ordered) : ok(withList(shape, document, placed.kind, ordered));
}

/** What is wrong with the lists of a document beside their records: order, repetition, references. Lists that `before` has are not looked at. */
function listsFault(shape: Shape, document: AnyDocument, before: AnyDocument | null): string | null {
  const kinds = Object.keys(shape.kinds);
  for (const kind of kinds) {
    const { list, limit, words, order } = shape.kinds[kind]!;
    const records = listIn(shape, document, kind);
    if (before && records === listIn(shape, before, kind)) continue;
    if (records.length > limit)
      return `A ${shape.word} holds ${limit} ${words.many} at most, and ${list} has ${records.length}.`;
    if (order === 'own' && new Set(records.map(({ id }) => id)).size !== records.length)
      return `Of the ${words.many} one would be there twice.`;
  }
  // What is used no more may be named anywhere.
  if (!before || fieldIn(before, 'uses') !== fieldIn(document, 'uses')) return danglingFault(shape, document);
  const changed: Record<string, readonly AnyRecord[]> = {};
  for (const kind of kinds) {
    const [was, is] = [listIn(shape, before, kind), listIn(shape, document, kind)];
    if (was === is) continue;
    // Something went: whatever leads to it is to be looked for everywhere.
    if (!sameIds(was, is) && !hasAll(is, was)) return danglingFault(shape, document);
    changed[kind] = (changedPlaces(was, is) ?? newPlaces(was, is)).map((place) => is[place]!);
  }
  // Nothing went: those alone that were changed can lead to nothing.
  return danglingFault(shape, document, changed);
}

/**
 * What is wrong with a document that came of another one, in a sentence; null where it can be saved. Looks only at what is not
 * the very same as before: edits hand on what they leave alone. In steps, since all records of a large one may have changed.
 */
export function* outcomeFault(
  shape: Shape,
  before: AnyDocument,
  after: AnyDocument,
): Stepwise<string | null> {
  const { word, placed } = shape;
  const notOneAnyMore = (issue: { path: PropertyKey[]; message: string }, where: PropertyKey[]) =>
    `The ${word} would not be one any more: ${[...where, ...issue.path].join('.')} ${issue.message}.`;
  const changed = shape.headFields.some((field) => fieldIn(before, field) !== fieldIn(after, field));
  const head = changed ? shape.head.safeParse(headIn(shape, after)) : null;
  if (head && !head.success) return notOneAnyMore(head.error.issues[0]!, []);
  for (const kind of Object.keys(shape.kinds)) {
    const [was, is] = [listIn(shape, before, kind), listIn(shape, after, kind)];
    if (was === is) continue;
    const { limit, words, list } = shape.kinds[kind]!;
    if (is.length > limit)
      return `A ${word} holds ${limit} ${words.many} at most; this would make ${is.length}.`;
    for (const [n, place] of (changedPlaces(was, is) ?? newPlaces(was, is)).entries()) {
      if (n % STEP === STEP - 1) yield;
      const read = shape.schemas[kind]!.record.safeParse(is[place]);
      if (!read.success) return notOneAnyMore(read.error.issues[0]!, [list, place]);
      if (foreignParts(is[place]!.id))
        return `The ${words.one} ${is[place]!.id} belongs to another document and cannot be saved in this one.`;
    }
  }
  yield;
  const fault = listsFault(shape, after, before);
  if (fault !== null || !placed) return fault;
  yield;
  const [was, is] = [listIn(shape, before, placed.kind), listIn(shape, after, placed.kind)];
  if (was === is) return null;
  // The same records at the same places: that none is there twice is known, and the places of those that are others need only be between their neighbours'.
  const places = changedPlaces(was, is);
  if (places) return placed.goUp(places, is) ? null : placed.text;
  const ordered = placed.ordered(is);
  if (typeof ordered === 'string') return ordered;
  return ordered.every((record, index) => record === is[index]) ? null : placed.text;
}

/** True where `is` has every id that `was` has. */
function hasAll(is: readonly AnyRecord[], was: readonly AnyRecord[]): boolean {
  const ids = new Set(is.map(({ id }) => id));
  return was.every(({ id }) => ids.has(id));
}

/** The places of records that were in none of the places before. */
function newPlaces(was: readonly AnyRecord[], is: readonly AnyRecord[]): number[] {
  const known = new Set(was);
  return is.flatMap((record, place) => (known.has(record) ? [] : [place]));
}
