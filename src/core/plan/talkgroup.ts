import { defineRecord } from '../document/record';

export const TALKGROUP_NAME_LIMIT = 32;

/** Most talkgroups and people that a plan holds. */
export const TALKGROUP_LIMIT = 10_000;

/** Whom a call is for: a group, one radio, or everybody on the channel. */
export const CALLS = ['group', 'private', 'all'] as const;
export type Call = (typeof CALLS)[number];

/** The highest number of a group or a radio (ETSI TS 102 361-1, annex A: those above are for special uses). */
export const HIGHEST_NUMBER = 0xfffcdf;

/** The number of a call to everybody (ETSI TS 102 361-1, annex A). */
export const ALL_CALL = 0xffffff;

export const talkgroupKind = defineRecord({
  kind: 'talkgroup',
  list: 'talkgroups',
  idPrefix: 'tg',
  later: true,
  limit: TALKGROUP_LIMIT,
  refs: {},
  order: 'own',
  words: {
    one: 'talkgroup',
    many: 'talkgroups',
    fields: { id: 'id', name: 'name', number: 'number', call: 'kind of call', encrypted: 'encrypted' },
  },
});
