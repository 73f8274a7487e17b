import { defineRecord } from '../document/record';

export const SET_UP_NAME_LIMIT = 32;

/** Most quick set-ups that a plan holds. */
export const SET_UP_LIMIT = 100;

/** Where a side stands when a quick set-up is called: on its dial, on its home channel, or on a channel of its list. */
export const BEGINNINGS = ['dial', 'home', 'memory'] as const;
export type Beginning = (typeof BEGINNINGS)[number];

/** What a side shows of its channel. */
export const SHOWS = ['name', 'frequency'] as const;

/** Figures of an automatic dial: those of a keypad with sixteen keys. */
export const AUTO_DIAL = /^[0-9A-D*#]{0,16}$/;

/** The fields of a side, in the order in which people set them, with their words. */
export const SIDE_WORDS = [
  ['begins', 'begins on'],
  ['zone', 'bank'],
  ['start', 'first channel'],
  ['scanning', 'scanning'],
  ['skipSet', 'skip set'],
  ['shows', 'shows'],
  ['autoDial', 'automatic dial'],
] as const;

export const setUpKind = defineRecord({
  kind: 'setUp',
  list: 'setUps',
  idPrefix: 'qs',
  limit: SET_UP_LIMIT,
  refs: { 'sides.zone': 'zone', 'sides.start': 'channel', 'sides.skipSet': 'skipSet' },
  order: 'own',
  words: { one: 'quick set-up', many: 'quick set-ups', fields: { id: 'id', name: 'name', sides: 'sides' } },
});
