import { z } from 'zod';
import { text, trimmedText, wantedText } from '../text.schema';
import { accessSchema, HIGHEST_POWER, isFrequency, MODES, type Mode } from '../radio';
import {
  channelIdSchema,
  receiveListReferenceSchema,
  scanListReferenceSchema,
  talkgroupReferenceSchema,
} from './ids.schema';
import {
  FITTED_LIMIT,
  LEVELS,
  LIST_LIMIT,
  MARKED_COLUMNS,
  NAME_LIMIT,
  POLITENESS,
  SLOT_LIMIT,
  TAG_LIMITS,
  UNCLEAR_LIMIT,
} from './channel';

export const frequencySchema = z
  .int('is not a whole number of Hz')
  .refine(isFrequency, 'is not a frequency from 8.3 kHz to 275 GHz in whole tens of Hz');

/** Where a channel came from: a directory's row, kept so that it can be recognised and refreshed. */
export const sourceSchema = z.object({
  directory: text(40),
  entry: text(80),
  service: text(40),
  call: text(16).optional(),
  place: text(60).optional(),
  lat: z.number().min(-90).max(90).optional(),
  lon: z.number().min(-180).max(180).optional(),
});

export const politenessSchema = z.discriminatedUnion('to', [
  z.object({ to: z.enum([POLITENESS[0], POLITENESS[1]]) }),
  /** `level`: dBm from which on the channel is busy. */
  z.object({ to: z.literal(POLITENESS[2]), level: z.int().min(LEVELS.lowest).max(LEVELS.highest) }),
]);
export type Politeness = z.infer<typeof politenessSchema>;

/** What a person sets on a channel: everything but its id and slot. */
export const channelFieldsSchema = z.object({
  name: trimmedText(NAME_LIMIT),
  /** Names fitted by hand, by model id; the fitter leaves them alone. */
  fitted: z
    .record(text(40), text(NAME_LIMIT))
    .refine(
      (names) => Object.keys(names).length <= FITTED_LIMIT,
      `has names for more than ${FITTED_LIMIT} models`,
    ),
  rx: frequencySchema,
  /** Absolute; null is listen only. */
  tx: frequencySchema.nullable(),
  /** Transmit was entered as a frequency of its own and does not follow receive. */
  txFixed: z.boolean(),
  access: accessSchema,
  mode: z.enum(MODES as [Mode, ...Mode[]]),
  /** Wanted power in mW; the fit takes the radio's nearest. */
  power: z.int().min(1).max(HIGHEST_POWER),
  scan: z.boolean(),
  /** Never falls silent: a broadcast, a beacon. */
  alwaysOn: z.boolean(),
  /** Works a satellite: its two sides belong together, whatever lies between them. Optional: older plans have none. */
  satellite: z.boolean().optional(),
  /** Whom a digital channel calls. This and the next are optional: older plans, and analogue channels, have none. */
  talkgroup: talkgroupReferenceSchema.nullable().optional(),
  /** What is heard on it besides its own talkgroup. */
  receiveList: receiveListReferenceSchema.nullable().optional(),
  /** What is looked at when the scan is begun on it. */
  scanList: scanListReferenceSchema.nullable().optional(),
  /** When it may send; impolite where it is not said. */
  politeness: politenessSchema.optional(),
  note: text(500),
  /** A person's own words to find it by. Optional: older plans have none. */
  tags: z.array(wantedText(TAG_LIMITS.length)).max(TAG_LIMITS.count).optional(),
  source: sourceSchema.nullable(),
  /**
   * What was typed into a cell and not understood, by column, until it is put right: part of the plan, so that it is not lost, and a stop in
   * Check. Optional: most channels have none.
   */
  unclear: z.partialRecord(z.enum(MARKED_COLUMNS), text(UNCLEAR_LIMIT)).optional(),
});

export const channelSchema = channelFieldsSchema.extend({
  id: channelIdSchema,
  /** Which of the radio's lists its slot is in: 0 is the first, which every radio has. Plans of format 1 know one list. */
  list: z
    .int()
    .min(0)
    .max(LIST_LIMIT - 1)
    .default(0),
  slot: z.int().min(0).max(SLOT_LIMIT),
});
export type ChannelFields = z.infer<typeof channelFieldsSchema>;

/** One receive and transmit arrangement with a name, in a slot. */
export type Channel = z.infer<typeof channelSchema>;

/** A channel without a slot: one that is new, or left over. */
export const newChannelSchema = channelFieldsSchema.extend({ id: channelIdSchema });
export type NewChannel = z.infer<typeof newChannelSchema>;
