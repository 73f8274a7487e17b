import { CODES, TONES } from '../../radio';
import type { Model } from '../model.schema';
import { CHARACTERS } from '../tern';

/** Larkmoor Gannet M8: two receivers, two lists, banks. `format.ts` and docs/models/gannet-m8.md have its memory. */
export const gannetM8: Model = {
  id: 'gannet-m8',
  name: 'Gannet M8',
  maker: 'Larkmoor',
  alsoSoldAs: [],
  summary: 'Mobile with two receivers, 2 m and 70 cm on either side, 50 W',
  firmware: '2.01',
  slots: { first: 1, count: 400 },
  lists: [
    { name: 'Left', holds: 'channels' },
    { name: 'Right', holds: 'channels' },
    { name: 'Left home', holds: 'home' },
    { name: 'Right home', holds: 'home' },
  ],
  zones: { word: 'bank', count: 8, name: 7 },
  skipSets: { count: 4, name: 7 },
  scanEdges: { count: 6, name: 0 },
  setUps: { count: 4, name: 7 },
  names: { length: 7, characters: `${CHARACTERS}abcdefghijklmnopqrstuvwxyz` },
  bands: [
    {
      name: '2 m',
      receive: { from: 136_000_000, to: 174_000_000 },
      transmit: { from: 144_000_000, to: 148_000_000 },
    },
    {
      name: '70 cm',
      receive: { from: 400_000_000, to: 480_000_000 },
      transmit: { from: 420_000_000, to: 450_000_000 },
    },
  ],
  steps: [5_000, 6_250, 10_000, 12_500, 15_000, 20_000, 25_000, 50_000],
  modes: ['FM', 'NFM'],
  powers: [
    { label: 'High', milliwatts: 50_000 },
    { label: 'Middle', milliwatts: 20_000 },
    { label: 'Low', milliwatts: 5_000 },
  ],
  options: [{ name: 'cross-band unit', settings: ['crossBand'] }],
  storesPower: true,
  tones: [...TONES],
  codes: [...CODES],
  invertedCodes: true,
  oneTone: false,
  storedShifts: [],
  ownCall: null,
  link: { kind: 'stream', ident: 'GANNETM8', lineRate: 38_400, blockBytes: 512, window: 4 },
  getReady: [
    { what: 'Push the cable into the socket marked DATA at the back.', shows: '', part: 'cable' },
    { what: 'Hold the left knob down and switch the radio on.', shows: 'LINK in both lines', part: 'knob' },
    { what: 'Let the knob go.', shows: 'LINK 38400', part: 'knob' },
  ],
  face: {
    hand: 'larkmoor',
    slot: '{slot:3}',
    decimals: 4,
    marks: {
      sendTone: 'T',
      bothTones: 'T SQ',
      code: 'DCS',
      narrow: 'N',
      lowPower: 'LOW',
      skipped: 'SKIP',
      plus: '+',
      minus: '−',
      split: '+−',
      sending: 'SEND',
      noTransmit: 'NO TX',
    },
    largeLine: { setting: 'showLeft', second: 'showRight', fallback: 'name' },
  },
};
