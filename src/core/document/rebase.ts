import equal from 'fast-deep-equal';
import { fail, type Result } from '../result';
import { keptReferences, thereIn } from './references';
import { fieldIn, listIn, type AnyDocument, type AnyRecord, type Structure } from './shape';

/**
 * Runs an edit that was made on `base` again on `newest`. Refused where it fails there, or where it sets
 * something that has been changed since: nobody's work is overwritten unseen.
 */
export function rebased<D extends AnyDocument, E>(
  shape: Structure,
  apply: (document: D, edit: E) => Result<D>,
  edit: E,
  { base, newest }: { base: D; newest: D },
): Result<D> {
  const wanted = apply(base, edit);
  if (!wanted.ok) return wanted;
  const result = apply(newest, edit);
  if (!result.ok) return result;
  for (const kind of Object.keys(shape.kinds)) {
    const clash = clashOf(shape, kind, base, wanted.value, newest);
    if (clash) return fail(clash);
  }
  for (const [field, parted] of Object.entries(shape.parted)) {
    const [was, asked, now] = [base, wanted.value, newest].map((document) => fieldIn(document, field));
    const mine = parted.changes(was, asked);
    const theirs = parted.changes(was, now);
    // An edit of before that sets all parts at once would undo the parts that others set.
    const kept = mine === undefined || equal(fieldIn(result.value, field), parted.with(now, mine));
    if (theirs && (!kept || (mine && parted.clash(mine, theirs)))) return fail(parted.clashText);
  }
  for (const field of shape.headFields) {
    const [was, asked, now] = [base, wanted.value, newest].map((document) => fieldIn(document, field));
    if (!(field in shape.parted) && !equal(asked, was) && !equal(now, was))
      return fail(`The details of this ${shape.word} were changed meanwhile. Look at them and try again.`);
  }
  return result;
}

/** A record of which an edit sets what somebody has changed meanwhile, in a sentence; undefined where there is none. */
function clashOf(
  shape: Structure,
  kind: string,
  base: AnyDocument,
  wanted: AnyDocument,
  newest: AnyDocument,
): string | undefined {
  const [old, asked, now] = [base, wanted, newest].map((document) => listIn(shape, document, kind));
  // What was not touched is the very same list: on a large document that is nearly always one of the two.
  if (old === asked || old === now) return undefined;
  const byId = (records: readonly AnyRecord[]) => new Map(records.map((record) => [record.id, record]));
  const [askedById, nowById] = [byId(asked!), byId(now!)];
  for (const before of old!) {
    const mine = askedById.get(before.id);
    const theirs = nowById.get(before.id);
    if (mine === before || !theirs || theirs === before) continue;
    // Not the fields that are there: one that may be missing can have been added on both sides.
    for (const [field, words] of Object.entries(shape.kinds[kind]!.words.fields)) {
      const set = mine === undefined || !same(shape, kind, field, mine, before, wanted);
      if (set && !same(shape, kind, field, theirs, before, newest))
        return `“${before.name}” was changed meanwhile (${words}). Look at it and try again.`;
    }
  }
  return undefined;
}

/** True where a field was left alone; a reference that went with what it referred to was. */
function same(
  shape: Structure,
  kind: string,
  field: string,
  record: AnyRecord,
  before: AnyRecord,
  document: AnyDocument,
): boolean {
  const [is, was] = [fieldIn(record, field), fieldIn(before, field)];
  return (
    equal(is, was) || equal(is, fieldIn(keptReferences(shape, kind, before, thereIn(shape, document)), field))
  );
}
