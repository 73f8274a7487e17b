import { KIND_NAMES, KINDS, recordsOf, withRecords, type Kind } from './kinds';
import type { AnyRecord } from './kinds.schema';
import type { Plan, Settings } from './plan.schema';
import type { RecordReference, SettingValue } from './setting-value.schema';

/** The kinds whose records refer to others; the others need not be looked through. */
const REFERRING = KIND_NAMES.filter((kind) => Object.keys(KINDS[kind].refs).length > 0);

/** The references of a kind: where they stand in its records, and what they lead to. */
const PATHS = Object.fromEntries(
  KIND_NAMES.map((kind) => [
    kind,
    Object.entries(KINDS[kind].refs as Record<string, Kind>).map(([path, to]) => ({
      path: path.split('.'),
      to,
    })),
  ]),
) as Record<Kind, { path: string[]; to: Kind }[]>;

/**
 * A value with the ids at a path that are not there taken out: of a list of ids those, and a single one becomes null. A path goes
 * through every member of a list of parts. What loses nothing stays the very same.
 */
function keepThere(value: unknown, path: readonly string[], isThere: (id: string) => boolean): unknown {
  if (typeof value === 'string') return isThere(value) ? value : null;
  if (Array.isArray(value)) {
    const ids = path.length === 0;
    const kept = ids
      ? value.filter((id: string) => isThere(id))
      : value.map((part) => keepThere(part, path, isThere));
    return kept.length === value.length && kept.every((one, at) => one === value[at]) ? value : kept;
  }
  if (typeof value !== 'object' || value === null) return value;
  const [head, ...rest] = path as [string, ...string[]];
  const before = (value as Record<string, unknown>)[head];
  const after = keepThere(before, rest, isThere);
  return after === before ? value : { ...value, [head]: after };
}

/** A record without its references to what is not there; the very same where it has none of those. */
export function keptReferences<R extends AnyRecord>(
  kind: Kind,
  record: R,
  isThere: (to: Kind, id: string) => boolean,
): R {
  return PATHS[kind].reduce<unknown>(
    (kept, { path, to }) => keepThere(kept, path, (id) => isThere(to, id)),
    record,
  ) as R;
}

/** A value with the ids put back that it has lost since `was`: into a list of ids behind the one that they stood behind, and where null is now. */
function putBack(
  value: unknown,
  was: unknown,
  path: readonly string[],
  isLost: (id: string) => boolean,
): unknown {
  if (value === null) return typeof was === 'string' && isLost(was) ? was : value;
  if (Array.isArray(value) && Array.isArray(was)) {
    if (path.length > 0) return value.map((part, at) => putBack(part, was[at], path, isLost));
    const ids = [...value];
    for (const [at, id] of was.entries())
      if (isLost(id) && !ids.includes(id)) ids.splice(ids.indexOf(was[at - 1]) + 1, 0, id);
    return ids;
  }
  if (typeof value !== 'object' || typeof was !== 'object' || was === null) return value;
  const [head, ...rest] = path as [string, ...string[]];
  const [is, before] = [value, was].map((of) => (of as Record<string, unknown>)[head]);
  return { ...value, [head]: putBack(is, before, rest, isLost) };
}

/** A record with the references of an earlier state of it put back that are lost: what they lead to went, and they with it. */
export function withLostReferences<R extends AnyRecord>(
  kind: Kind,
  record: R,
  was: R,
  isLost: (to: Kind, id: string) => boolean,
): R {
  return PATHS[kind].reduce<unknown>(
    (so, { path, to }) => putBack(so, was, path, (id) => isLost(to, id)),
    record,
  ) as R;
}

const isReference = (value: unknown): value is RecordReference =>
  typeof value === 'object' && value !== null && 'kind' in value && 'id' in value;

type IsThere = (to: Kind, id: string) => boolean;

/** A value of a setting without references to what is not there: null in their place. What loses nothing stays the very same. */
function valueThere<V>(value: V, isThere: IsThere): V | null {
  if (isReference(value)) return isThere(value.kind, value.id) ? value : null;
  if (!Array.isArray(value)) return value;
  const parts = value.map((part: unknown) => valueThere(part, isThere));
  return parts.every((part, at) => part === value[at]) ? value : (parts as V);
}

/** The settings without references to records that are not there; the very same where all lead somewhere. */
function settingsThere(settings: Settings, isThere: IsThere): Settings {
  let changed = false;
  const models = Object.entries(settings).map(([model, values]) => {
    const left = Object.entries(values).flatMap(([key, value]): [string, SettingValue][] => {
      const there = valueThere(value, isThere);
      changed ||= there !== value;
      return there === null ? [] : [[key, there]];
    });
    return [model, left] as const;
  });
  if (!changed) return settings;
  return Object.fromEntries(
    models.flatMap(([model, left]) => (left.length > 0 ? [[model, Object.fromEntries(left)]] : [])),
  );
}

/** Says whether a plan has a record. Ids are gathered when a kind is first asked for. */
function thereIn(plan: Plan): (kind: Kind, id: string) => boolean {
  const known = new Map<Kind, Set<string>>();
  return (kind, id) => {
    let ids = known.get(kind);
    if (!ids) known.set(kind, (ids = new Set(recordsOf(plan, kind).map((record: AnyRecord) => record.id))));
    return ids.has(id);
  };
}

/** Where references may lead to nothing: in records that refer to kinds of which some went (null: any), or in those alone that were put. */
interface Among {
  went: ReadonlySet<Kind> | null;
  put?: { [K in Kind]?: ReadonlySet<string> };
}

/**
 * The plan with every reference to a record that is gone taken out. Records that refer to none stay the very same, and so
 * does a plan without any.
 */
export function withoutDangling(plan: Plan, among: Among = { went: null }): Plan {
  const isThere = thereIn(plan);
  let result = plan;
  for (const kind of REFERRING) {
    if (among.went && !PATHS[kind].some(({ to }) => among.went!.has(to))) continue;
    const put = among.put?.[kind];
    if (among.put && !put) continue;
    const before: readonly AnyRecord[] = recordsOf(plan, kind);
    const kept = before.map((record) =>
      put && !put.has(record.id) ? record : keptReferences(kind, record, isThere),
    );
    if (kept.some((record, at) => record !== before[at])) result = withRecords(result, kind, kept);
  }
  const settings = settingsThere(plan.settings, isThere);
  return settings === plan.settings ? result : { ...result, settings };
}

/**
 * The first reference to a record that is not in the plan, in a sentence; null where all lead somewhere. `only` are the records that
 * are looked at, where the others are known to be right.
 */
export function danglingFault(plan: Plan, only?: { [K in Kind]?: readonly AnyRecord[] }): string | null {
  const isThere = thereIn(plan);
  let fault: string | null = null;
  for (const kind of REFERRING)
    for (const record of only ? (only[kind] ?? []) : (recordsOf(plan, kind) as readonly AnyRecord[]))
      keptReferences(kind, record, (to, id) => {
        const there = isThere(to, id);
        if (!there)
          fault ??= `The ${KINDS[kind].words.one} ${record.id} names ${id}, and there is no such ${KINDS[to].words.one} in the plan.`;
        return there;
      });
  settingsThere(plan.settings, (to, id) => {
    const there = isThere(to, id);
    if (!there) fault ??= `A setting names ${id}, and there is no such ${KINDS[to].words.one} in the plan.`;
    return there;
  });
  return fault;
}

/** Records that come from elsewhere, without their references to what a plan does not have; those that lose nothing stay the very same. */
export function withReferencesThere<R extends AnyRecord>(plan: Plan, kind: Kind, records: readonly R[]): R[] {
  const isThere = thereIn(plan);
  return records.map((record) => keptReferences(kind, record, isThere));
}

/** A field of a record as it is where what it refers to has gone from that plan. */
export function fieldKept(kind: Kind, record: AnyRecord, field: string, plan: Plan): unknown {
  const kept = keptReferences(kind, record, thereIn(plan));
  return (kept as unknown as Record<string, unknown>)[field];
}

/** The records that refer to one of those, by kind; kinds of which none does are left out. */
export function referringTo(
  plan: Plan,
  kind: Kind,
  ids: ReadonlySet<string>,
): { kind: Kind; records: readonly AnyRecord[] }[] {
  return REFERRING.flatMap((own) => {
    const records = (recordsOf(plan, own) as readonly AnyRecord[]).filter(
      (record) => keptReferences(own, record, (to, id) => to !== kind || !ids.has(id)) !== record,
    );
    return records.length > 0 ? [{ kind: own, records }] : [];
  });
}
