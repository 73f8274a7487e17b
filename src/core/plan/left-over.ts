import { CHANNEL_LIMIT, CHANNEL_REFS, FIELD_NAMES } from './channel';
import type { Channel, NewChannel } from './channel.schema';
import { defineRecord } from '../document/record';

/** Channels that found no room in the radio: kept in the plan without a slot, beside the table, until they are placed or dropped. */
export const leftOverKind = defineRecord({
  kind: 'leftOver',
  list: 'leftOver',
  idPrefix: 'ch',
  later: true,
  limit: CHANNEL_LIMIT,
  refs: CHANNEL_REFS,
  order: 'own',
  words: { one: 'channel left over', many: 'channels left over', fields: FIELD_NAMES },
});

/** A channel as it waits without a slot, with its id. */
export const withoutSlot = ({ slot: _, list: _list, ...rest }: Channel): NewChannel => rest;
