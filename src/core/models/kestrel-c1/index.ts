import { CODES, TONES } from '../../radio';
import { CHARACTERS } from '../dmr';
import type { Model } from '../model.schema';

/** Corvane Kestrel C1: a DMR portable for work, with a knob of sixteen positions. `format.ts` and docs/models/kestrel-c1.md have its memory. */
export const kestrelC1: Model = {
  id: 'kestrel-c1',
  name: 'Kestrel C1',
  maker: 'Corvane',
  alsoSoldAs: [],
  summary: 'DMR and FM portable for work, 70 cm, a knob of sixteen positions, 4 W',
  firmware: '1.08',
  slots: { first: 1, count: 768 },
  lists: [{ name: 'Channels', holds: 'channels' }],
  zones: { word: 'zone', count: 48, name: 16, members: 16, ordered: true, knob: 16 },
  skipSets: null,
  scanEdges: null,
  setUps: null,
  scanLists: {
    ...{ count: 64, name: 16, members: 16 },
    by: 'channel',
    second: true,
    answers: ['begun', 'heard', 'first'],
  },
  digital: {
    talkgroups: { count: 800, name: 16, calls: ['group', 'private', 'all'] },
    people: { where: 'talkgroups' },
    receiveLists: { count: 64, name: 16, members: 16 },
    politeness: ['impolite', 'own colour code', 'all'],
    levels: { from: -130, to: -60 },
    ownId: 'radioId',
  },
  names: { length: 16, characters: CHARACTERS },
  bands: [
    {
      name: '70 cm',
      receive: { from: 403_000_000, to: 470_000_000 },
      transmit: { from: 403_000_000, to: 470_000_000 },
    },
  ],
  steps: [5_000, 6_250, 10_000, 12_500, 20_000, 25_000],
  modes: ['DMR', 'NFM', 'FM'],
  powers: [
    { label: 'High', milliwatts: 4_000 },
    { label: 'Low', milliwatts: 1_000 },
  ],
  storesPower: true,
  tones: [...TONES],
  codes: [...CODES],
  invertedCodes: true,
  oneTone: false,
  storedShifts: [],
  ownCall: null,
  link: {
    kind: 'block',
    ident: 'KESTRELC',
    lineRate: 115_200,
    blockBytes: 256,
    window: 4,
    modules: [{ name: 'Main', bytes: 0x10000 }],
  },
  getReady: [
    { what: 'Push the cable onto the contacts at its side.', shows: '', part: 'cable' },
    {
      what: 'Turn the knob to 16, hold the side button down and switch the radio on.',
      shows: 'CABLE',
      part: 'switch',
    },
  ],
  face: {
    hand: 'corvane',
    slot: '{slot:3}',
    decimals: 5,
    marks: {
      sendTone: 'CT',
      bothTones: 'CT/CT',
      code: 'DC',
      narrow: 'NAR',
      lowPower: 'LO',
      skipped: 'PASS',
      plus: '+',
      minus: '−',
      split: '±',
      sending: 'TALK',
      noTransmit: 'NO TALK',
    },
    largeLine: { setting: 'shows', fallback: 'name' },
  },
};
