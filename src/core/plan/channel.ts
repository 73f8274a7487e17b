import { OPEN } from '../radio';
import { defineRecord } from '../document/record';
import type { ChannelFields, Channel } from './channel.schema';

export const NAME_LIMIT = 32;

/** Highest slot number that a plan can hold, whatever the model. */
export const SLOT_LIMIT = 9999;

/** Most channels that a plan holds. */
export const CHANNEL_LIMIT = SLOT_LIMIT + 1;

/** Most models for which one channel has a name fitted by hand. */
export const FITTED_LIMIT = 32;

/** The longest text that a cell keeps which was not understood. */
export const UNCLEAR_LIMIT = 60;

/** Columns whose cells can keep such a text: all that are typed but the slot, which is no field. */
export const MARKED_COLUMNS = ['name', 'rx', 'tx', 'access', 'mode', 'power', 'scan'] as const;
export type MarkedColumn = (typeof MARKED_COLUMNS)[number];

/** Most tags that one channel has, and the longest. */
export const TAG_LIMITS = { count: 12, length: 24 };

/** Most lists of slots that a radio has: sides, or memories and presets. */
export const LIST_LIMIT = 8;

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
  talkgroup: 'talkgroup',
  receiveList: 'receive list',
  scanList: 'scan list',
  politeness: 'when it may send',
  note: 'note',
  tags: 'tags',
  unclear: 'texts not understood',
  source: 'source',
};

/** What a channel refers to, left over or not. */
export const CHANNEL_REFS = {
  talkgroup: 'talkgroup',
  receiveList: 'receiveList',
  scanList: 'scanList',
} as const;

/**
 * When a digital channel may send, in the words of ETSI TS 102 361-1: whatever is heard; unless a radio of its own colour code is
 * heard; unless anything is heard that is louder than a level.
 */
export const POLITENESS = ['impolite', 'own colour code', 'all'] as const;

/** When a digital channel may send, for people: the words of ETSI TS 102 361-1. */
export const POLITENESS_WORDS: Record<(typeof POLITENESS)[number], string> = {
  impolite: 'impolite',
  'own colour code': 'polite to its own colour code',
  all: 'polite to all',
};

/** The levels in dBm from which on a channel counts as busy. */
export const LEVELS = { lowest: -130, highest: -60, usual: -110 };

export const channelKind = defineRecord({
  kind: 'channel',
  list: 'channels',
  idPrefix: 'ch',
  limit: CHANNEL_LIMIT,
  refs: CHANNEL_REFS,
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
