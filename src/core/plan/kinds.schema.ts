import { z } from 'zod';
import { channelKind } from './channel';
import { channelSchema, newChannelSchema } from './channel.schema';
import type { Kind } from './kinds';
import { leftOverKind } from './left-over';
import { receiveListKind } from './receive-list';
import { receiveListSchema } from './receive-list.schema';
import { scanEdgeKind } from './scan-edge';
import { scanEdgeSchema } from './scan-edge.schema';
import { scanListKind } from './scan-list';
import { scanListSchema } from './scan-list.schema';
import { setUpKind } from './set-up';
import { setUpSchema } from './set-up.schema';
import { skipSetKind } from './skip-set';
import { skipSetSchema } from './skip-set.schema';
import { talkgroupKind } from './talkgroup';
import { talkgroupSchema } from './talkgroup.schema';
import { zoneKind } from './zone';
import { zoneSchema } from './zone.schema';

/** What a record of each kind is made of, its id among it. */
export const SCHEMAS = {
  channel: channelSchema,
  leftOver: newChannelSchema,
  zone: zoneSchema,
  skipSet: skipSetSchema,
  scanEdge: scanEdgeSchema,
  setUp: setUpSchema,
  talkgroup: talkgroupSchema,
  receiveList: receiveListSchema,
  scanList: scanListSchema,
} as const satisfies Record<Kind, z.ZodType>;

/** The plan's lists of records. */
export const listsSchema = z.object({
  channels: z.array(SCHEMAS.channel).max(channelKind.limit),
  /** Plans of before there were any have none. */
  leftOver: z.array(SCHEMAS.leftOver).max(leftOverKind.limit).default([]),
  zones: z.array(SCHEMAS.zone).max(zoneKind.limit),
  skipSets: z.array(SCHEMAS.skipSet).max(skipSetKind.limit),
  scanEdges: z.array(SCHEMAS.scanEdge).max(scanEdgeKind.limit),
  setUps: z.array(SCHEMAS.setUp).max(setUpKind.limit),
  /** Plans of before digital radios have none of these. */
  talkgroups: z.array(SCHEMAS.talkgroup).max(talkgroupKind.limit).default([]),
  receiveLists: z.array(SCHEMAS.receiveList).max(receiveListKind.limit).default([]),
  scanLists: z.array(SCHEMAS.scanList).max(scanListKind.limit).default([]),
});
export type Lists = z.infer<typeof listsSchema>;

/** A record of a kind. */
export type RecordOf<K extends Kind> = z.infer<(typeof SCHEMAS)[K]>;

export type IdOf<K extends Kind> = RecordOf<K>['id'];

export type AnyRecord = RecordOf<Kind>;
