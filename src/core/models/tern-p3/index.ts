import type { Model } from '../model.schema';
import { CHARACTERS, tern } from '../tern';

/** Larkmoor Tern P3: the three-band sister of the P2. `format.ts` and docs/models/tern-p3.md have its memory. */
export const ternP3: Model = {
  ...tern,
  id: 'tern-p3',
  name: 'Tern P3',
  alsoSoldAs: [],
  summary: 'Analogue handheld, 2 m, 1.25 m and 70 cm, 4 W',
  firmware: '1.00',
  slots: { first: 1, count: 220 },
  names: { length: 8, characters: CHARACTERS },
  bands: [
    {
      name: '2 m',
      receive: { from: 136_000_000, to: 174_000_000 },
      transmit: { from: 144_000_000, to: 148_000_000 },
    },
    {
      name: '1.25 m',
      receive: { from: 216_000_000, to: 260_000_000 },
      transmit: { from: 222_000_000, to: 225_000_000 },
    },
    {
      name: '70 cm',
      receive: { from: 400_000_000, to: 480_000_000 },
      transmit: { from: 420_000_000, to: 450_000_000 },
    },
  ],
  link: { kind: 'stream', ident: 'TERN-P3 ', lineRate: 9600, blockBytes: 256, window: 4 },
};
