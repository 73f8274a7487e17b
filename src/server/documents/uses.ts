import { foreignParts, resolved, usesOf, type AnyDocument, type Used } from '../../core/document';
import type { Database } from '../../db';
import { editRefused } from '../problem';
import { heldAt, holdEarlier } from './held';
import { documentAt } from './log';
import { wantRow } from './rows';
import { knownTypeOf, typeOf } from './types';

/**
 * Documents that others use, each at one of its revisions, which never changes. So a change of a document that uses others is checked once, when it is
 * saved: all that it refers to is there, and stays there. A document that uses others is not used itself.
 */

/** Revisions that the same change makes, by the ids of their documents. */
export type Coming = ReadonlyMap<string, { revision: number; document: AnyDocument }>;

const NOTHING_COMING: Coming = new Map();

/** The documents that a document uses, at their revisions. */
async function usedBy(
  database: Database,
  document: AnyDocument,
  coming: Coming = NOTHING_COMING,
): Promise<Map<string, Used>> {
  const used = new Map<string, Used>();
  for (const { document: id, revision } of usesOf(document)) {
    const made = coming.get(id);
    const known = made?.revision === revision ? made.document : heldAt(id, revision);
    const found = known ?? (await documentAt(database, id, revision));
    if (!known) holdEarlier(id, revision, found);
    used.set(id, { shape: typeOf(id).shape, document: found });
  }
  return used;
}

/** Throws the problem that says what a document uses or refers to that is not there. */
export async function wantUsed(database: Database, document: AnyDocument, coming?: Coming): Promise<void> {
  const { shape } = typeOf(document.id);
  const names = new Map<string, string>();
  for (const { document: id, revision } of usesOf(document)) {
    const type = knownTypeOf(id)?.type;
    if (!type || type.shape.headFields.includes('uses'))
      throw editRefused(`A ${shape.word} cannot use ${id}.`);
    const row = await wantRow(database, id);
    const newest = coming?.get(id)?.revision ?? row.revision;
    if (revision > newest)
      throw editRefused(`“${row.name}” has no revision ${revision}; its newest is ${newest}.`);
    names.set(id, `“${row.name}” at revision ${revision}`);
  }
  const [missing] = resolved(shape, document, await usedBy(database, document, coming)).missing;
  if (!missing) return;
  const { document: whose } = foreignParts(missing.reference)!;
  throw editRefused(
    `${missing.kind === null ? 'A setting' : `The ${shape.kinds[missing.kind]!.words.one} ${missing.id}`} names ${missing.reference}, and there is no such ${shape.kinds[missing.to]!.words.one} in ${names.get(whose)}.`,
  );
}

/** The document with all that it uses, as one to read: see `resolved`. The very same where it uses none. */
export async function viewOf<D extends AnyDocument>(database: Database, document: D): Promise<D> {
  if (usesOf(document).length === 0) return document;
  return resolved(typeOf(document.id).shape, document, await usedBy(database, document)).document;
}
