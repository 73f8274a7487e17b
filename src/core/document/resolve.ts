import { referencesFrom, withPartedReferences, withReferences } from './references';
import { listIn, withList, type AnyDocument, type AnyRecord, type Structure } from './shape';
import { foreignId, foreignParts, usesOf } from './uses';

/** A document that is used, at the revision at which it is. */
export interface Used {
  shape: Structure;
  document: AnyDocument;
}

/** A reference to a document that is used, which leads to nothing there. */
export interface Missing {
  /** Whose reference it is: a record, or null and the document where its head has it. */
  kind: string | null;
  id: string;
  /** What it should lead to. */
  to: string;
  reference: string;
}

/** A document with all that it uses, as one to read. */
export interface View<D> {
  document: D;
  missing: readonly Missing[];
}

/**
 * One document to read, made of one and all that it uses: records of those come after its own, with the ids by which it refers to them. Kinds that it
 * does not have are left out, and so are kinds whose records have places of their own. References to missing records are removed and listed. A document that uses no others is its own view.
 */
export function resolved<D extends AnyDocument>(
  shape: Structure,
  document: D,
  used: ReadonlyMap<string, Used>,
): View<D> {
  const uses = usesOf(document);
  if (uses.length === 0) return { document, missing: [] };
  let view = document;
  const there = new Set<string>();
  for (const kind of Object.keys(shape.kinds)) {
    if (shape.kinds[kind]!.order !== 'own') continue;
    const theirs = uses.flatMap(({ document: id }) => {
      const other = used.get(id);
      return other && kind in other.shape.kinds ? recordsFor(other, kind) : [];
    });
    for (const { id } of theirs) there.add(id);
    if (theirs.length > 0) view = withList(shape, view, kind, [...listIn(shape, document, kind), ...theirs]);
  }
  const missing: Missing[] = [];
  for (const kind of referencesFrom(shape)) {
    const before = listIn(shape, view, kind);
    const after = before.map((record) =>
      withReferences(shape, kind, record, (to, id) => {
        if (!foreignParts(id) || there.has(id)) return id;
        missing.push({ kind, id: record.id, to, reference: id });
        return null;
      }),
    );
    if (after.some((record, at) => record !== before[at])) view = withList(shape, view, kind, after);
  }
  view = withPartedReferences(shape, view, (to, id) => {
    if (!foreignParts(id) || there.has(id)) return id;
    missing.push({ kind: null, id: document.id, to, reference: id });
    return null;
  });
  return { document: view, missing };
}

/** The records of a kind of a used document, with the ids by which another one refers to them. */
const recordsFor = ({ shape, document }: Used, kind: string): AnyRecord[] =>
  listIn(shape, document, kind).map((record) => ({
    ...withReferences(shape, kind, record, (_, id) => (foreignParts(id) ? id : foreignId(document.id, id))),
    id: foreignId(document.id, record.id),
  }));

/** A view as a document of its own, which uses none: records of others get ids of its own. The very same where it uses none already. */
export function standalone<D extends AnyDocument>(shape: Structure, view: D): D {
  if (usesOf(view).length === 0) return view;
  const kinds = Object.keys(shape.kinds);
  const taken = new Set(kinds.flatMap((kind) => listIn(shape, view, kind).map(({ id }) => id)));
  const own = new Map<string, string>();
  for (const id of [...taken]) {
    const foreign = foreignParts(id);
    if (!foreign) continue;
    let free = foreign.record;
    for (let n = 2; taken.has(free); n++) free = `${foreign.record.slice(0, 30)}${n}`;
    taken.add(free);
    own.set(id, free);
  }
  let result: D = { ...view, uses: [] };
  for (const kind of kinds)
    result = withList(
      shape,
      result,
      kind,
      listIn(shape, view, kind).map((record) => {
        const next = withReferences(shape, kind, record, (_, id) => own.get(id) ?? id);
        return own.has(record.id) ? { ...next, id: own.get(record.id)! } : next;
      }),
    );
  return withPartedReferences(shape, result, (_, id) => own.get(id) ?? id);
}
