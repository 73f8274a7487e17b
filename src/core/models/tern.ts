import type { Format, Layout } from '../format';
import { CODES, TONES } from '../radio';
import type { Model } from './model.schema';

/** Where the settings of the Terns lie: at the same places in all of them; their power-on texts are as long as their names. */
export const settings = (greeting: number): Format['settings'] => [
  {
    key: 'showA',
    codec: { kind: 'choice', at: 0x80, shift: 0, width: 2, values: ['name', 'frequency', 'slot'] },
  },
  {
    key: 'showB',
    codec: { kind: 'choice', at: 0x80, shift: 2, width: 2, values: ['name', 'frequency', 'slot'] },
  },
  {
    key: 'squelch',
    codec: { kind: 'choice', at: 0x81, shift: 0, width: 4, values: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] },
  },
  {
    key: 'beep',
    codec: { kind: 'choice', at: 0x82, shift: 0, width: 1, values: [false, true] },
  },
  {
    key: 'keyLock',
    codec: { kind: 'choice', at: 0x82, shift: 1, width: 1, values: [false, true] },
  },
  {
    key: 'busyLock',
    codec: { kind: 'choice', at: 0x82, shift: 2, width: 1, values: [false, true] },
  },
  {
    key: 'timeOut',
    codec: { kind: 'choice', at: 0x83, shift: 0, width: 3, values: [0, 60, 120, 180, 240, 300] },
  },
  {
    key: 'light',
    codec: { kind: 'choice', at: 0x84, shift: 0, width: 2, values: [0, 5, 10, 30] },
  },
  { key: 'greeting', codec: { kind: 'text', at: 0x88, bytes: greeting } },
];

/** A channel record of the Terns, 24 bytes wide, with as many characters of a name as the display has. */
export const channelRow = (name: number): Layout['row'] => ({
  rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
  tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
  send: { kind: 'squelch', at: 8, tonesFrom: 1, codesFrom: 101, inverted: { at: 10, bit: 0 } },
  expect: { kind: 'squelch', at: 9, tonesFrom: 1, codesFrom: 101, inverted: { at: 10, bit: 1 } },
  mode: { kind: 'choice', at: 11, shift: 0, width: 1, values: ['FM', 'NFM'] },
  power: { kind: 'choice', at: 11, shift: 1, width: 1, values: [4000, 1000] },
  name: { kind: 'text', at: 12, bytes: name },
});

/** What their displays can write. */
export const CHARACTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789 -/+.*';

/** What all Terns can do alike, and what their displays write. */
export const tern: Pick<
  Model,
  | 'maker'
  | 'lists'
  | 'zones'
  | 'skipSets'
  | 'scanEdges'
  | 'setUps'
  | 'steps'
  | 'modes'
  | 'powers'
  | 'storesPower'
  | 'tones'
  | 'codes'
  | 'invertedCodes'
  | 'oneTone'
  | 'storedShifts'
  | 'ownCall'
  | 'getReady'
  | 'face'
> = {
  maker: 'Larkmoor',
  lists: [{ name: 'Channels', holds: 'channels' }],
  zones: null,
  skipSets: null,
  scanEdges: null,
  setUps: null,
  steps: [5_000, 6_250, 10_000, 12_500, 25_000],
  modes: ['FM', 'NFM'],
  powers: [
    { label: 'High', milliwatts: 4000 },
    { label: 'Low', milliwatts: 1000 },
  ],
  storesPower: true,
  tones: [...TONES],
  codes: [...CODES],
  invertedCodes: true,
  oneTone: false,
  storedShifts: [],
  ownCall: null,
  getReady: [
    { what: 'Switch the radio off and push the cable into the microphone socket.', shows: '', part: 'cable' },
    { what: 'Switch it on.', shows: 'Its channel, as always', part: 'switch' },
  ],
  face: {
    hand: 'larkmoor',
    slot: 'M-{slot:3}',
    decimals: 4,
    marks: {
      sendTone: 'T',
      bothTones: 'T SQ',
      code: 'DCS',
      narrow: 'N',
      lowPower: 'L',
      skipped: 'SKIP',
      plus: '+',
      minus: '−',
      split: '+−',
      sending: 'SEND',
      noTransmit: 'NO TX',
    },
    largeLine: { setting: 'showA', fallback: 'name' },
  },
};
