import { fail, ok, type Result } from '../result';
import type { Channel } from './channel.schema';
import { KIND_NAMES, KINDS, recordsOf, type Kind } from './kinds';
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

/** The plan that a document of any format is, or what is wrong with it, in a sentence. */
export function readDocument(document: unknown): Result<Plan> {
  const read = planSchema.safeParse(migrateDocument(document));
  if (!read.success) {
    const [issue] = read.error.issues;
    const where = issue!.path.join('.');
    return fail(
      `Its document is no plan: ${where || 'all of it'} is not what a plan holds${where && ' there'}.`,
    );
  }
  const fault = listsFault(read.data, null);
  if (fault !== null) return fail(`Its document is no plan: ${fault}`);
  const ordered = orderedChannels(read.data.channels);
  return typeof ordered === 'string'
    ? fail(`Its document is no plan: ${ordered}`)
    : ok({ ...read.data, channels: ordered });
}

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
 * What is wrong with a plan that came of another one, in a sentence; null where it can be kept. Looks only at what is not
 * the very same as before: edits hand on what they leave alone.
 */
export function outcomeFault(before: Plan, after: Plan): string | null {
  const changed = HEAD_FIELDS.some((field) => before[field] !== after[field]);
  const head = changed ? headSchema.safeParse(headOf(after)) : null;
  if (head && !head.success) return notOneAnyMore(head.error.issues[0]!, []);
  for (const kind of KIND_NAMES) {
    if (recordsOf(before, kind) === recordsOf(after, kind)) continue;
    const { limit, words } = KINDS[kind];
    if (recordsOf(after, kind).length > limit)
      return `A plan holds ${limit} ${words.many} at most; this would make ${recordsOf(after, kind).length}.`;
    const [was, is] = [recordsOf(before, kind), recordsOf(after, kind)] as readonly (readonly AnyRecord[])[];
    for (const place of changedPlaces(was!, is!) ?? newPlaces(was!, is!)) {
      const read = SCHEMAS[kind].record.safeParse(is![place]);
      if (!read.success) return notOneAnyMore(read.error.issues[0]!, [KINDS[kind].list, place]);
    }
  }
  const fault = listsFault(after, before);
  if (fault !== null) return fault;
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
