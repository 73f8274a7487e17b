import { gannetM8 } from '../models/gannet-m8';
import { idsOf } from '../plan';
import { planOfContent } from './to-plan';

/** What a radio numbers keeps its number in the plan that is made of it. */

let last = 0;
const ids = idsOf(() => Uint8Array.from(String(++last).padStart(8, '0'), Number));

const content = {
  channels: [],
  zones: [
    { list: 0, number: 3, name: 'Coast', slots: [] },
    { list: 1, number: 1, name: '', slots: [] },
    { list: 0, number: 1, name: 'Town', slots: [] },
  ],
  skipSets: [{ number: 2, name: 'Night', way: 'only' as const, slots: [[], []] }],
  scanEdges: [],
  setUps: [{ number: 2, name: 'Van', sides: [] }],
  talkgroups: [],
  receiveLists: [],
  scanLists: [],
  settings: {},
};

test('a number that nothing has is an empty one, and banks of a number on two sides are one', () => {
  const made = planOfContent(content, gannetM8, ids);
  expect(made.zones.map(({ name }) => name)).toEqual(['Town', 'Bank 2', 'Coast']);
  expect(made.skipSets.map(({ name, way }) => [name, way])).toEqual([
    ['Skip set 1', 'all but'],
    ['Night', 'only'],
  ]);
  expect(made.setUps.map(({ name }) => name)).toEqual(['Quick set-up 1', 'Van']);
});

test('a name has no blanks at its ends, and no more characters than a plan holds', () => {
  const named = (name: string) => ({
    ...{ list: 0, slot: 1, name, rx: 145_500_000, tx: null, send: null, expect: null },
    ...{ mode: 'FM' as const, power: 1000, scan: true },
  });
  const names = [`  ${'Ketterby '.repeat(6)}`, ' Hill '].map(
    (name) => planOfContent({ ...content, channels: [named(name)] }, gannetM8, ids).channels[0]!.name,
  );
  expect(names).toEqual(['Ketterby Ketterby Ketterby Kette', 'Hill']);
});
