import equal from 'fast-deep-equal';
import { fail, ok, type Result } from '../result';
import { withoutDangling } from './references';
import {
  changedPlaces,
  fieldIn,
  listIn,
  withList,
  type AnyDocument,
  type AnyRecord,
  type Structure,
} from './shape';

/** How the records of one kind differ: those to put, new or instead of the one with that id, those to remove, and the order where that changed. */
export interface RecordChanges<R extends AnyRecord = AnyRecord> {
  put: R[];
  remove: R['id'][];
  /** All ids in their order, for kinds with an order of their own, where putting and removing does not end in it. */
  order?: R['id'][] | undefined;
}

/**
 * How two documents differ: their records by kind, the head as far as it changed, and under their own names the changes of the fields whose parts
 * change one by one. Kinds without a difference are not there.
 */
export interface DocumentDifference {
  records: { [kind: string]: RecordChanges | undefined };
  head?: object;
}

/**
 * What leads from `before` to `after`. Records are compared by identity: edits hand on what they leave alone, so that this
 * costs no more than a walk along the lists.
 */
export function differenceOf(shape: Structure, before: AnyDocument, after: AnyDocument): DocumentDifference {
  const records: Record<string, RecordChanges> = {};
  for (const kind of Object.keys(shape.kinds)) {
    const [was, is] = [listIn(shape, before, kind), listIn(shape, after, kind)];
    if (was === is) continue;
    const places = changedPlaces(was, is);
    if (places) {
      const put = places.map((place) => is[place]!);
      if (put.length > 0) records[kind] = { put, remove: [] };
      continue;
    }
    const old = new Map(was.map((record) => [record.id, record]));
    const put = is.filter((record) => old.get(record.id) !== record);
    const there = new Set(is.map(({ id }) => id));
    const remove = was.filter(({ id }) => !there.has(id)).map(({ id }) => id);
    const order = shape.kinds[kind]!.order === 'own' ? orderAfter(was, put, there, is) : undefined;
    if (put.length + remove.length > 0 || order) records[kind] = { put, remove, ...(order && { order }) };
  }
  const head = Object.fromEntries(
    shape.headFields.flatMap((field) =>
      field in shape.parted || fieldIn(before, field) === fieldIn(after, field)
        ? []
        : [[field, fieldIn(after, field)]],
    ),
  );
  const parted = Object.entries(shape.parted).flatMap(([field, { changes }]) => {
    const changed = changes(fieldIn(before, field), fieldIn(after, field));
    return changed ? [[field, changed] as const] : [];
  });
  return { records, ...(Object.keys(head).length > 0 && { head }), ...Object.fromEntries(parted) };
}

/** The order as a list of ids, where putting the new ones at the end does not give it. */
function orderAfter(
  was: readonly AnyRecord[],
  put: readonly AnyRecord[],
  there: ReadonlySet<string>,
  is: readonly AnyRecord[],
): string[] | undefined {
  const old = new Set(was.map(({ id }) => id));
  const plain = [...was.filter(({ id }) => there.has(id)), ...put.filter(({ id }) => !old.has(id))];
  return plain.every(({ id }, index) => id === is[index]!.id) ? undefined : is.map(({ id }) => id);
}

/**
 * The document with every record that is alike in `other` as the very same as there: what came out of a log or over a wire is
 * told from it by identity then, as everything here is.
 */
export function alikeIn<D extends AnyDocument>(shape: Structure, other: D, document: D): D {
  let result = document;
  for (const kind of Object.keys(shape.kinds)) {
    const theirs = new Map(listIn(shape, other, kind).map((record) => [record.id, record]));
    const shared = listIn(shape, document, kind).map((record) => {
      const same = theirs.get(record.id);
      return same && equal(same, record) ? same : record;
    });
    result = withList(shape, result, kind, shared);
  }
  for (const field of shape.headFields)
    if (equal(fieldIn(other, field), fieldIn(document, field)))
      result = { ...result, [field]: fieldIn(other, field) };
  return result;
}

/** True where there is nothing in it. */
export const isNothing = ({ records, ...rest }: DocumentDifference): boolean =>
  Object.keys(records).length === 0 && Object.values(rest).every((one) => one === undefined);

/**
 * The document with a difference applied. References to missing records are removed. Fails where two records would have
 * the same place.
 */
export function applied<D extends AnyDocument>(
  shape: Structure,
  document: D,
  difference: DocumentDifference,
): Result<D> {
  const { records, head } = difference;
  let next: D = head ? { ...document, ...head } : document;
  for (const [field, parted] of Object.entries(shape.parted)) {
    const changes = fieldIn(difference, field);
    if (changes) next = { ...next, [field]: parted.with(fieldIn(next, field), changes) };
  }
  const kinds = Object.keys(shape.kinds);
  for (const kind of kinds) {
    const change = records[kind];
    if (!change) continue;
    const gone = new Set(change.remove);
    const put = new Map(change.put.map((record) => [record.id, record]));
    if (put.size < change.put.length)
      return fail(`Of the ${shape.kinds[kind]!.words.many} one would be there twice.`);
    const list = [];
    for (const record of listIn(shape, document, kind)) {
      const instead = put.get(record.id);
      put.delete(record.id);
      if (instead) list.push(instead);
      else if (!gone.has(record.id)) list.push(record);
    }
    list.push(...put.values());
    next = withList(shape, next, kind, change.order ? inOrder(list, change.order) : list);
  }
  const { placed } = shape;
  // Where every record keeps its place there is nothing to put in order.
  if (placed && records[placed.kind]) {
    const [was, is] = [listIn(shape, document, placed.kind), listIn(shape, next, placed.kind)];
    if (!placed.stand(was, is)) {
      const ordered = placed.ordered(is);
      if (typeof ordered === 'string') return fail(ordered);
      next = withList(shape, next, placed.kind, ordered);
    }
  }
  const went = new Set(kinds.filter((kind) => records[kind]?.remove.length));
  // Where nothing went, those alone that were put can lead to nothing.
  const put = Object.fromEntries(
    kinds.flatMap((kind) => {
      const ids = records[kind]?.put.map(({ id }) => id) ?? [];
      return ids.length > 0 ? [[kind, new Set(ids)]] : [];
    }),
  );
  return ok(withoutDangling(shape, withoutDangling(shape, next, { went: null, put }), { went }));
}

/** Sorts the records by a list of ids. Records that the list does not name keep their order and come last. */
export function inOrder<R extends AnyRecord>(records: readonly R[], ids: readonly string[]): R[] {
  const place = new Map(ids.map((id, index) => [id, index]));
  const of = ({ id }: R) => place.get(id) ?? ids.length;
  return [...records].sort((a, b) => of(a) - of(b));
}
