import { fail, ok, type Result } from '../result';
import type { Channel } from './channel.schema';
import { atOnce, type Stepwise } from '../stepwise';
import { KIND_NAMES, KINDS, recordsOf, withRecords, type Kind } from './kinds';
import { SCHEMAS, type AnyRecord } from './kinds.schema';
import { danglingFault } from './references';
import { HEAD_FIELDS, headOf, bySlot, orderedChannels, sameIds, changedPlaces } from './plan';
import { headSchema, planSchema, type Plan } from './plan.schema';

type Document = Record<string, unknown>;

/** By the format that a document has: what brings it to the next one. What they do not understand they hand on as it is. */
const MIGRATIONS: Readonly<Record<number, (document: Document) => Document>> = {
  // One list of slots and channels alone; a channel without a list is in the first, by its schema.
  1: (document) => ({ ...document, format: 2, zones: [] }),
  // Nothing of radios with sides, and no settings.
  2: (document) => ({
    ...document,
    format: 3,
    settings: {},
    origin: null,
    skipSets: [],
    scanEdges: [],
    setUps: [],
  }),
};

/** A document of any format that there was, in the newest; what is no document stays what it is. */
export function migrateDocument(document: unknown): unknown {
  let now = document;
  while (typeof now === 'object' && now !== null) {
    const step = MIGRATIONS[(now as Document).format as number];
    if (!step) return now;
    now = step(now as Document);
  }
  return now;
}

/** Records that are validated in one step. */
const STEP = 50;

const noPlan = (what: string) => fail(`Its document is no plan: ${what}`);

const noPlanAt = (path: readonly PropertyKey[]) => {
  const where = path.join('.');
  return noPlan(`${where || 'all of it'} is not what a plan holds${where && ' there'}.`);
};

/** The plan that a document of any format is, or what is wrong with it, in a sentence; in steps, since a large one takes a tenth of a second. */
export function* readingDocument(document: unknown): Stepwise<Result<Plan>> {
  const migrated = migrateDocument(document);
  const whole = typeof migrated === 'object' && migrated !== null ? (migrated as Document) : {};
  // Long lists are validated record by record, and the document without them.
  const long = KIND_NAMES.filter((kind) => {
    const list = whole[KINDS[kind].list];
    return Array.isArray(list) && list.length > STEP;
  });
  const rest = Object.fromEntries(long.map((kind) => [KINDS[kind].list, []]));
  const head = planSchema.safeParse(long.length > 0 ? { ...whole, ...rest } : migrated);
  if (!head.success) return noPlanAt(head.error.issues[0]!.path);
  let plan: Plan = head.data;
  for (const kind of long) {
    const { list, limit } = KINDS[kind];
    const given = whole[list] as unknown[];
    if (given.length > limit) return noPlanAt([list]);
    const records: AnyRecord[] = [];
    for (const [place, record] of given.entries()) {
      if (place % STEP === 0) yield;
      const read = SCHEMAS[kind].record.safeParse(record);
      if (!read.success) return noPlanAt([list, place, ...read.error.issues[0]!.path]);
      records.push(read.data);
    }
    plan = withRecords(plan, kind, records);
  }
  yield;
  const fault = listsFault(plan, null);
  if (fault !== null) return noPlan(fault);
  yield;
  const ordered = orderedChannels(plan.channels);
  return typeof ordered === 'string' ? noPlan(ordered) : ok({ ...plan, channels: ordered });
}

/** The same at once. */
export const readDocument = (document: unknown): Result<Plan> => atOnce(readingDocument(document));

/** What is wrong with the lists of a plan beside their records: order, repetition, references. Lists that `before` has are not looked at. */
function listsFault(plan: Plan, before: Plan | null): string | null {
  for (const kind of KIND_NAMES) {
    const { list, limit, words, order } = KINDS[kind];
    const records = recordsOf(plan, kind) as readonly AnyRecord[];
    if (before && records === recordsOf(before, kind)) continue;
    if (records.length > limit)
      return `A plan holds ${limit} ${words.many} at most, and ${list} has ${records.length}.`;
    if (order === 'own' && new Set(records.map(({ id }) => id)).size !== records.length)
      return `Of the ${words.many} one would be there twice.`;
  }
  if (!before) return danglingFault(plan);
  const changed: { [K in Kind]?: readonly AnyRecord[] } = {};
  for (const kind of KIND_NAMES) {
    const [was, is] = [recordsOf(before, kind), recordsOf(plan, kind)] as [
      readonly AnyRecord[],
      readonly AnyRecord[],
    ];
    if (was === is) continue;
    // Something went: whatever leads to it is to be looked for everywhere.
    if (!sameIds(was, is) && !holdsAll(is, was)) return danglingFault(plan);
    changed[kind] = (changedPlaces(was, is) ?? newPlaces(was, is)).map((place) => is[place]!);
  }
  // Nothing went: those alone that were changed can lead to nothing.
  return danglingFault(plan, changed);
}

/**
 * What is wrong with a plan that came of another one, in a sentence; null where it can be saved. Looks only at what is not
 * the very same as before: edits hand on what they leave alone. In steps, since all channels of a large plan may have changed.
 */
export function* outcomeFaultInSteps(before: Plan, after: Plan): Stepwise<string | null> {
  const changed = HEAD_FIELDS.some((field) => before[field] !== after[field]);
  const head = changed ? headSchema.safeParse(headOf(after)) : null;
  if (head && !head.success) return notOneAnyMore(head.error.issues[0]!, []);
  for (const kind of KIND_NAMES) {
    if (recordsOf(before, kind) === recordsOf(after, kind)) continue;
    const { limit, words } = KINDS[kind];
    if (recordsOf(after, kind).length > limit)
      return `A plan holds ${limit} ${words.many} at most; this would make ${recordsOf(after, kind).length}.`;
    const [was, is] = [recordsOf(before, kind), recordsOf(after, kind)] as readonly (readonly AnyRecord[])[];
    for (const [n, place] of (changedPlaces(was!, is!) ?? newPlaces(was!, is!)).entries()) {
      if (n % STEP === STEP - 1) yield;
      const read = SCHEMAS[kind].record.safeParse(is![place]);
      if (!read.success) return notOneAnyMore(read.error.issues[0]!, [KINDS[kind].list, place]);
    }
  }
  yield;
  const fault = listsFault(after, before);
  if (fault !== null) return fault;
  yield;
  if (after.channels === before.channels) return null;
  // The same channels at the same places: that none is there twice is known, and the slots of those that are others need only stand between their neighbours'.
  const places = changedPlaces(before.channels, after.channels);
  if (places) return slotsGoUp(places, after.channels) ? null : 'The channels would not be in slot order.';
  const ordered = orderedChannels(after.channels);
  if (typeof ordered === 'string') return ordered;
  return ordered.every((channel, index) => channel === after.channels[index])
    ? null
    : 'The channels would not be in slot order.';
}

/** The same at once. */
export const outcomeFault = (before: Plan, after: Plan): string | null =>
  atOnce(outcomeFaultInSteps(before, after));

/** True where `is` has every id that `was` has. */
function holdsAll(is: readonly AnyRecord[], was: readonly AnyRecord[]): boolean {
  const ids = new Set<string>(is.map(({ id }) => id));
  return was.every(({ id }) => ids.has(id));
}

/** The places of records that were in none of the places before. */
function newPlaces(was: readonly AnyRecord[], is: readonly AnyRecord[]): number[] {
  const known = new Set(was);
  return is.flatMap((record, place) => (known.has(record) ? [] : [place]));
}

const slotsGoUp = (places: readonly number[], channels: readonly Channel[]): boolean =>
  places.every((at) => {
    const [previous, own, next] = [channels[at - 1], channels[at]!, channels[at + 1]];
    return !(previous && bySlot(previous, own) >= 0) && !(next && bySlot(own, next) >= 0);
  });

const notOneAnyMore = (issue: { path: PropertyKey[]; message: string }, where: PropertyKey[]) =>
  `The plan would not be one any more: ${[...where, ...issue.path].join('.')} ${issue.message}.`;
