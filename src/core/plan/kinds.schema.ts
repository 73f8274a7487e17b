import { z } from 'zod';
import { channelFieldsSchema, channelSchema, newChannelSchema } from './channel.schema';
import {
  channelIdSchema,
  receiveListIdSchema,
  scanEdgeIdSchema,
  scanListIdSchema,
  setUpIdSchema,
  skipSetIdSchema,
  talkgroupIdSchema,
  zoneIdSchema,
} from './ids.schema';
import { KIND_NAMES, KINDS, type Kind, type OwnKind } from './kinds';
import { receiveListFieldsSchema, receiveListSchema } from './receive-list.schema';
import { scanEdgeFieldsSchema, scanEdgeSchema } from './scan-edge.schema';
import { scanListFieldsSchema, scanListSchema } from './scan-list.schema';
import { setUpFieldsSchema, setUpSchema } from './set-up.schema';
import { skipSetFieldsSchema, skipSetSchema } from './skip-set.schema';
import { talkgroupFieldsSchema, talkgroupSchema } from './talkgroup.schema';
import { zoneFieldsSchema, zoneSchema } from './zone.schema';

/** Of each kind its id, the fields that a person sets, and the record with both. The schemas of lists and edits are made of these. */
export const SCHEMAS = {
  channel: { id: channelIdSchema, fields: channelFieldsSchema, record: channelSchema },
  leftOver: { id: channelIdSchema, fields: channelFieldsSchema, record: newChannelSchema },
  zone: { id: zoneIdSchema, fields: zoneFieldsSchema, record: zoneSchema },
  skipSet: { id: skipSetIdSchema, fields: skipSetFieldsSchema, record: skipSetSchema },
  scanEdge: { id: scanEdgeIdSchema, fields: scanEdgeFieldsSchema, record: scanEdgeSchema },
  setUp: { id: setUpIdSchema, fields: setUpFieldsSchema, record: setUpSchema },
  talkgroup: { id: talkgroupIdSchema, fields: talkgroupFieldsSchema, record: talkgroupSchema },
  receiveList: { id: receiveListIdSchema, fields: receiveListFieldsSchema, record: receiveListSchema },
  scanList: { id: scanListIdSchema, fields: scanListFieldsSchema, record: scanListSchema },
} as const satisfies Record<Kind, { id: z.ZodType; fields: z.ZodObject; record: z.ZodObject }>;

/** A record of a kind. */
export type RecordOf<K extends Kind> = z.infer<(typeof SCHEMAS)[K]['record']>;

export type IdOf<K extends Kind> = z.infer<(typeof SCHEMAS)[K]['id']>;

/** Fields of a record, as many as are to be set. */
export type SetOf<K extends Kind> = Partial<z.infer<(typeof SCHEMAS)[K]['fields']>>;

export type AnyRecord = RecordOf<Kind>;

/** The plan's lists of records. */
export type Lists = { [K in Kind as (typeof KINDS)[K]['list']]: RecordOf<K>[] };

/** As many records of a kind as a plan may have. */
const listOf = (kind: Kind): z.ZodType => {
  const { limit } = KINDS[kind];
  const list = z.array(SCHEMAS[kind].record).max(limit);
  return 'later' in KINDS[kind] ? list.default([]) : list;
};

export const listsSchema = z.object(
  Object.fromEntries(KIND_NAMES.map((kind) => [KINDS[kind].list, listOf(kind)])) as {
    [L in keyof Lists]: z.ZodType<Lists[L]>;
  },
);

/** A schema that others tell from their like by the values of some of its fields. */
export type Told<E> = z.ZodType<E> & { _zod: { propValues: z.core.util.PropValues } };

export const OWN_KINDS = KIND_NAMES.filter((kind): kind is OwnKind => kind !== 'channel');

/** A schema for each kind with an order of its own, and for `others`, told apart by `kind`. TypeScript cannot follow the loop: `E` says what it comes to. */
export function eachOwnKind<E extends { kind?: Kind | undefined }>(
  of: (kind: OwnKind, schemas: (typeof SCHEMAS)[OwnKind], limit: number) => z.ZodObject,
  ...others: z.ZodObject[]
): Told<E> {
  const all = [...others, ...OWN_KINDS.map((kind) => of(kind, SCHEMAS[kind], KINDS[kind].limit))];
  return z.discriminatedUnion('kind', all as unknown as [Told<E>, ...Told<E>[]]) as unknown as Told<E>;
}
