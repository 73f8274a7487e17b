import type { z } from 'zod';
import type { RecordKind } from './record';

/** What every record of every kind has. */
export interface AnyRecord {
  readonly id: string;
  readonly name: string;
}

/** What every document of every type has. */
export interface AnyDocument {
  readonly id: string;
  readonly name: string;
}

/** Says what stands instead of a reference to a record of a kind: the same id where it stays, null where nothing does. */
export type Instead = (to: string, id: string) => string | null;

/** Says whether there is a record of a kind with that id. */
export type IsThere = (to: string, id: string) => boolean;

/** A field of the head of which the parts change one by one, so that two people can change two of them at once. */
export interface PartedField {
  /** What leads from one value to another; undefined where they are the same. */
  changes(before: unknown, after: unknown): object | undefined;
  with(value: unknown, changes: object): unknown;
  /** True where two changes name the same part. */
  clash(mine: object, theirs: object): boolean;
  /** The value with its references replaced; the very same where all stay. */
  withReferences(value: unknown, of: Instead): unknown;
  /** What one part is called: `setting`. */
  word: string;
  /** What is said where two people changed the same part. */
  clashText: string;
}

/** What the records of one kind are ordered by, where they carry their places themselves. */
export interface Placed {
  kind: string;
  /** The records in their order, or what is wrong with them, in a sentence. */
  ordered(records: readonly AnyRecord[]): readonly AnyRecord[] | string;
  /** True where every record has the place that it had. */
  stand(was: readonly AnyRecord[], is: readonly AnyRecord[]): boolean;
  /** True where the records at those places come after the ones before them and before the ones after them. */
  goUp(places: readonly number[], records: readonly AnyRecord[]): boolean;
  /** What is said where they do not. */
  text: string;
}

/** The schemas of a kind of record. */
export interface RecordSchemas {
  id: z.ZodType<string>;
  fields: z.ZodObject;
  record: z.ZodType;
}

/**
 * What documents of a type are made of: an object with `id`, the fields of the head, and a list for each kind. Differences, inverses, references and
 * merging follow from it.
 */
export interface Structure {
  /** What people call one: `plan`. */
  word: string;
  kinds: Readonly<Record<string, RecordKind>>;
  headFields: readonly string[];
  parted: Readonly<Record<string, PartedField>>;
  placed?: Placed;
}

/** A structure with the schemas of all that is in it; reading, and what may be saved, follow from it. Apart, so that a page need not load the schemas. */
export interface Shape extends Structure {
  /** The format in which its documents are written. */
  format: number;
  /** Of each kind its id, the fields that a person sets, and the record with both. */
  schemas: Readonly<Record<string, RecordSchemas>>;
  head: z.ZodObject;
  /** The whole document. */
  document: z.ZodType;
  /** By the format that a document has: what brings it to the next one. Values that a step does not know stay unchanged. */
  migrations: Readonly<Record<number, (document: Record<string, unknown>) => Record<string, unknown>>>;
}

/** The records of a kind in a document. */
export const listIn = (shape: Structure, document: object, kind: string): readonly AnyRecord[] =>
  (document as Record<string, readonly AnyRecord[]>)[shape.kinds[kind]!.list]!;

/** The document with other records of a kind. */
export const withList = <D extends object>(
  shape: Structure,
  document: D,
  kind: string,
  records: readonly AnyRecord[],
): D => ({ ...document, [shape.kinds[kind]!.list]: records });

/** A field of the head. */
export const fieldIn = (document: object, field: string): unknown =>
  (document as Record<string, unknown>)[field];

/** What of a document is not records. */
export const headIn = (shape: Structure, document: object): Record<string, unknown> =>
  Object.fromEntries(shape.headFields.map((field) => [field, fieldIn(document, field)]));

/** True where both lists have the same ids in the same order. Most edits change records without moving them. */
export const sameIds = (was: readonly AnyRecord[], is: readonly AnyRecord[]): boolean =>
  changedPlaces(was, is) !== null;

/**
 * The places of the records that changed, for lists with the same ids in the same order; null for other lists. One change compares the
 * same two lists several times, in both directions, so the last answer is remembered.
 */
export function changedPlaces(was: readonly AnyRecord[], is: readonly AnyRecord[]): readonly number[] | null {
  const [one, other] = compared;
  if (!((was === one && is === other) || (was === other && is === one)))
    compared = [was, is, placesThatDiffer(was, is)];
  return compared[2];
}

let compared: readonly [readonly AnyRecord[], readonly AnyRecord[], readonly number[] | null] = [[], [], []];

function placesThatDiffer(was: readonly AnyRecord[], is: readonly AnyRecord[]): number[] | null {
  if (was.length !== is.length) return null;
  const places: number[] = [];
  for (let at = 0; at < was.length; at++) {
    if (was[at] === is[at]) continue;
    if (was[at]!.id !== is[at]!.id) return null;
    places.push(at);
  }
  return places;
}
