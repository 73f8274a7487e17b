import { curlewX1 } from '../../../core/models/curlew-x1';
import { petrelHF9 } from '../../../core/models/petrel-hf9';
import { ploverF5 } from '../../../core/models/plover-f5';
import { channelsOf, tone, type UnitSpec } from './unit';

const petrel = channelsOf(petrelHF9);
const plover = channelsOf(ploverF5);
const curlew = channelsOf(curlewX1);

/** The Petrel has no link here: its memory is a file. */
export const ORIELS: readonly UnitSpec[] = [
  {
    id: 'petrel-1',
    label: 'Petrel HF9, at the window',
    model: petrelHF9,
    serial: 'OR910031',
    firmware: '1.30',
    region: 3,
    seed: 910031,
    content: {
      channels: [
        petrel(1, 'Isles net', 3_660_000, { mode: 'LSB' }),
        petrel(2, 'Evening 40', 7_120_000, { mode: 'LSB' }),
        petrel(3, 'Beacon 20', 14_100_000, { mode: 'CW', tx: null }),
        petrel(10, 'Ullsmere', 145_612_500, { tx: 145_012_500, send: tone(885), power: 50_000 }),
        petrel(11, 'Ketterby', 430_887_500, { tx: 438_487_500, power: 20_000 }),
        petrel(12, 'Farrow', 433_162_500, { tx: 434_762_500, split: true, send: tone(770), power: 20_000 }),
      ],
      settings: {
        ...{ shows: 'frequency', beep: true, greeting: 'Q7KWD' },
        ...{ shift10m: 100_000, shift6m: 500_000, shift2m: 600_000, shift70cm: 7_600_000 },
      },
    },
  },
  {
    id: 'petrel-2',
    label: 'Petrel HF9, club room',
    model: petrelHF9,
    serial: 'OR910087',
    firmware: '1.30',
    region: 3,
    made: { lacks: ['70 cm unit'] },
    seed: 910087,
    content: {
      channels: [petrel(1, 'Isles net', 3_660_000, { mode: 'LSB' }), petrel(2, 'Calling 2 m', 145_500_000)],
      settings: {
        ...{ shows: 'name', beep: false, greeting: 'Orrin RS' },
        ...{ shift10m: 100_000, shift6m: 500_000, shift2m: 600_000, shift70cm: 1_600_000 },
      },
    },
  },
  {
    id: 'plover-1',
    label: 'Plover F5, harbour office',
    model: ploverF5,
    serial: 'OR520144',
    firmware: '1.12',
    region: 3,
    seed: 520144,
    content: {
      channels: [
        plover(1, 'Calling 2 m', 145_500_000),
        plover(2, 'Ullsmere Hill', 145_612_500, { tx: 145_012_500, send: tone(885) }),
        plover(3, 'Club digital', 145_375_000, { mode: 'C4FM', power: 2_500 }),
        plover(10, 'Ketterby Tower', 118_850_000, { tx: null, mode: 'AM' }),
      ],
      zones: [
        { list: 0, number: 1, name: 'Everyday', slots: [1, 2, 3] },
        { list: 0, number: 2, name: 'Air', slots: [10] },
      ],
      settings: { ownCall: 'Q7KWD', shows: 'name', position: false, positionEvery: 300, beep: true },
    },
  },
  {
    id: 'plover-2',
    label: 'Plover F5, new',
    model: ploverF5,
    serial: 'OR520391',
    firmware: '1.12',
    region: 3,
    seed: 520391,
    content: {
      channels: [plover(1, 'Calling 70 cm', 433_500_000)],
      settings: { ownCall: '', shows: 'frequency', position: false, positionEvery: 60, beep: true },
    },
  },
  {
    id: 'curlew-1',
    label: 'Curlew X1, rucksack',
    model: curlewX1,
    serial: 'OR110206',
    firmware: '3.02',
    region: 3,
    seed: 110206,
    content: {
      channels: [
        curlew(1, 'Isles net', 3_660_000, { mode: 'LSB' }),
        curlew(2, 'Hill to hill', 144_300_000, { mode: 'USB' }),
        curlew(3, 'Ullsmere', 145_612_500, { tx: 145_012_500, send: tone(885) }),
        curlew(4, 'Positions', 144_800_000, { scan: false }),
      ],
      settings: {
        ...{ shows: 'name', beep: true, gnss: true, aprs: 'sends', aprsEvery: 120 },
        ...{ aprsCall: 'Q7KWD-7', greeting: 'Hills' },
      },
    },
  },
  {
    id: 'curlew-2',
    label: 'Curlew X1, boat',
    model: curlewX1,
    serial: 'OR110340',
    firmware: '3.02',
    region: 3,
    made: { lacks: ['GNSS receiver'] },
    seed: 110340,
    content: {
      channels: [curlew(1, 'Harbour', 156_800_000, { tx: null }), curlew(2, 'Calling', 145_500_000)],
      settings: {
        ...{ shows: 'frequency', beep: true, gnss: false, aprs: 'off', aprsEvery: 300 },
        ...{ aprsCall: '', greeting: 'Boat' },
      },
    },
  },
];
