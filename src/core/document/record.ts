/**
 * A kind of record: what it refers to, how many there may be, what it is called. Everything that treats records alike (edits,
 * differences, rows, references) reads this and nothing else. What it is made of stands beside it, in its schema.
 *
 * @example export const zoneKind = defineRecord({ kind: 'zone', list: 'zones', refs: { members: 'channel' }, … })
 */
export interface RecordKind {
  kind: string;
  /** The list of the plan that holds them. */
  list: string;
  /** What ids of its records begin with. */
  idPrefix: string;
  /** True where plans of the present format may be without the list: it came later. */
  later?: boolean;
  /** Most that a plan has. */
  limit: number;
  /** Where ids of records of another kind stand, by path: a list of ids without repetition, or one or null; through lists of parts (`sides.zone`). */
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
