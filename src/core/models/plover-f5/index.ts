import { CODES, TONES } from '../../radio';
import type { Model } from '../model.schema';
import { CHARACTERS, MARKS } from '../oriel';

/** Oriel Plover F5: FM and C4FM handheld with a memory card. `format.ts` and docs/models/plover-f5.md have its card. */
export const ploverF5: Model = {
  id: 'plover-f5',
  name: 'Plover F5',
  maker: 'Oriel',
  alsoSoldAs: [],
  summary: 'FM and C4FM handheld, 2 m and 70 cm, airband receive, 5 W',
  firmware: '1.12',
  slots: { first: 1, count: 800 },
  lists: [{ name: 'Channels', holds: 'channels' }],
  zones: { word: 'bank', count: 20, name: 16 },
  skipSets: null,
  scanEdges: null,
  setUps: null,
  names: { length: 16, characters: CHARACTERS },
  bands: [
    { name: 'air', receive: { from: 108_000_000, to: 136_999_999 }, transmit: null },
    {
      name: '2 m',
      receive: { from: 137_000_000, to: 174_000_000 },
      transmit: { from: 144_000_000, to: 148_000_000 },
    },
    {
      name: '70 cm',
      receive: { from: 400_000_000, to: 480_000_000 },
      transmit: { from: 420_000_000, to: 450_000_000 },
    },
  ],
  steps: [5_000, 6_250, '8.33', 10_000, 12_500, 15_000, 20_000, 25_000, 50_000, 100_000],
  modes: ['FM', 'NFM', 'AM', 'C4FM'],
  powers: [
    { label: '5 W', milliwatts: 5_000 },
    { label: '2.5 W', milliwatts: 2_500 },
    { label: '1 W', milliwatts: 1_000 },
    { label: '0.1 W', milliwatts: 100 },
  ],
  storesPower: true,
  tones: [...TONES],
  codes: [...CODES],
  invertedCodes: true,
  oneTone: false,
  storedShifts: [],
  ownCall: 'ownCall',
  link: { kind: 'card', ident: 'PLOVERF5' },
  getReady: [
    { what: 'In the radio’s menu choose “Card” and then “Save all to card”.', shows: 'Saved', part: 'menu' },
    {
      what: 'Switch it off, take the card out of its left side and put it into the computer.',
      shows: '',
      part: 'card',
    },
    {
      what: 'Put the card back, switch the radio on and choose “Card” and then “Load all from card”.',
      shows: 'Loaded',
      part: 'menu',
      when: 'after',
    },
  ],
  face: {
    hand: 'oriel',
    slot: 'ch {slot:3}',
    decimals: 4,
    marks: MARKS,
    largeLine: { setting: 'shows', fallback: 'name' },
  },
};
