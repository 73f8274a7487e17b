import { channelKind } from './channel';
import { zoneKind } from './zone';
import type { AnyRecord, Lists, RecordOf } from './kinds.schema';

/**
 * Every kind of record that a plan has. A new kind is a file with its schema beside it, and a line here and in each list of
 * `kinds.schema.ts`; all that treats records alike follows.
 */
export const KINDS = { channel: channelKind, zone: zoneKind } as const;

export type Kind = keyof typeof KINDS;

export const KIND_NAMES = Object.keys(KINDS) as Kind[];

/** The records of a kind in a plan. */
export function recordsOf<K extends Kind>(plan: Lists, kind: K): readonly RecordOf<K>[] {
  // The lists are named for their kinds above, which TypeScript cannot follow through the index.
  return plan[KINDS[kind].list] as unknown as readonly RecordOf<K>[];
}

/** The plan with other records of a kind. */
export function withRecords<P extends Lists>(plan: P, kind: Kind, records: readonly AnyRecord[]): P {
  return { ...plan, [KINDS[kind].list]: records };
}

/** The ids that a record refers to, by field: its references. */
export function referencesOf(
  kind: Kind,
  record: AnyRecord,
): { field: string; to: Kind; ids: readonly string[] }[] {
  return Object.entries(KINDS[kind].refs).map(([field, to]) => ({
    field,
    to: to as Kind,
    ids: (record as unknown as Record<string, readonly string[]>)[field]!,
  }));
}
