import type { Model } from '../model.schema';
import { CHARACTERS, tern } from '../tern';

/** Larkmoor Tern P2: analogue handheld for 2 m and 70 cm. `format.ts` and docs/models/tern-p2.md have its memory. */
export const ternP2: Model = {
  ...tern,
  id: 'tern-p2',
  name: 'Tern P2',
  alsoSoldAs: [
    { name: 'Tern P2H', maker: 'Larkmoor' },
    { name: 'S22', maker: 'Sandhoven' },
  ],
  summary: 'Analogue handheld, 2 m and 70 cm, 4 W',
  firmware: '1.07',
  slots: { first: 0, count: 150 },
  names: { length: 6, characters: CHARACTERS },
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
  link: { kind: 'stream', ident: 'TERN-P2 ', lineRate: 9600, blockBytes: 256, window: 4 },
};
