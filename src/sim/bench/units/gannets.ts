import { gannetM8 } from '../../../core/models/gannet-m8';
import type { FittedSetUp } from '../../../core/models';
import { channelsOf, tone, type UnitSpec } from './unit';

const channel = channelsOf(gannetM8);
const right = { list: 1 };
const side = (set: Partial<FittedSetUp['sides'][number]>): FittedSetUp['sides'][number] => ({
  begins: 'memory',
  zone: null,
  start: null,
  skipSet: null,
  scanning: false,
  shows: 'name',
  autoDial: '',
  ...set,
});

export const GANNETS: readonly UnitSpec[] = [
  {
    id: 'gannet-1',
    label: 'Gannet M8, in the van',
    model: gannetM8,
    serial: 'LK800117',
    firmware: '2.01',
    region: 3,
    seed: 800117,
    content: {
      channels: [
        channel(1, 'Calling', 145_500_000),
        channel(2, 'Ullsmer', 145_612_500, { tx: 145_012_500, send: tone(885) }),
        channel(3, 'Brannoc', 145_737_500, { tx: 145_137_500, send: tone(948), expect: tone(948) }),
        channel(4, 'Tamsin', 145_687_500, { tx: 145_087_500, send: tone(1035) }),
        channel(5, 'WX N', 162_400_000, { tx: null, scan: false }),
        channel(6, 'WX S', 162_425_000, { tx: null, scan: false }),
        channel(1, 'Call 70', 433_500_000, right),
        channel(2, 'Ketterb', 430_887_500, { ...right, tx: 438_487_500, mode: 'NFM', power: 20_000 }),
        channel(3, 'Farrow', 433_162_500, { ...right, tx: 434_762_500, send: tone(770) }),
        channel(4, 'Ashgill', 439_050_000, { ...right, tx: 431_450_000, send: tone(1188) }),
        channel(1, 'Home 2', 145_375_000, { list: 2 }),
        channel(2, 'Home 70', 433_525_000, { list: 3 }),
      ],
      zones: [
        { list: 0, number: 1, name: 'Day 1', slots: [1, 2, 3] },
        { list: 1, number: 1, name: 'Day 1', slots: [1, 2] },
        { list: 0, number: 2, name: 'Day 2', slots: [1, 4] },
        { list: 1, number: 2, name: 'Day 2', slots: [3, 4] },
      ],
      skipSets: [{ number: 1, name: 'No WX', way: 'all but', slots: [[5, 6], []] }],
      scanEdges: [
        { list: 0, number: 1, from: 144_000_000, to: 146_000_000 },
        { list: 1, number: 1, from: 433_000_000, to: 434_000_000 },
      ],
      setUps: [
        {
          number: 1,
          name: 'Day 1',
          sides: [
            side({ zone: 1, start: 2, skipSet: 1, scanning: true }),
            side({ begins: 'home', shows: 'frequency' }),
          ],
        },
        { number: 2, name: 'Day 2', sides: [side({ zone: 2, start: 4 }), side({ zone: 2, start: 3 })] },
      ],
      settings: {
        showLeft: 'name',
        showRight: 'name',
        beep: true,
        crossBand: false,
        timeOut: 180,
        greeting: 'VAN',
      },
    },
  },
  {
    id: 'gannet-2',
    label: 'Gannet M8, club room',
    model: gannetM8,
    serial: 'LK800245',
    firmware: '2.01',
    region: 3,
    made: { lacks: ['cross-band unit'] },
    seed: 800245,
    content: {
      channels: [
        channel(1, 'Calling', 145_500_000),
        channel(10, 'Norrast', 145_775_000, { tx: 145_275_000, send: tone(670), power: 5_000 }),
        channel(1, 'Call 70', 433_500_000, { ...right, power: 5_000 }),
      ],
      settings: {
        showLeft: 'frequency',
        showRight: 'name',
        beep: false,
        crossBand: false,
        timeOut: 600,
        greeting: 'CLUB',
      },
    },
  },
];
