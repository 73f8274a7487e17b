import { z } from 'zod';
import { POLITENESS } from '../plan/channel';
import { MODES, squelchSchema, type Mode } from '../radio';

/** What a digital channel is beside its frequencies; talkgroups and lists by the radio's own numbers. */
export const fittedDigitalSchema = z.object({
  colourCode: z.int().min(0).max(15),
  timeSlot: z.union([z.literal(1), z.literal(2)]),
  talkgroup: z.int().min(1).nullable(),
  receiveList: z.int().min(1).nullable(),
  politeness: z.enum(POLITENESS),
  /** dBm; null where the radio has one of its own, or none is wanted. */
  level: z.int().nullable(),
});
export type FittedDigital = z.infer<typeof fittedDigitalSchema>;

/** A channel as a radio holds it: what the fit works out, and what the bytes say. */
export const fittedChannelSchema = z.object({
  /** Which of the radio's lists it is in; 0 is the first. */
  list: z.int().min(0),
  slot: z.int().min(0),
  name: z.string(),
  rx: z.number(),
  /** null is listen only. */
  tx: z.number().nullable(),
  /** Kept as two frequencies by a radio that stores one shift a band, and shown as such. */
  split: z.literal(true).optional(),
  send: squelchSchema.nullable(),
  expect: squelchSchema.nullable(),
  mode: z.enum(MODES as [Mode, ...Mode[]]),
  /** mW, one of the model's; the highest where a memory knows no power. */
  power: z.number(),
  scan: z.boolean(),
  digital: fittedDigitalSchema.optional(),
  /** The number of its scan list, where the radio keeps that by channel; null for none. */
  scanList: z.int().min(1).nullable().optional(),
});
export type FittedChannel = z.infer<typeof fittedChannelSchema>;
