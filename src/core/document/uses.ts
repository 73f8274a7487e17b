/**
 * Documents that use others. A record refers to one of its own document by its id, and to one of a document that its own uses by both ids, with a point
 * between them: `pt_harbour.tg_watch`. The field `uses` in the head says which revision of the other document is meant.
 */

/** A document that another one uses, at one of its revisions. */
export interface Use {
  document: string;
  revision: number;
}

/** The id of a record of another document, as references have it. */
export const foreignId = (document: string, record: string): string => `${document}.${record}`;

/** The two ids of a reference to another document; undefined where it leads to the own one. */
export function foreignParts(id: string): { document: string; record: string } | undefined {
  const at = id.indexOf('.');
  return at < 0 ? undefined : { document: id.slice(0, at), record: id.slice(at + 1) };
}

/** The documents that a document uses; none where its type uses no others. */
export const usesOf = (document: object): readonly Use[] =>
  (document as { uses?: readonly Use[] }).uses ?? [];
