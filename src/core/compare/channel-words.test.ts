import type { FittedChannel } from '../models';
import { differsInWords, sameInRadio } from '.';

/** Every field in which a channel differs is named. */

const hill: FittedChannel = {
  ...{ list: 0, slot: 7, name: 'HILL', rx: 438_000_000, tx: 430_400_000, send: null, expect: null },
  ...{ mode: 'DMR', power: 4000, scan: true, scanList: 1 },
  digital: {
    ...{ colourCode: 1, timeSlot: 1, talkgroup: 1, receiveList: null, politeness: 'impolite', level: null },
  },
};
const lists = {
  talkgroups: [
    { number: 1, name: 'Isles', address: 100, call: 'group' as const },
    { number: 2, name: 'Weather net', address: 1046, call: 'group' as const },
  ],
};
const words = (set: Partial<FittedChannel>) =>
  differsInWords(hill, { ...hill, ...set }, { was: lists, is: lists });
const digitally = (set: Partial<NonNullable<FittedChannel['digital']>>) =>
  words({ digital: { ...hill.digital!, ...set } });

test.each([
  [words({}), ''],
  [words({ name: 'HILL 2' }), 'name HILL 2, was HILL'],
  [words({ rx: 438_025_000 }), 'receive 438.025, was 438.000'],
  [words({ tx: null }), 'transmit listen only, was 430.400'],
  [words({ power: 1000 }), 'power 1 W, was 4 W'],
  [words({ scan: false }), 'scan out, was in'],
  [words({ scanList: null }), 'scan list none, was 1'],
  [digitally({ colourCode: 7 }), 'colour code 7, was 1'],
  [digitally({ timeSlot: 2 }), 'time slot 2, was 1'],
  [digitally({ talkgroup: 2 }), 'talkgroup Weather net, was Isles'],
  [digitally({ talkgroup: null }), 'talkgroup none, was Isles'],
  [digitally({ receiveList: 3 }), 'receive list 3, was none'],
  [
    digitally({ politeness: 'all', level: -100 }),
    'may send polite to all, was impolite; busy from -100 dBm, was its own level',
  ],
  [
    words({ power: 1000, digital: { ...hill.digital!, colourCode: 7 } }),
    'colour code 7, was 1; power 1 W, was 4 W',
  ],
])('%#: %s', (said, expected) => expect(said).toBe(expected));

test('no field differs in silence', () => {
  const otherwise: Required<Omit<FittedChannel, 'list' | 'slot'>> = {
    ...{ name: 'X', rx: 1, tx: 2, split: true, mode: 'FM', power: 1, scan: false, scanList: 2 },
    send: { kind: 'tone', tone: 885 },
    expect: { kind: 'tone', tone: 885 },
    digital: { ...hill.digital!, talkgroup: 9 },
  };
  const analogue: FittedChannel = { ...hill, mode: 'FM' };
  delete analogue.digital;
  for (const [field, value] of Object.entries(otherwise)) {
    const before = field === 'send' || field === 'expect' ? analogue : hill;
    const after = { ...before, [field]: value } as FittedChannel;
    expect(sameInRadio(before, after)).toBe(false);
    expect([field, differsInWords(before, after)]).not.toEqual([field, '']);
  }
  // The same number of another talkgroup, and the same talkgroup under another number.
  const renumbered = { talkgroups: [{ number: 2, name: 'Isles', address: 100, call: 'group' as const }] };
  const moved = { ...hill, digital: { ...hill.digital!, talkgroup: 2 } };
  expect(differsInWords(hill, moved, { was: lists, is: renumbered })).toBe('talkgroup number 2, was 1');
});
