import * as fc from '../property.test.kit';
import { anyContentOf } from '../contents.test.kit';

import { decodeImage, encodeImage, type RadioContent } from '../image';
import { blankImage } from '../format';
import { MODELS, noContent } from '../models';
import { formatOf } from '../models/formats';
import { curlewX1 } from '../models/curlew-x1';
import { gannetM8 } from '../models/gannet-m8';
import { kestrelC1 } from '../models/kestrel-c1';
import { compareBesides } from '.';

const nothing: RadioContent = { ...noContent(), settings: {} };
const side = {
  begins: 'memory' as const,
  zone: 1,
  start: 3,
  skipSet: null,
  scanning: true,
  shows: 'name' as const,
  autoDial: '',
};

test('what becomes of banks, skip sets, edges, quick set-ups and settings is said in words', () => {
  const before: RadioContent = {
    ...nothing,
    zones: [
      { list: 0, number: 1, name: 'DAY 1', slots: [1, 2, 3] },
      { list: 1, number: 4, name: '', slots: [7] },
      { list: 1, number: 5, name: '', slots: [] },
    ],
    skipSets: [{ number: 2, name: 'WX', way: 'all but', slots: [[1], []] }],
    scanEdges: [{ list: 0, number: 1, from: 144_000_000, to: 146_000_000 }],
    setUps: [{ number: 1, name: 'HILL', sides: [side, { ...side, begins: 'dial' as const }] }],
    settings: {},
  };
  const after: RadioContent = {
    ...before,
    zones: [
      { list: 0, number: 1, name: 'DAY 2', slots: [2, 3, 8, 9] },
      { list: 0, number: 2, name: 'HOME', slots: [1] },
    ],
    skipSets: [{ number: 2, name: 'WX', way: 'only', slots: [[1], [5]] }],
    scanEdges: [{ list: 0, number: 1, from: 144_000_000, to: 145_000_000 }],
    setUps: [
      {
        number: 1,
        name: 'HILL',
        sides: [
          { ...side, zone: 2, scanning: false },
          { ...side, begins: 'dial' },
        ],
      },
    ],
  };
  expect(compareBesides(before, after, gannetM8)).toEqual([
    { mark: 'changed', title: 'Left bank 1', text: 'named DAY 2, was DAY 1; 2 in, 1 out' },
    { mark: 'new', title: 'Left bank 2', text: 'HOME, 1 channel' },
    { mark: 'emptied', title: 'Right bank 4', text: '1 channel' },
    { mark: 'emptied', title: 'Right bank 5', text: 'no channels' },
    { mark: 'changed', title: 'Skip set 2', text: 'scan only, was scan all but; right: 1 in' },
    {
      mark: 'changed',
      title: 'Left scan edges 1',
      text: '144.000 to 145.000, was 144.000 to 146.000',
    },
    { mark: 'changed', title: 'Quick set-up 1', text: 'left: bank, scanning' },
  ]);
  expect(
    compareBesides(nothing, before, gannetM8).map(({ mark, title, text }) => [mark, title, text]),
  ).toEqual([
    ['new', 'Left bank 1', 'DAY 1, 3 channels'],
    ['new', 'Right bank 4', '1 channel'],
    ['new', 'Right bank 5', 'no channels'],
    ['new', 'Skip set 2', 'WX, scan all but 1 channel'],
    ['new', 'Left scan edges 1', '144.000 to 146.000'],
    ['new', 'Quick set-up 1', 'HILL, left on channel 003, right on its dial'],
  ]);
  expect(compareBesides(before, nothing, gannetM8).every(({ mark }) => mark === 'emptied')).toBe(true);
});

test('a setting says what it was, and whether the radio wants to be switched off and on', () => {
  const set = (gnss: boolean) => ({ ...nothing, settings: { gnss } });
  expect(compareBesides(set(false), set(true), curlewX1)).toEqual([
    { mark: 'changed', title: 'GNSS receiver', text: 'on, was off', restart: true },
  ]);
  // what is not written stays as it is
  expect(compareBesides(set(false), nothing, curlewX1)).toEqual([]);
});

test('people are summed up, talkgroups are not; one person is named', () => {
  const person = (number: number, name = `P ${number}`) => ({
    ...{ number, name, address: 1_160_000 + number, call: 'private' as const },
  });
  const isles = { number: 1, name: 'Isles', address: 100, call: 'group' as const };
  const before = { ...nothing, talkgroups: [isles, person(2), person(3), person(4)] };
  const after = {
    ...nothing,
    talkgroups: [{ ...isles, address: 101 }, person(2, 'KIRA'), person(5), person(6), person(7)],
  };
  expect(compareBesides(before, after, kestrelC1)).toEqual([
    { mark: 'changed', title: 'Talkgroup 1', text: 'group 101, was group 100' },
    { mark: 'changed', title: 'People', text: '3 new, 1 changed, 2 emptied' },
  ]);
  expect(compareBesides(nothing, before, kestrelC1)).toEqual([
    { mark: 'new', title: 'Talkgroup 1', text: 'Isles, group 100' },
    { mark: 'new', title: 'People', text: '3 new' },
  ]);
  expect(compareBesides(before, { ...before, talkgroups: before.talkgroups.slice(0, 3) }, kestrelC1)).toEqual(
    [{ mark: 'emptied', title: 'Person 4', text: 'P 4, person 1160004' }],
  );
});

test('a value that is a unit’s own is marked', () => {
  const set = (radioId: number) => ({ ...nothing, settings: { radioId, beep: true } });
  expect(compareBesides(set(1_160_073), set(1_160_091), kestrelC1)).toEqual([
    {
      ...{ mark: 'changed', title: 'Own ID', text: '1160091, was 1160073' },
      ...{ restart: true, unitOwn: true },
    },
  ]);
});

/** A content with one thing beside its channels otherwise, or with none, in every way that a model has. */
function rewritesOf(before: RadioContent, other: RadioContent, which: number): RadioContent[] {
  const without = <T>(list: readonly T[]) => list.filter((_, at) => at !== which % Math.max(1, list.length));
  const one = <T>(list: readonly T[], change: (item: T) => T) =>
    list.map((item, at) => (at === which % list.length ? change(item) : item));
  return [
    {},
    { settings: other.settings },
    { zones: without(before.zones) },
    {
      zones: one(before.zones, (zone) => ({
        ...zone,
        slots: zone.slots.slice(1),
        ...(zone.knob && { knob: zone.knob.map((slot) => (slot === zone.slots[0] ? 0 : slot)) }),
      })),
    },
    {
      skipSets: one(before.skipSets, (set) => ({
        ...set,
        way: set.way === 'only' ? ('all but' as const) : ('only' as const),
      })),
    },
    { scanEdges: without(before.scanEdges) },
    { setUps: without(before.setUps) },
    {
      setUps: one(before.setUps, (setUp) => ({
        ...setUp,
        sides: setUp.sides.map((of, at) => (at === 0 ? { ...of, scanning: !of.scanning } : of)),
      })),
    },
    { talkgroups: one(before.talkgroups, (group) => ({ ...group, address: group.address === 7 ? 8 : 7 })) },
    { receiveLists: one(before.receiveLists, (list) => ({ ...list, members: [...list.members].reverse() })) },
    { scanLists: without(before.scanLists) },
    { scanLists: one(before.scanLists, (list) => ({ ...list, startsItself: !list.startsItself })) },
    { zones: one(before.zones, (zone) => (zone.scanList ? { ...zone, scanList: null } : zone)) },
  ].map((change) => ({ ...before, ...change }));
}

test.each(MODELS.map((model) => [model.name, model] as const))(
  '%s: what it names is what changes in the bytes, no more and no less',
  (_, model) => {
    const reached = fc.tally();
    fc.assert(
      fc.property(anyContentOf(model), anyContentOf(model), fc.nat(99), (before, other, which) => {
        const held = encodeImage(before, blankImage(formatOf(model)), model);
        const read = decodeImage(held, model);
        if (!read.ok) throw new Error(read.reason);
        for (const [what, after] of rewritesOf(before, other, which).entries()) {
          const changes = compareBesides(read.value, after, model);
          const written = encodeImage(after, held, model);
          expect(changes.length > 0).toBe(!Buffer.from(written).equals(held));
          reached.count(`way ${what}`, changes.length > 0);
        }
      }),
      { numRuns: 6 },
    );
    reached.expectNone('way 0');
    reached.expectTimes('way 1', 1);
    if (model.zones) reached.expectTimes('way 2', 1);
    if (model.setUps) reached.expectTimes('way 7', 1);
    if (model.digital) reached.expectTimes('way 8', 1);
    if (model.scanLists) reached.expectTimes('way 11', 1);
  },
);
