import { KIND_NAMES, KINDS, recordsOf, withRecords, type Kind } from './kinds';
import type { AnyRecord, IdOf, RecordOf } from './kinds.schema';
import equal from 'fast-deep-equal';
import { fail, ok, type Result } from '../result';
import { changedPlaces, HEAD_FIELDS, orderedChannels } from './plan';
import type { Plan, PlanHead, SettingChanges } from './plan.schema';
import { withoutDangling } from './references';
import { settingChanges, withSettings } from './setting-changes';

/** How the records of one kind differ: those to put, new or instead of the one with that id, those to remove, and the order where that changed. */
export interface RecordDifference<K extends Kind = Kind> {
  put: RecordOf<K>[];
  remove: IdOf<K>[];
  /** All ids in their order, for kinds with an order of their own, where putting and removing does not end in it. */
  order?: IdOf<K>[];
}

/**
 * How two plans differ. All that has to be known of a change comes of this: its inverse, what is written to the tables, what
 * a worker is sent. Kinds without a difference are not there.
 */
export interface Difference {
  records: { [K in Kind]?: RecordDifference<K> };
  /** What is said of the plan as a whole, as far as it changed, and without its settings. */
  head?: Partial<PlanHead>;
  settings?: SettingChanges;
}

/**
 * What leads from `before` to `after`. Records are compared by identity: edits hand on what they leave alone, so that this
 * costs no more than a walk along the lists.
 */
export function difference(before: Plan, after: Plan): Difference {
  const records: Partial<Record<Kind, RecordDifference>> = {};
  for (const kind of KIND_NAMES) {
    const [was, is] = [recordsOf(before, kind), recordsOf(after, kind)] as readonly (readonly AnyRecord[])[];
    if (was === is) continue;
    const places = changedPlaces(was!, is!);
    if (places) {
      const put = places.map((place) => is![place]!);
      if (put.length > 0) records[kind] = { put, remove: [] };
      continue;
    }
    const old = new Map(was!.map((record) => [record.id as string, record]));
    const put = is!.filter((record) => old.get(record.id) !== record);
    const there = new Set<string>(is!.map(({ id }) => id));
    const remove = was!.filter(({ id }) => !there.has(id)).map(({ id }) => id);
    const order = KINDS[kind].order === 'own' ? orderAfter(was!, put, there, is!) : undefined;
    if (put.length + remove.length > 0 || order) records[kind] = { put, remove, ...(order && { order }) };
  }
  const head = Object.fromEntries(
    HEAD_FIELDS.flatMap((field) =>
      field === 'settings' || before[field] === after[field] ? [] : [[field, after[field]]],
    ),
  ) as Partial<PlanHead>;
  const settings = settingChanges(before.settings, after.settings);
  return {
    records: records as Difference['records'],
    ...(Object.keys(head).length > 0 && { head }),
    ...(settings && { settings }),
  };
}

/** The order as a list of ids, where putting the new ones at the end does not give it. */
function orderAfter(
  was: readonly AnyRecord[],
  put: readonly AnyRecord[],
  there: ReadonlySet<string>,
  is: readonly AnyRecord[],
): AnyRecord['id'][] | undefined {
  const held = new Set<string>(was.map(({ id }) => id));
  const plain = [...was.filter(({ id }) => there.has(id)), ...put.filter(({ id }) => !held.has(id))];
  return plain.every(({ id }, index) => id === is[index]!.id) ? undefined : is.map(({ id }) => id);
}

/**
 * The plan with every record that is alike in `other` as the very same as there: what came out of a log or over a wire is
 * told from it by identity then, as everything here is.
 */
export function sharedWith(other: Plan, plan: Plan): Plan {
  let result = plan;
  for (const kind of KIND_NAMES) {
    const theirs = new Map<string, AnyRecord>(
      (recordsOf(other, kind) as readonly AnyRecord[]).map((record) => [record.id, record]),
    );
    const shared = (recordsOf(plan, kind) as readonly AnyRecord[]).map((record) => {
      const same = theirs.get(record.id);
      return same && equal(same, record) ? same : record;
    });
    result = withRecords(result, kind, shared);
  }
  for (const field of HEAD_FIELDS)
    if (equal(other[field], plan[field])) result = { ...result, [field]: other[field] };
  return result;
}

/** True where there is nothing in it. */
export const isNoDifference = ({ records, head, settings }: Difference): boolean =>
  head === undefined && settings === undefined && Object.keys(records).length === 0;

/**
 * The plan with a difference laid over it. References to what is not there (any more) are taken out. Fails where the channels
 * would not fit into their slots.
 */
export function applyDifference(plan: Plan, { records, head, settings }: Difference): Result<Plan> {
  let next: Plan = head ? { ...plan, ...head } : plan;
  if (settings) next = { ...next, settings: withSettings(next.settings, settings) };
  for (const kind of KIND_NAMES) {
    const change = records[kind] as RecordDifference | undefined;
    if (!change) continue;
    const gone = new Set<string>(change.remove);
    const put = new Map<string, AnyRecord>(change.put.map((record) => [record.id, record]));
    if (put.size < change.put.length)
      return fail(`Of the ${KINDS[kind].words.many} one would be there twice.`);
    const list = [];
    for (const record of recordsOf(plan, kind) as readonly AnyRecord[]) {
      const instead = put.get(record.id);
      put.delete(record.id);
      if (instead) list.push(instead);
      else if (!gone.has(record.id)) list.push(record);
    }
    list.push(...put.values());
    next = withRecords(next, kind, change.order ? inOrder(list, change.order) : list);
  }
  // Where every channel keeps its place there is nothing to put in order.
  if (records.channel && !slotsStand(plan.channels, next.channels)) {
    const ordered = orderedChannels(next.channels);
    if (typeof ordered === 'string') return fail(ordered);
    next = { ...next, channels: ordered };
  }
  const went = new Set(KIND_NAMES.filter((kind) => records[kind]?.remove.length));
  // Where nothing went, those alone that were put can lead to nothing.
  const put = Object.fromEntries(
    KIND_NAMES.flatMap((kind) => {
      const ids = (records[kind] as RecordDifference | undefined)?.put.map(({ id }) => id as string) ?? [];
      return ids.length > 0 ? [[kind, new Set(ids)]] : [];
    }),
  );
  return ok(withoutDangling(withoutDangling(next, { went: null, put }), { went }));
}

const slotsStand = (was: Plan['channels'], is: Plan['channels']) =>
  was.length === is.length &&
  was.every((one, index) => {
    const other = is[index]!;
    return one === other || (one.id === other.id && one.slot === other.slot && one.list === other.list);
  });

/** The records in the order of those ids; those that are not named come after, as they were. */
export function inOrder<R extends AnyRecord>(records: readonly R[], ids: readonly string[]): R[] {
  const place = new Map(ids.map((id, index) => [id, index]));
  const of = ({ id }: R) => place.get(id) ?? ids.length;
  return [...records].sort((a, b) => of(a) - of(b));
}
