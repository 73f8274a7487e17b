import { defineRecord } from '../document/record';

export const RECEIVE_LIST_NAME_LIMIT = 32;

/** Most receive lists that a plan holds, and most talkgroups of one. */
export const RECEIVE_LIST_LIMITS = { lists: 1000, members: 500 };

export const receiveListKind = defineRecord({
  kind: 'receiveList',
  list: 'receiveLists',
  idPrefix: 'rl',
  later: true,
  limit: RECEIVE_LIST_LIMITS.lists,
  refs: { members: 'talkgroup' },
  order: 'own',
  words: {
    one: 'receive list',
    many: 'receive lists',
    fields: { id: 'id', name: 'name', members: 'talkgroups' },
  },
});
