import { resolved, usesOf, type AnyDocument, type Used, type View } from '../../core/document';
import type { Database } from '../../db';
import { editRefused, Problem } from '../problem';
import { documentAt } from './log';
import { wantRow } from './rows';
import { knownTypeOf, typeOf } from './types';

/** Documents that others use. A document that uses others is not used itself: one view is one step away from what it is made of. */

/** Throws the problem that says what a document uses that cannot be used. */
export async function wantUsed(database: Database, document: AnyDocument): Promise<void> {
  for (const { document: id, revision } of usesOf(document)) {
    const type = knownTypeOf(id)?.type;
    if (!type || type.shape.headFields.includes('uses'))
      throw editRefused(`${id} is no document that a ${typeOf(document.id).shape.word} can use.`);
    const row = await wantRow(database, id);
    if (revision > row.revision)
      throw editRefused(`“${row.name}” is at revision ${row.revision}; there is no ${revision} yet.`);
  }
}

/** The document with all that it uses, to be read: see `resolved`. What is used and cannot be opened any more is missing in it. */
export async function viewOf<D extends AnyDocument>(database: Database, document: D): Promise<View<D>> {
  const used = new Map<string, Used>();
  for (const { document: id, revision } of usesOf(document)) {
    try {
      used.set(id, { shape: typeOf(id).shape, document: await documentAt(database, id, revision) });
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
    }
  }
  return resolved(typeOf(document.id).shape, document, used);
}
