import { z } from 'zod';
import { fail, ok, type Result } from '../result';
import { ADDITION_IDS, GRADES, REGIONS } from '../radio';
import { trimmedText, wantedText } from '../text';
import { CHANNEL_LIMIT, SLOT_LIMIT, type Channel } from './channel';
import { planIdSchema } from './ids';
import { KIND_NAMES, KINDS, listsSchema, recordsOf, type AnyRecord } from './kinds';
import { ABBREVIATIONS, abbreviationsSchema, type Abbreviations } from './abbreviations';
import { danglingFault } from './references';

export const PLAN_NAME_LIMIT = 60;

/** Whose plan it is, and by which licence it is guarded. */
export const ownerSchema = z.object({
  callSign: trimmedText(16),
  region: z.enum(REGIONS),
  grade: z.enum(GRADES),
  /** Guard strictly: transmitting outside the licence is a stop, not a caution. */
  strict: z.boolean(),
  /** What the country has beyond its region's common table. Optional, as is `marine`: older plans have neither. */
  additions: z.array(z.enum(ADDITION_IDS)).max(ADDITION_IDS.length).optional(),
  /** The plan is a ship's or a coast station's, under a marine certificate. */
  marine: z.boolean().optional(),
});

/** What is said of a plan when it is made. */
export const detailsSchema = z.object({
  name: wantedText(PLAN_NAME_LIMIT),
  /** The model that the plan is made for; a fit can be asked for any other. */
  modelId: wantedText(40),
  owner: ownerSchema,
});

/** Everything of a plan but its records: what a person sets on the plan as a whole. */
export const headSchema = detailsSchema.extend({
  /** The short forms that names are fitted with; null for the usual ones. */
  abbreviations: abbreviationsSchema.nullable().default(null),
});
export const HEAD_FIELDS = ['name', 'modelId', 'owner', 'abbreviations'] as const;

/** The format of plan documents that is written; older ones are read, see `readDocument`. */
export const FORMAT = 2;

/** The plan document: its details, and its records by kind. Every record has an id and refers to others by theirs. */
export const planSchema = headSchema.extend({
  format: z.literal(FORMAT),
  id: planIdSchema,
  ...listsSchema.shape,
});

export type Owner = z.infer<typeof ownerSchema>;
export type PlanDetails = z.infer<typeof detailsSchema>;
export type PlanHead = z.infer<typeof headSchema>;
export type Plan = z.infer<typeof planSchema>;

/** An empty plan. */
export function newPlan(id: Plan['id'], details: PlanDetails): Plan {
  return { format: FORMAT, id, ...details, abbreviations: null, channels: [], zones: [] };
}

/** What of a plan is not records. */
export const headOf = ({ name, modelId, owner, abbreviations }: PlanHead): PlanHead => ({
  name,
  modelId,
  owner,
  abbreviations,
});

/** The short forms that the plan's names are fitted with. */
export function abbreviationsOf(plan: Pick<Plan, 'abbreviations'>): Abbreviations {
  return plan.abbreviations ?? ABBREVIATIONS;
}

type Document = Record<string, unknown>;

/** By the format that a document has: what brings it to the next one. What they do not understand they hand on as it is. */
const MIGRATIONS: Readonly<Record<number, (document: Document) => Document>> = {
  // One list of slots and channels alone; a channel without a list is in the first, by its schema.
  1: (document) => ({ ...document, format: 2, zones: [] }),
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

const bySlot = (a: Channel, b: Channel) => a.list - b.list || a.slot - b.slot;

/** The channels in slot order, ids and slots unique, no more and no higher than a plan holds; or what is wrong with them. */
export function orderedChannels(channels: readonly Channel[]): Channel[] | string {
  if (channels.length > CHANNEL_LIMIT)
    return `A plan holds ${CHANNEL_LIMIT} channels at most; this would make ${channels.length}.`;
  const sorted = [...channels].sort(bySlot);
  const ids = new Set<string>();
  for (const [index, channel] of sorted.entries()) {
    if (channel.slot > SLOT_LIMIT)
      return `Slot ${channel.slot} is over ${SLOT_LIMIT}, the highest that a plan has.`;
    if (ids.has(channel.id)) return `The channel ${channel.id} would be there twice.`;
    ids.add(channel.id);
    const before = sorted[index - 1];
    if (before && bySlot(before, channel) === 0)
      return `Slot ${channel.slot} is taken by “${before.name || channel.name || 'a channel without a name'}”.`;
  }
  return sorted;
}

/** True where the same records stand at the same places, changed or not: what most edits leave. */
export const sameIds = (was: readonly AnyRecord[], is: readonly AnyRecord[]): boolean =>
  changedPlaces(was, is) !== null;

/**
 * The places at which a record is another than before, where the same ids stand at the same places; null where they do not. A
 * change is held against what it came of several times, forwards and back: the last answer is remembered.
 */
export function changedPlaces(was: readonly AnyRecord[], is: readonly AnyRecord[]): readonly number[] | null {
  const [one, other] = compared;
  if (!((was === one && is === other) || (was === other && is === one)))
    compared = [was, is, placesThatDiffer(was, is)];
  return compared[2];
}

let compared: readonly [readonly AnyRecord[], readonly AnyRecord[], readonly number[] | null] = [[], [], []];

function placesThatDiffer(was: readonly AnyRecord[], is: readonly AnyRecord[]): number[] | null {
  if (was.length !== is.length) return null;
  const places: number[] = [];
  for (let at = 0; at < was.length; at++) {
    if (was[at] === is[at]) continue;
    if (was[at]!.id !== is[at]!.id) return null;
    places.push(at);
  }
  return places;
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
  // Nothing can refer to what is gone where nothing went, and nothing that refers was changed.
  const stands =
    before &&
    KIND_NAMES.every((kind) => {
      const [was, is] = [recordsOf(before, kind), recordsOf(plan, kind)] as (readonly AnyRecord[])[];
      return was === is || (Object.keys(KINDS[kind].refs).length === 0 && sameIds(was!, is!));
    });
  return stands ? null : danglingFault(plan);
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
      const read = KINDS[kind].schema.safeParse(is![place]);
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
