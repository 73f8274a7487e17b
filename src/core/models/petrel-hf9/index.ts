import { TONES } from '../../radio';
import type { Model } from '../model.schema';
import { ALL_BANDS, CHARACTERS, MARKS } from '../oriel';

/** The tones of the Petrel: all but the eight that were added to the list last. */
const LATER = new Set([1598, 1655, 1713, 1773, 1835, 1899, 1966, 1995]);

/** Oriel Petrel HF9: an all-mode base. `format.ts` and docs/models/petrel-hf9.md have its memory. */
export const petrelHF9: Model = {
  id: 'petrel-hf9',
  name: 'Petrel HF9',
  maker: 'Oriel',
  alsoSoldAs: [],
  summary: 'All-mode base, HF to 70 cm, 100 W',
  firmware: '1.30',
  slots: { first: 1, count: 120 },
  lists: [{ name: 'Memories', holds: 'channels' }],
  zones: null,
  skipSets: null,
  scanEdges: null,
  setUps: null,
  names: { length: 12, characters: CHARACTERS },
  bands: ALL_BANDS,
  steps: [10],
  modes: ['LSB', 'USB', 'CW', 'AM', 'FM'],
  powers: [
    { label: '100 W', milliwatts: 100_000 },
    { label: '50 W', milliwatts: 50_000 },
    { label: '20 W', milliwatts: 20_000 },
    { label: '5 W', milliwatts: 5_000 },
  ],
  options: [{ name: '70 cm unit', bands: ['70 cm'], settings: ['shift70cm'] }],
  storesPower: true,
  tones: TONES.filter((tone) => !LATER.has(tone)),
  codes: [],
  invertedCodes: false,
  oneTone: true,
  storedShifts: [
    { band: '10 m', setting: 'shift10m', range: { from: 28_000_000, to: 29_700_000 }, usual: 100_000 },
    { band: '6 m', setting: 'shift6m', range: { from: 50_000_000, to: 54_000_000 }, usual: 500_000 },
    { band: '2 m', setting: 'shift2m', range: { from: 144_000_000, to: 148_000_000 }, usual: 600_000 },
    { band: '70 cm', setting: 'shift70cm', range: { from: 430_000_000, to: 450_000_000 }, usual: 7_600_000 },
  ],
  ownCall: null,
  link: {
    kind: 'live',
    ident: 'PETRLHF9',
    lineRate: 57_600,
    blockBytes: 512,
    window: 4,
    mains: true,
  },
  getReady: [
    { what: 'Push the cable into the socket marked REMOTE at the back.', shows: '', part: 'cable' },
    {
      what: 'Switch the radio on; in its menu set “Control” to “Computer”.',
      shows: 'PC beside the frequency',
      part: 'menu',
    },
  ],
  face: {
    hand: 'oriel',
    slot: 'mem {slot:3}',
    decimals: 5,
    marks: MARKS,
    largeLine: { setting: 'shows', fallback: 'frequency' },
  },
};
