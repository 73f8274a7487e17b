import { defineRecord } from '../document/record';

export const SCAN_LIST_NAME_LIMIT = 32;

/** Most scan lists that a plan holds, and most channels of one. */
export const SCAN_LIST_LIMITS = { lists: 1000, members: 500 };

/** Where a press of the key is sent while the list is scanned: on the channel that it stopped on, on the one that it began on, or on the first to be looked at. */
export const ANSWERS = ['heard', 'begun', 'first'] as const;
export type Answers = (typeof ANSWERS)[number];

/** The same for people: a scan list answers … */
export const ANSWER_WORDS: Record<Answers, string> = {
  heard: 'on the channel that it stopped on',
  begun: 'on the channel that it began on',
  first: 'on the first priority',
};

export const scanListKind = defineRecord({
  kind: 'scanList',
  list: 'scanLists',
  idPrefix: 'sl',
  later: true,
  limit: SCAN_LIST_LIMITS.lists,
  refs: { members: 'channel', first: 'channel', second: 'channel' },
  order: 'own',
  words: {
    one: 'scan list',
    many: 'scan lists',
    fields: {
      id: 'id',
      name: 'name',
      members: 'channels',
      first: 'first priority',
      second: 'second priority',
      answers: 'where it answers',
      startsItself: 'start by itself',
    },
  },
});
