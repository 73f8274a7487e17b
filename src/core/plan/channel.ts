import { z } from 'zod';
import { text, trimmedText } from '../text';
import { accessSchema, HIGHEST_POWER, isFrequency, MODES, OPEN, type Mode } from '../radio';
import { channelIdSchema } from './ids';
import { defineRecord } from './record';

export const NAME_LIMIT = 32;
/** Highest slot number that a plan can hold, whatever the model. */
export const SLOT_LIMIT = 9999;
/** Most channels that a plan holds. */
export const CHANNEL_LIMIT = SLOT_LIMIT + 1;
/** Most models for which one channel has a name fitted by hand. */
export const FITTED_LIMIT = 32;

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
  note: text(500),
  source: sourceSchema.nullable(),
});

/** Most lists of slots that a radio has: sides, or memories and presets. */
export const LIST_LIMIT = 8;

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

/** A channel without a slot yet. */
export const newChannelSchema = channelFieldsSchema.extend({ id: channelIdSchema });

/** What the fields of a channel are called on screen and in messages; the one list of them. */
export const FIELD_NAMES: Record<keyof Channel, string> = {
  id: 'id',
  list: 'side',
  slot: 'slot',
  name: 'name',
  fitted: 'name on the radio',
  rx: 'receive',
  tx: 'transmit',
  txFixed: 'transmit',
  access: 'access',
  mode: 'mode',
  power: 'power',
  scan: 'scan',
  alwaysOn: 'always on',
  satellite: 'working a satellite',
  note: 'note',
  source: 'source',
};

export const channelKind = defineRecord({
  kind: 'channel',
  list: 'channels',
  schema: channelSchema,
  fields: channelFieldsSchema,
  limit: CHANNEL_LIMIT,
  refs: {},
  order: 'slots',
  words: { one: 'channel', many: 'channels', fields: FIELD_NAMES },
});

/** The fields of a plain channel: same frequency both ways, open, FM, 4 W, scanned. */
export function channelDefaults(rx: number): ChannelFields {
  return {
    name: '',
    fitted: {},
    rx,
    tx: rx,
    txFixed: false,
    access: OPEN,
    mode: 'FM',
    power: 4000,
    scan: true,
    alwaysOn: false,
    note: '',
    source: null,
  };
}
