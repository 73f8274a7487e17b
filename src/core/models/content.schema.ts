import { z } from 'zod';
import { ANSWERS } from '../plan/scan-list';
import { CALLS } from '../plan/talkgroup';
import { fittedChannelSchema } from './fitted-channel.schema';

/** What a radio holds beside its channels, by the radio's own numbers. */

const number = z.int().min(0);
const slots = z.array(number);

/** A bank of a list: its channels by slot. */
export const fittedZoneSchema = z.object({
  list: number,
  number,
  name: z.string(),
  slots,
  /** What each position of the knob turns to, from 1 on, 0 where it is empty; on radios with such a knob. */
  knob: slots.optional(),
  /** The number of its scan list, where the radio keeps that by zone; null for none. */
  scanList: number.nullable().optional(),
});
export type FittedZone = z.infer<typeof fittedZoneSchema>;

/** A skip set: its channels by list and slot. */
export const fittedSkipSetSchema = z.object({
  number,
  name: z.string(),
  way: z.enum(['all but', 'only']),
  slots: z.array(slots),
});
export type FittedSkipSet = z.infer<typeof fittedSkipSetSchema>;

/** A pair of scan edges, Hz. */
export const fittedScanEdgeSchema = z.object({ list: number, number, from: z.number(), to: z.number() });
export type FittedScanEdge = z.infer<typeof fittedScanEdgeSchema>;

/** A quick set-up; zones and skip sets by number, channels by slot. */
export const fittedSetUpSchema = z.object({
  number,
  name: z.string(),
  sides: z.array(
    z.object({
      begins: z.enum(['dial', 'home', 'memory']),
      zone: number.nullable(),
      start: number.nullable(),
      skipSet: number.nullable(),
      scanning: z.boolean(),
      shows: z.enum(['name', 'frequency']),
      autoDial: z.string(),
    }),
  ),
});
export type FittedSetUp = z.infer<typeof fittedSetUpSchema>;

/** Whom digital channels call: `address` is the number of the group or the radio. */
export const fittedTalkgroupSchema = z.object({
  number,
  name: z.string(),
  address: number,
  call: z.enum(CALLS),
});
export type FittedTalkgroup = z.infer<typeof fittedTalkgroupSchema>;

/** What is heard on a channel besides its own talkgroup: talkgroups by number. */
export const fittedReceiveListSchema = z.object({ number, name: z.string(), members: z.array(number) });
export type FittedReceiveList = z.infer<typeof fittedReceiveListSchema>;

/** Channels that are looked at in turn, by slot and in their order. */
export const fittedScanListSchema = z.object({
  number,
  name: z.string(),
  slots,
  first: number.nullable(),
  second: number.nullable(),
  answers: z.enum(ANSWERS),
  startsItself: z.boolean(),
});
export type FittedScanList = z.infer<typeof fittedScanListSchema>;

/** All that a radio holds and Veridon knows of: worked out of a plan, or read from bytes. */
export const contentSchema = z.object({
  /** By list, then by slot. */
  channels: z.array(fittedChannelSchema),
  zones: z.array(fittedZoneSchema),
  skipSets: z.array(fittedSkipSetSchema),
  scanEdges: z.array(fittedScanEdgeSchema),
  setUps: z.array(fittedSetUpSchema),
  talkgroups: z.array(fittedTalkgroupSchema),
  receiveLists: z.array(fittedReceiveListSchema),
  scanLists: z.array(fittedScanListSchema),
});
export type Content = z.infer<typeof contentSchema>;

/** A content with nothing in it. */
export const noContent = (): Content => ({
  channels: [],
  zones: [],
  skipSets: [],
  scanEdges: [],
  setUps: [],
  talkgroups: [],
  receiveLists: [],
  scanLists: [],
});
