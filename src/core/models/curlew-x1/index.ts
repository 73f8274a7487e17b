import { CODES, TONES } from '../../radio';
import type { Model } from '../model.schema';
import { ALL_BANDS, CHARACTERS, MARKS } from '../oriel';

/** Oriel Curlew X1: a field transceiver from HF to 70 cm. `format.ts` and docs/models/curlew-x1.md have its memory. */
export const curlewX1: Model = {
  id: 'curlew-x1',
  name: 'Curlew X1',
  maker: 'Oriel',
  alsoSoldAs: [],
  summary: 'Field transceiver, HF to 70 cm, all modes, 10 W, APRS and GNSS',
  firmware: '3.02',
  slots: { first: 1, count: 500 },
  lists: [{ name: 'Memories', holds: 'channels' }],
  zones: null,
  skipSets: null,
  scanEdges: null,
  setUps: null,
  names: { length: 12, characters: CHARACTERS },
  bands: ALL_BANDS,
  steps: [10],
  modes: ['LSB', 'USB', 'CW', 'AM', 'FM', 'NFM'],
  powers: [
    { label: '10 W', milliwatts: 10_000 },
    { label: '5 W', milliwatts: 5_000 },
    { label: '2 W', milliwatts: 2_000 },
    { label: '0.5 W', milliwatts: 500 },
  ],
  options: [{ name: 'GNSS receiver', settings: ['gnss'] }],
  storesPower: false,
  tones: [...TONES],
  codes: [...CODES],
  invertedCodes: true,
  oneTone: false,
  storedShifts: [],
  ownCall: null,
  link: {
    kind: 'block',
    ident: 'CURLEWX1',
    lineRate: 115_200,
    blockBytes: 512,
    window: 8,
    // The memories, and what knows the transmitter: the set changes from one to the other by itself.
    modules: [
      { name: 'Memories', bytes: 0x4400 },
      { name: 'Transmitter', bytes: 0x1c00 },
    ],
  },
  getReady: [
    { what: 'Push the cable into the USB socket below the battery.', shows: '', part: 'cable' },
    { what: 'Switch the radio on; in its menu choose “Computer”.', shows: 'Waiting', part: 'menu' },
    { what: 'choose “Give all” on it.', shows: 'Giving', part: 'menu', when: 'read' },
    { what: 'choose “Take all” on it.', shows: 'Taking', part: 'menu', when: 'write' },
  ],
  face: {
    hand: 'oriel',
    slot: 'mem {slot:3}',
    decimals: 5,
    marks: MARKS,
    largeLine: { setting: 'shows', fallback: 'frequency' },
  },
};
