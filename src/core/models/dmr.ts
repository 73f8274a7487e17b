import type { Format, Layout } from '../format';
import { TONES } from '../radio';

/** What the digital handhelds have in common: how their records lie. */

/** A channel record, 40 bytes wide, with these powers, highest first, and the levels in dBm that it takes, where it takes any. */
export const channelRow = (
  powers: readonly number[],
  levels: { from: number; to: number } | null,
  scanList: Layout['row'],
): Layout['row'] => ({
  rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
  tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
  send: { kind: 'squelch', at: 8, tonesFrom: 1, codesFrom: 1 + TONES.length, inverted: { at: 10, bit: 0 } },
  expect: { kind: 'squelch', at: 9, tonesFrom: 1, codesFrom: 1 + TONES.length, inverted: { at: 10, bit: 1 } },
  mode: { kind: 'choice', at: 11, shift: 0, width: 2, values: ['FM', 'NFM', 'DMR'] },
  power: { kind: 'choice', at: 11, shift: 2, width: 2, values: [...powers] },
  timeSlot: { kind: 'choice', at: 11, shift: 4, width: 1, values: [1, 2] },
  politeness: { kind: 'choice', at: 11, shift: 5, width: 2, values: ['impolite', 'own colour code', 'all'] },
  scan: { kind: 'flag', at: 11, bit: 7 },
  colourCode: { kind: 'choice', at: 12, shift: 0, width: 4, values: Array.from({ length: 16 }, (_, n) => n) },
  ...(levels && {
    level: {
      kind: 'choice' as const,
      ...{ at: 13, shift: 0, width: 7 },
      values: Array.from({ length: levels.to - levels.from + 1 }, (_, n) => levels.from + n),
    },
  }),
  talkgroup: { kind: 'whole', at: 14, bytes: 2 },
  receiveList: { kind: 'whole', at: 16, bytes: 2 },
  ...scanList,
  name: { kind: 'text', at: 20, bytes: 16 },
});

/** Talkgroups, and people among them: 24 bytes each. */
export const talkgroups = (count: number, used: number, at: number): Layout => ({
  table: 'talkgroups',
  ...{ at, stride: 24, count, first: 1 },
  present: { kind: 'bitmap', at: used },
  row: {
    name: { kind: 'text', at: 0, bytes: 16 },
    address: { kind: 'whole', at: 16, bytes: 4 },
    call: { kind: 'choice', at: 20, shift: 0, width: 2, values: ['group', 'private', 'all'] },
  },
});

/** Receive lists: a name and places for talkgroups. */
export const receiveLists = (
  count: number,
  members: number,
  { used, at, stride }: { used: number; at: number; stride: number },
): Layout => ({
  table: 'receiveLists',
  ...{ at, stride, count, first: 1 },
  present: { kind: 'bitmap', at: used },
  row: {
    name: { kind: 'text', at: 0, bytes: 16 },
    members: { kind: 'numbers', at: 16, bytes: 2, count: members },
  },
});

/** Scan lists: a name, two priorities, what it does, and places for channels. */
export const scanLists = (
  count: number,
  members: number,
  answers: string[],
  { used, at, stride }: { used: number; at: number; stride: number },
): Layout => ({
  table: 'scanLists',
  ...{ at, stride, count, first: 1 },
  present: { kind: 'bitmap', at: used },
  row: {
    name: { kind: 'text', at: 0, bytes: 16 },
    first: { kind: 'whole', at: 16, bytes: 2 },
    second: { kind: 'whole', at: 18, bytes: 2 },
    answers: { kind: 'choice', at: 20, shift: 0, width: 2, values: answers },
    startsItself: { kind: 'flag', at: 20, bit: 2 },
    slots: { kind: 'numbers', at: 22, bytes: 2, count: members },
  },
});

/** Where the settings of both lie, from 0x100 on. */
export const settings: Format['settings'] = [
  {
    key: 'radioId',
    codec: { kind: 'whole', at: 0x0100, bytes: 4 },
  },
  { key: 'ownCall', codec: { kind: 'text', at: 0x0104, bytes: 10 } },
  {
    key: 'shows',
    codec: { kind: 'choice', at: 0x0110, shift: 0, width: 2, values: ['name', 'frequency', 'slot'] },
  },
  {
    key: 'beep',
    codec: { kind: 'choice', at: 0x0110, shift: 2, width: 1, values: [false, true] },
  },
  {
    key: 'timeOut',
    codec: { kind: 'choice', at: 0x0111, shift: 0, width: 3, values: [0, 60, 120, 180, 300, 600] },
  },
  {
    key: 'alias',
    codec: { kind: 'choice', at: 0x0110, shift: 3, width: 1, values: [false, true] },
  },
  { key: 'greeting', codec: { kind: 'text', at: 0x0120, bytes: 16 } },
];

/** What their displays can write. */
export const CHARACTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 -/+.*()&#:';
