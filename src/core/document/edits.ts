import { fail, ok, type Result } from '../result';
import { capital } from '../text';
import { danglingFault, withoutDangling } from './references';
import { listIn, withList, type AnyDocument, type AnyRecord, type Structure } from './shape';

/** The general edits, over any kind of record with an order of its own. Each succeeds whole, or says why not. */

/** Where a record is named that is not there. */
export const missingIn = ({ word }: Pick<Structure, 'word'>): string => `is not in the ${word} any more`;

/** The document with those records, where all that they refer to is there. */
function withThose<D extends AnyDocument>(
  shape: Structure,
  next: D,
  kind: string,
  changed: readonly AnyRecord[],
): Result<D> {
  const lost = danglingFault(shape, next, { [kind]: changed });
  return lost === null ? ok(next) : fail(lost);
}

/** Puts new records before another one, or at the end. */
export function putRecords<D extends AnyDocument>(
  shape: Structure,
  document: D,
  kind: string,
  records: readonly AnyRecord[],
  before: string | null,
): Result<D> {
  const { words, limit } = shape.kinds[kind]!;
  const there = listIn(shape, document, kind);
  const ids = new Set(there.map(({ id }) => id));
  for (const { id } of records) {
    if (ids.has(id)) return fail(`The ${words.one} ${id} would be there twice.`);
    ids.add(id);
  }
  if (ids.size > limit)
    return fail(`A ${shape.word} holds ${limit} ${words.many} at most; this would make ${ids.size}.`);
  const at = before === null ? there.length : there.findIndex(({ id }) => id === before);
  if (at < 0) return fail(`The ${words.one} ${before} ${missingIn(shape)}.`);
  const next = withList(shape, document, kind, [...there.slice(0, at), ...records, ...there.slice(at)]);
  return withThose(shape, next, kind, records);
}

/** Sets fields of records. `also` is what a change brings with it. */
export function changeRecords<D extends AnyDocument>(
  shape: Structure,
  document: D,
  kind: string,
  changes: readonly { id: string; set: object }[],
  also: (record: AnyRecord, set: object) => AnyRecord = (record) => record,
): Result<D> {
  const records = new Map(listIn(shape, document, kind).map((record) => [record.id, record]));
  for (const { id, set } of changes) {
    const before = records.get(id);
    if (!before) return fail(`The ${shape.kinds[kind]!.words.one} ${id} ${missingIn(shape)}.`);
    records.set(id, also({ ...before, ...set }, set));
  }
  const next = withList(shape, document, kind, [...records.values()]);
  return withThose(
    shape,
    next,
    kind,
    changes.map(({ id }) => records.get(id)!),
  );
}

/** Removes records from the document, and every reference to them. */
export function removeRecords<D extends AnyDocument>(
  shape: Structure,
  document: D,
  kind: string,
  ids: readonly string[],
): Result<D> {
  const records = listIn(shape, document, kind);
  const there = new Set(records.map(({ id }) => id));
  const missing = ids.find((id) => !there.has(id));
  if (missing) return fail(`${capital(shape.kinds[kind]!.words.one)} ${missing} ${missingIn(shape)}.`);
  const going = new Set(ids);
  const left = records.filter(({ id }) => !going.has(id));
  return ok(withoutDangling(shape, withList(shape, document, kind, left), { went: new Set([kind]) }));
}

/** Takes records out of their order and puts them before another one, or at the end; they keep their order among themselves. */
export function orderRecords<D extends AnyDocument>(
  shape: Structure,
  document: D,
  kind: string,
  ids: readonly string[],
  before: string | null,
): Result<D> {
  const { words } = shape.kinds[kind]!;
  const there = listIn(shape, document, kind);
  const going = new Set(ids);
  const taken = there.filter(({ id }) => going.has(id));
  if (taken.length < going.size) return fail(`One of the ${words.many} ${missingIn(shape)}.`);
  const from = before === null ? there.length : there.findIndex(({ id }) => id === before);
  if (from < 0) return fail(`The ${words.one} ${before} ${missingIn(shape)}.`);
  const stays = ({ id }: AnyRecord) => !going.has(id);
  const around = [...there.slice(0, from).filter(stays), ...taken, ...there.slice(from).filter(stays)];
  return ok(withList(shape, document, kind, around));
}

/** Sets fields of the head. References to documents that are no longer used are removed. */
export function describeDocument<D extends AnyDocument>(shape: Structure, document: D, set: object): D {
  const next = { ...document, ...set };
  return 'uses' in set ? withoutDangling(shape, next) : next;
}
