import type { z } from 'zod';

/**
 * A kind of record, whole in one file: what it is made of, which fields a person sets, what else it refers to, what it is
 * called. Everything that treats records alike (edits, differences, rows, references) reads this and nothing else.
 *
 * @example export const zoneKind = defineRecord({ kind: 'zone', list: 'zones', schema, fields, refs: { members: 'channel' }, … })
 */
export interface RecordKind {
  kind: string;
  /** The list of the plan that holds them. */
  list: string;
  /** A whole record, its id among it. */
  schema: z.ZodType<{ id: string }>;
  /** What a person sets: everything but the id, and for channels the slot. */
  fields: z.ZodObject;
  /** Most that a plan has. */
  limit: number;
  /** Fields that hold ids of records of another kind, each a list of them without repetition. */
  refs: Readonly<Record<string, string>>;
  /** `slots`: in the order of their slots, which they carry; `own`: in an order of its own that edits change. */
  order: 'slots' | 'own';
  words: { one: string; many: string; fields: Readonly<Record<string, string>> };
}

/** Says what a kind is, with its types kept. */
export const defineRecord = <const K extends RecordKind>(kind: K): K => kind;

/** `1 channel`, `12 channels`. */
export const countOf = (n: number, { words }: Pick<RecordKind, 'words'>): string =>
  n === 1 ? `1 ${words.one}` : `${n} ${words.many}`;
