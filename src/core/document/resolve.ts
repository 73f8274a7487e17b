import { referencesFrom, withReferences } from './references';
import { listIn, withList, type AnyDocument, type AnyRecord, type Structure } from './shape';
import { foreignId, foreignParts, usesOf } from './uses';

/** A document that is used, at the revision at which it is. */
export interface Used {
  shape: Structure;
  document: AnyDocument;
}

/** A reference to a document that is used, which leads to nothing there. */
export interface Missing {
  /** Whose reference it is. */
  kind: string;
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
 * does not have, and kinds whose records carry their places, stay out. What is missing is taken out of the view and named. A document that uses none is its own view.
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
  return { document: view, missing };
}

/** The records of a kind of a used document, with the ids by which another one refers to them. */
const recordsFor = ({ shape, document }: Used, kind: string): AnyRecord[] =>
  listIn(shape, document, kind).map((record) => ({
    ...withReferences(shape, kind, record, (_, id) => (foreignParts(id) ? id : foreignId(document.id, id))),
    id: foreignId(document.id, record.id),
  }));
