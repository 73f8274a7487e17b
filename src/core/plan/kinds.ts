import { channelKind } from './channel';
import { leftOverKind } from './left-over';
import { receiveListKind } from './receive-list';
import { scanEdgeKind } from './scan-edge';
import { scanListKind } from './scan-list';
import { setUpKind } from './set-up';
import { skipSetKind } from './skip-set';
import { talkgroupKind } from './talkgroup';
import { zoneKind } from './zone';
import type { AnyRecord, Lists, RecordOf } from './kinds.schema';

/**
 * Every kind of record that a plan has. A new kind is a file with its schema beside it, its id in `ids.schema.ts`, a line here and one in
 * `kinds.schema.ts`; the schemas of the plan and of edits, and all that treats records alike, follow.
 */
export const KINDS = {
  channel: channelKind,
  leftOver: leftOverKind,
  // What others refer to comes before them: so they are put in this order.
  talkgroup: talkgroupKind,
  receiveList: receiveListKind,
  scanList: scanListKind,
  zone: zoneKind,
  skipSet: skipSetKind,
  scanEdge: scanEdgeKind,
  setUp: setUpKind,
} as const;

export type Kind = keyof typeof KINDS;

/** The kinds with an order of their own, which the general edits put, change, remove and order. */
export type OwnKind = Exclude<Kind, 'channel'>;

export const KIND_NAMES = Object.keys(KINDS) as Kind[];

/** A plan's lists with nothing in them. */
export const emptyLists = (): Lists =>
  Object.fromEntries(KIND_NAMES.map((kind) => [KINDS[kind].list, []])) as unknown as Lists;

/** The records of a kind in a plan. */
export function recordsOf<K extends Kind>(plan: Lists, kind: K): readonly RecordOf<K>[] {
  // The lists are named for their kinds above, which TypeScript cannot follow through the index.
  return plan[KINDS[kind].list] as unknown as readonly RecordOf<K>[];
}

/** The plan with other records of a kind. */
export function withRecords<P extends Lists>(plan: P, kind: Kind, records: readonly AnyRecord[]): P {
  return { ...plan, [KINDS[kind].list]: records };
}
