import * as fc from '../property.test.kit';
import { anyPlan, channel, id, plan, run } from '../samples.test.kit';
import { COLUMNS } from '../plan';
import { byChannel } from '../heard';
import { asPeopleSort, inViewOrder, intoThisOrder } from '.';

const tone = (tenths: number) => ({
  kind: 'analogue' as const,
  send: { kind: 'tone' as const, tone: tenths },
  expect: null,
});
const at = (lat: number, lon: number) => ({
  source: {
    directory: 'register',
    entry: 'a',
    service: 'amateur' as const,
    call: 'Q7UL',
    place: 'Ullsmere',
    lat,
    lon,
  },
});
const seenFrom = {
  // HO52 is the square around 52.5 N 29 W
  home: 'HO52',
  lists: { talkgroups: [], receiveLists: [], scanLists: [] },
  heard: byChannel([
    { channel: id(1), times: 1, last: '2026-11-20T09:30:00.000Z', weeks: [] },
    { channel: id(3), times: 9, last: '2026-11-21T09:30:00.000Z', weeks: [] },
  ]),
};
const channels = [
  channel(1, 145_700_000, { ...at(54.5, -29), name: 'R 10', access: tone(1035), power: 500 }),
  channel(2, 145_600_000, { ...at(52.5, -28), name: 'r 9', tx: 145_000_000, access: tone(885), scan: false }),
  channel(3, 162_400_000, { ...at(51.9, -29), name: '', tx: null, mode: 'AM', power: 9000 }),
  channel(5, 145_600_000, { name: 'Hill', access: tone(885) }),
];
test.each([
  ['slot', [1, 2, 3, 5], [5, 3, 2, 1]],
  // numbers in names by size; no name last, both ways
  ['name', [5, 2, 1, 3], [1, 2, 5, 3]],
  ['rx', [2, 5, 1, 3], [3, 1, 2, 5]],
  ['tx', [2, 5, 1, 3], [1, 5, 2, 3]],
  ['access', [2, 5, 1, 3], [1, 2, 5, 3]],
  ['mode', [3, 1, 2, 5], [1, 2, 5, 3]],
  ['power', [1, 2, 5, 3], [2, 5, 1, 3]],
  ['scan', [2, 1, 3, 5], [1, 3, 5, 2]],
  // 222 km north, 68 km east, 67 km south, nowhere known
  ['distance', [3, 2, 1, 5], [1, 2, 3, 5]],
  ['bearing', [1, 2, 3, 5], [3, 2, 1, 5]],
  ['heard', [1, 3, 2, 5], [3, 1, 2, 5]],
  ['locator', [3, 1, 2, 5], [2, 1, 3, 5]],
] as const)('by %s', (by, up, down) => {
  expect(inViewOrder(channels, { by, down: false }, seenFrom).map(({ slot }) => slot)).toEqual(up);
  expect(inViewOrder(channels, { by, down: true }, seenFrom).map(({ slot }) => slot)).toEqual(down);
});

test('moved into the order in which they are seen they hold the same slots', () => {
  const seen = inViewOrder(channels, { by: 'name', down: false }, seenFrom);
  // Hill, r 9, R 10 and the nameless one into slots 1, 2, 3 and 5
  expect(intoThisOrder(seen)).toEqual([
    { id: id(5), from: 5, to: 1 },
    { id: id(1), from: 1, to: 3 },
    { id: id(3), from: 3, to: 5 },
  ]);
  const after = run(plan(channels), { name: 'arrange', how: 'sort', moves: intoThisOrder(seen) });
  expect(after.channels.map(({ id: one }) => one)).toEqual(seen.map(({ id: one }) => one));
});

test('no order loses a channel or doubles one, and moving into it leads to it', () => {
  fc.assert(
    fc.property(anyPlan, fc.constantFrom(...COLUMNS), fc.boolean(), (any, by, down) => {
      const own = any.channels.filter(({ list }) => list === 0);
      const seen = inViewOrder(own, { by, down }, seenFrom);
      expect(new Set(seen)).toEqual(new Set(own));
      // In whichever order they are given.
      expect(inViewOrder([...own].reverse(), { by, down }, seenFrom)).toEqual(seen);
      const moves = intoThisOrder(seen);
      if (moves.length === 0) return;
      const after = run(any, { name: 'arrange', how: 'sort', moves });
      const then = after.channels.filter(({ list }) => list === 0);
      expect(then.map(({ id: one }) => one)).toEqual(seen.map(({ id: one }) => one));
      expect(then.map(({ slot }) => slot)).toEqual(own.map(({ slot }) => slot));
    }),
    { numRuns: 150 },
  );
});

test('names lie as people sort them, whatever is in them: as the collator of the language has it', () => {
  const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
  const piece = fc.oneof(
    fc.constantFrom('Hill', 'hill', 'HILL ', 'Ness', ' ', 'a', 'Z', 'é', '-', '.', '/', 'ß', '_'),
    fc.nat({ max: 200 }).map(String),
    fc.constantFrom('007', '00', '123456789012345678901234567890'),
  );
  const name = fc.array(piece, { maxLength: 5 }).map((pieces) => pieces.join(''));
  let plain = 0;
  fc.assert(
    fc.property(name, name, (a, b) => {
      if (/^[A-Za-z0-9 ]*$/.test(a + b)) plain++;
      expect([a, b, Math.sign(asPeopleSort(a, b))]).toEqual([a, b, Math.sign(collator.compare(a, b))]);
    }),
    { numRuns: 3000 },
  );
  fc.expectReached('plain', plain, 301);
});
