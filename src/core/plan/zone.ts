import { defineRecord } from '../document/record';

export const ZONE_NAME_LIMIT = 32;

/** Most zones that a plan holds. */
export const ZONE_LIMIT = 1000;

/** Most positions of a knob that are arranged at once. */
export const KNOB_LIMIT = 16;

export const zoneKind = defineRecord({
  kind: 'zone',
  list: 'zones',
  idPrefix: 'zn',
  limit: ZONE_LIMIT,
  refs: { members: 'channel', 'knob.channel': 'channel', scanList: 'scanList' },
  order: 'own',
  words: {
    one: 'zone',
    many: 'zones',
    fields: { id: 'id', name: 'name', members: 'channels', knob: 'knob', scanList: 'scan list' },
  },
});
