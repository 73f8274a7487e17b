import { groupId } from '../digital.test.kit';
import { plan } from '../samples.test.kit';
import { applyEdit, type Talkgroup } from '../plan';
import { kestrelC1 } from '../models/kestrel-c1';
import type { Plan } from '../plan';
import type { Neighbour } from './neighbour';
import { wiredIn } from './wired.test.kit';

const near: Neighbour[] = [
  {
    name: 'Ullsmere Hill',
    output: 439_412_500,
    input: 431_812_500,
    groups: [
      { number: 416, name: 'Isles Rescue' },
      { number: 1046, name: 'Weather net' },
      { number: 100, name: 'Isles' },
      { number: 0x1300, name: 'Net' },
    ],
  },
];
const withGroup = (number: number, name: string, more: Partial<Talkgroup> = {}) => ({
  ...plan([]),
  talkgroups: [{ id: groupId(1), name, number, call: 'group' as const, ...more }],
});
const hexMixUps = (plan: Plan, neighbours: readonly Neighbour[]) =>
  wiredIn(plan, kestrelC1, neighbours).filter(({ rule }) => rule === 'hex-mix-up');
const said = (number: number, name: string, more: Partial<Talkgroup> = {}) => [
  ...hexMixUps(withGroup(number, name, more), near),
];

test('decimal typed where the directory has that number in hexadecimal', () => {
  // 0x416 = 4 * 256 + 16 + 6 = 1046
  const [found] = said(416, 'Weather net');
  expect(found!.text).toBe(
    '“Weather net” has the number 416, and the directory has “Weather net” as 0x416: as decimal that is 1046. Nobody is heard.',
  );
  expect(found!.mends.map(({ label }) => label)).toEqual(['Use 1046 (0x416)']);
  const mended = applyEdit(withGroup(416, 'Weather net'), found!.mends[0]!.edit);
  expect(mended.ok && mended.value.talkgroups[0]!.number).toBe(1046);
  expect(mended.ok && [...hexMixUps(mended.value, near)]).toEqual([]);
});
test('hexadecimal read where the directory has it as decimal', () => {
  // 0x100 = 256
  expect(said(256, 'Isles').map(({ text }) => text)).toEqual([
    '“Isles” has the number 256, which is 0x100, and the directory has “Isles” as 100 decimal. Nobody is heard.',
  ]);
});
test('what the directory knows as it stands, what it does not know either way, and people are left alone', () => {
  for (const [number, name] of [
    [416, 'Isles Rescue'],
    [416, 'Ours'],
    [1046, 'Weather net'],
    [777, 'Weather net'],
  ] as const)
    expect([number, said(number, name).length]).toEqual([number, 0]);
  expect(said(256, 'Isles', { call: 'private' })).toEqual([]);
  expect([...hexMixUps(withGroup(416, 'Weather net'), [])]).toEqual([]);
});
