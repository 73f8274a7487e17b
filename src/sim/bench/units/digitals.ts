import { kestrelC1 } from '../../../core/models/kestrel-c1';
import { ospreyD7 } from '../../../core/models/osprey-d7';
import type { FittedDigital, FittedTalkgroup } from '../../../core/models';
import { channelsOf, tone, type UnitSpec } from './unit';

const osprey = channelsOf(ospreyD7);
const kestrel = channelsOf(kestrelC1);

/** A digital channel's own, impolite where nothing else is said. */
const digital = (
  colourCode: number,
  timeSlot: 1 | 2,
  talkgroup: number | null,
  more: Partial<FittedDigital> = {},
) => ({
  mode: 'DMR' as const,
  digital: {
    ...{ colourCode, timeSlot, talkgroup, receiveList: null, politeness: 'impolite' as const, level: null },
    ...more,
  },
});

const groups = (...list: (readonly [name: string, address: number])[]): FittedTalkgroup[] =>
  list.map(([name, address], at) => ({ number: at + 1, name, address, call: 'group' }));

const settings = {
  ...{ shows: 'name', beep: true, timeOut: 180, alias: false, greeting: '' },
};

export const DIGITALS: readonly UnitSpec[] = [
  {
    id: 'osprey-1',
    label: 'Osprey D7, jacket pocket',
    model: ospreyD7,
    serial: 'HR700412',
    firmware: '2.30',
    region: 3,
    seed: 700412,
    content: {
      channels: [
        osprey(1, 'Calling 2 m', 145_500_000),
        osprey(2, 'Ullsmere Isles', 439_412_500, {
          tx: 431_812_500,
          ...digital(1, 1, 1, { receiveList: 1 }),
        }),
        osprey(3, 'Ullsmere Local', 439_412_500, {
          tx: 431_812_500,
          ...digital(1, 2, 2, { receiveList: 1 }),
        }),
        osprey(4, 'Ullsmere Hill', 145_612_500, { tx: 145_012_500, send: tone(885) }),
      ],
      zones: [{ list: 0, number: 1, name: 'Ullsmere', slots: [2, 3, 4, 1], scanList: 1 }],
      talkgroups: groups(['Isles', 100], ['Ullsmere', 110], ['Brannoch', 120]),
      receiveLists: [{ number: 1, name: 'Isles', members: [1, 2, 3] }],
      scanLists: [
        {
          ...{ number: 1, name: 'Ullsmere', slots: [2, 3, 4], first: 2, second: null },
          ...{ answers: 'heard' as const, startsItself: false },
        },
      ],
      settings: { ...settings, radioId: 1_000_412, ownCall: 'Q7KWD' },
    },
  },
  {
    id: 'osprey-2',
    label: 'Osprey D7, club shelf',
    model: ospreyD7,
    serial: 'HR700588',
    firmware: '2.30',
    region: 3,
    seed: 700588,
    content: {
      channels: [osprey(1, 'Calling 70 cm', 433_500_000)],
      settings: { ...settings, radioId: null, ownCall: '', shows: 'frequency' },
    },
  },
  {
    id: 'kestrel-1',
    label: 'Kestrel C1, rescue team',
    model: kestrelC1,
    serial: 'CV110073',
    firmware: '1.08',
    region: 3,
    seed: 110073,
    content: {
      channels: [
        kestrel(1, 'Team', 439_412_500, {
          ...{ tx: 431_812_500, scanList: 1 },
          ...digital(1, 2, 1, { receiveList: 1, politeness: 'own colour code' }),
        }),
        kestrel(2, 'Search', 433_475_000, {
          ...{ scanList: 1 },
          ...digital(1, 1, 2, { politeness: 'all', level: -105 }),
        }),
        kestrel(3, 'Calling 70 cm', 433_500_000, { scanList: null }),
      ],
      zones: [{ list: 0, number: 1, name: 'Team', slots: [1, 2, 3], knob: [1, 2, 0, 0, 3] }],
      talkgroups: [
        ...groups(['Rescue', 160], ['Search', 161]),
        { number: 3, name: 'Q7ADA Ada', address: 1_000_001, call: 'private' },
      ],
      receiveLists: [{ number: 1, name: 'Rescue', members: [1, 2] }],
      scanLists: [
        {
          ...{ number: 1, name: 'Team', slots: [1, 2], first: 1, second: null },
          ...{ answers: 'begun' as const, startsItself: true },
        },
      ],
      settings: { ...settings, radioId: 1_160_073, ownCall: 'Q7RS' },
    },
  },
  {
    id: 'kestrel-2',
    label: 'Kestrel C1, spare',
    model: kestrelC1,
    serial: 'CV110091',
    firmware: '1.08',
    region: 3,
    seed: 110091,
    made: { sends: { '70 cm': { from: 430_000_000, to: 440_000_000 } } },
    content: {
      channels: [kestrel(1, 'Calling 70 cm', 433_500_000, { scanList: null })],
      settings: { ...settings, radioId: null, ownCall: '' },
    },
  },
];
