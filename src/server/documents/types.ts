import type { AnyDocument, DocumentType } from '../../core/document';
import { planType } from '../plan-type';

/** The types of document that Veridon keeps. A new one is registered here; which type a document is of is known by what its id begins with. */

/** A type, and what its documents are checked for besides when they are saved. */
export interface SavedType<D extends AnyDocument = AnyDocument, E extends object = object> {
  type: DocumentType<D, E>;
  /** Throws the problem that says why a change may not be saved, where a type knows one besides its shape. */
  check?(before: D, after: D): void;
}

// Not one for the process: pages and the interface have these modules each for itself, and a problem of one is none for the other.
const types = new Map<string, SavedType>();

/** Makes a type known. */
export const registerType = (saved: SavedType): void => void types.set(saved.type.idPrefix, saved);

registerType(planType as unknown as SavedType);

/** The type of a document; undefined where its id begins like none. */
export const knownTypeOf = (id: string): SavedType | undefined => types.get(id.slice(0, id.indexOf('_')));

/** The type of a document that there is. */
export function savedTypeOf(id: string): SavedType {
  const found = knownTypeOf(id);
  if (!found) throw new Error(`${id} is of no type that is registered.`);
  return found;
}

/** The type of a document, as core has it. `D` and `E` are the caller's word for it. */
export const typeOf = <D extends AnyDocument = AnyDocument, E extends object = object>(
  id: string,
): DocumentType<D, E> => savedTypeOf(id).type as unknown as DocumentType<D, E>;
