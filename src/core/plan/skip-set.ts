import { defineRecord } from '../document/record';

export const SET_NAME_LIMIT = 32;

/** Most skip sets that a plan holds. */
export const SKIP_SET_LIMIT = 100;

/** How a skip set is meant: the scan takes all but its channels, or only those. */
export const SCAN_WAYS = ['all but', 'only'] as const;
export type ScanWay = (typeof SCAN_WAYS)[number];

export const skipSetKind = defineRecord({
  kind: 'skipSet',
  list: 'skipSets',
  idPrefix: 'sk',
  limit: SKIP_SET_LIMIT,
  refs: { members: 'channel' },
  order: 'own',
  words: {
    one: 'skip set',
    many: 'skip sets',
    fields: { id: 'id', name: 'name', way: 'way', members: 'channels' },
  },
});
