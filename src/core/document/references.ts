import {
  fieldIn,
  listIn,
  withList,
  type AnyDocument,
  type AnyRecord,
  type Instead,
  type IsThere,
  type Structure,
} from './shape';
import { foreignParts, usesOf } from './uses';

/** Where the records of a kind have references, and to which kind. */
interface Reference {
  path: readonly string[];
  to: string;
}

interface References {
  byKind: Readonly<Record<string, readonly Reference[]>>;
  /** The kinds whose records refer to others; the others need not be looked through. */
  referring: readonly string[];
}

const known = new WeakMap<Structure['kinds'], References>();

function referencesOf({ kinds }: Structure): References {
  const found = known.get(kinds);
  if (found) return found;
  const byKind = Object.fromEntries(
    Object.entries(kinds).map(([kind, { refs }]) => [
      kind,
      Object.entries(refs).map(([path, to]) => ({ path: path.split('.'), to })),
    ]),
  );
  const made = { byKind, referring: Object.keys(kinds).filter((kind) => byKind[kind]!.length > 0) };
  known.set(kinds, made);
  return made;
}

/** The kinds of which records refer to others. */
export const referencesFrom = (shape: Structure): readonly string[] => referencesOf(shape).referring;

/**
 * A value with the ids at a path replaced by what `of` says: null takes one out of a list of ids, and makes a single one null. A path goes
 * through every member of a list of parts. What stays alike stays the very same.
 */
function withIdsAt(value: unknown, path: readonly string[], of: (id: string) => string | null): unknown {
  if (typeof value === 'string') return of(value);
  if (Array.isArray(value)) {
    const next =
      path.length === 0
        ? value.flatMap((id: string) => of(id) ?? [])
        : value.map((part) => withIdsAt(part, path, of));
    return next.length === value.length && next.every((one, at) => one === value[at]) ? value : next;
  }
  if (typeof value !== 'object' || value === null) return value;
  const [head, ...rest] = path as [string, ...string[]];
  const before = (value as Record<string, unknown>)[head];
  const after = withIdsAt(before, rest, of);
  return after === before ? value : { ...value, [head]: after };
}

/** A record with its references replaced by what `of` says, null for none; the very same where all stay. */
export const withReferences = <R extends AnyRecord>(
  shape: Structure,
  kind: string,
  record: R,
  of: Instead,
): R =>
  referencesOf(shape).byKind[kind]!.reduce<unknown>(
    (so, { path, to }) => withIdsAt(so, path, (id) => of(to, id)),
    record,
  ) as R;

/** A record without its references to what is not there; the very same where it has none of those. */
export const keptReferences = <R extends AnyRecord>(
  shape: Structure,
  kind: string,
  record: R,
  isThere: IsThere,
): R => withReferences(shape, kind, record, (to, id) => (isThere(to, id) ? id : null));

/** A document with the references replaced that fields of its head have; the very same where all stay. */
export function withPartedReferences<D extends AnyDocument>(shape: Structure, document: D, of: Instead): D {
  let result = document;
  for (const [field, parted] of Object.entries(shape.parted)) {
    const before = fieldIn(document, field);
    const after = parted.withReferences(before, of);
    if (after !== before) result = { ...result, [field]: after };
  }
  return result;
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
export const withLostReferences = <R extends AnyRecord>(
  shape: Structure,
  kind: string,
  record: R,
  was: R,
  isLost: IsThere,
): R =>
  referencesOf(shape).byKind[kind]!.reduce<unknown>(
    (so, { path, to }) => putBack(so, was, path, (id) => isLost(to, id)),
    record,
  ) as R;

/** Says whether a reference leads to a record of the document, or to a document that it uses. Ids are gathered when a kind is first asked for. */
export function thereIn(shape: Structure, document: AnyDocument): IsThere {
  const known = new Map<string, Set<string>>();
  const used = new Set(usesOf(document).map((use) => use.document));
  return (kind, id) => {
    const foreign = foreignParts(id);
    if (foreign) return used.has(foreign.document);
    let ids = known.get(kind);
    if (!ids) known.set(kind, (ids = new Set(listIn(shape, document, kind).map((record) => record.id))));
    return ids.has(id);
  };
}

/** Where references may lead to nothing: in records that refer to kinds of which some went (null: any), or in those alone that were put. */
interface Among {
  went: ReadonlySet<string> | null;
  put?: { [kind: string]: ReadonlySet<string> | undefined };
}

/**
 * Removes every reference to a missing record. Records without such references stay identical, and so does a document
 * without any.
 */
export function withoutDangling<D extends AnyDocument>(
  shape: Structure,
  document: D,
  among: Among = { went: null },
): D {
  const isThere = thereIn(shape, document);
  const { byKind, referring } = referencesOf(shape);
  let result = document;
  for (const kind of referring) {
    if (among.went && !byKind[kind]!.some(({ to }) => among.went!.has(to))) continue;
    const put = among.put?.[kind];
    if (among.put && !put) continue;
    const before = listIn(shape, document, kind);
    const kept = before.map((record) =>
      put && !put.has(record.id) ? record : keptReferences(shape, kind, record, isThere),
    );
    if (kept.some((record, at) => record !== before[at])) result = withList(shape, result, kind, kept);
  }
  return withPartedReferences(shape, result, (to, id) => (isThere(to, id) ? id : null));
}

/**
 * The first reference to a record that is not in the document, in a sentence; null where all lead somewhere. `only` are the records that
 * are looked at, where the others are known to be right.
 */
export function danglingFault(
  shape: Structure,
  document: AnyDocument,
  only?: { [kind: string]: readonly AnyRecord[] | undefined },
): string | null {
  const isThere = thereIn(shape, document);
  const { kinds, word } = shape;
  let fault: string | null = null;
  /** True where a reference leads somewhere; what is wrong with the first that does not is said. */
  const told = (who: string) => (to: string, id: string) => {
    const there = isThere(to, id);
    const foreign = there ? undefined : foreignParts(id);
    if (foreign) fault ??= `${who} names ${id}, and the ${word} does not use ${foreign.document}.`;
    else if (!there)
      fault ??= `${who} names ${id}, and there is no such ${kinds[to]!.words.one} in the ${word}.`;
    return there;
  };
  for (const kind of referencesOf(shape).referring)
    for (const record of only ? (only[kind] ?? []) : listIn(shape, document, kind))
      keptReferences(shape, kind, record, told(`The ${kinds[kind]!.words.one} ${record.id}`));
  for (const [field, { withReferences: inField, word: part }] of Object.entries(shape.parted)) {
    const isToldThere = told(`A ${part}`);
    inField(fieldIn(document, field), (to, id) => (isToldThere(to, id) ? id : null));
  }
  return fault;
}

/** The records that refer to one of those, by kind; kinds of which none does are left out. */
export function referringTo(
  shape: Structure,
  document: AnyDocument,
  kind: string,
  ids: ReadonlySet<string>,
): { kind: string; records: readonly AnyRecord[] }[] {
  return referencesOf(shape).referring.flatMap((own) => {
    const records = listIn(shape, document, own).filter(
      (record) => keptReferences(shape, own, record, (to, id) => to !== kind || !ids.has(id)) !== record,
    );
    return records.length > 0 ? [{ kind: own, records }] : [];
  });
}
