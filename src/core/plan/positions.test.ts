import * as fc from '../property.test.kit';
import { positionsToWrite } from './positions';

/** Positions of rows: in order, with as few written as can be. */

const numbered = (ids: string) => new Map([...ids].map((id, at) => [id, at]));
const entries = (map: Map<string, number>) => [...map].sort(([a], [b]) => (a < b ? -1 : 1));

test.each([
  ['nothing is written where one goes', 'acd', 'abcd', []],
  ['one comes between', 'abxc', 'abc', [['x', 1.5]]],
  [
    'two come between',
    'axyb',
    'ab',
    [
      ['x', 1 / 3],
      ['y', 2 / 3],
    ],
  ],
  ['one comes first', 'xab', 'ab', [['x', -1]]],
  [
    'two come last',
    'abxy',
    'ab',
    [
      ['x', 2],
      ['y', 3],
    ],
  ],
  ['one moves forward', 'bcad', 'abcd', [['a', 2.5]]],
  ['one moves back', 'adbc', 'abcd', [['d', 0.5]]],
  [
    'all are new',
    'ab',
    '',
    [
      ['a', 0],
      ['b', 1],
    ],
  ],
])('%s', (_, order, had, written) => {
  expect(entries(positionsToWrite([...order], numbered(had)))).toEqual(written);
});

test('where there is no number between two neighbours all are numbered again', () => {
  const had = new Map([
    ['a', 1],
    ['b', 1 + Number.EPSILON],
  ]);
  expect(entries(positionsToWrite(['a', 'x', 'b'], had))).toEqual([
    ['a', 0],
    ['b', 2],
    ['x', 1],
  ]);
});

/** The most of `order` that stand in it as they stand in `before`, found by trying every selection. */
function mostThatStay(order: readonly string[], before: readonly string[]): number {
  let most = 0;
  for (let chosen = 0; chosen < 2 ** order.length; chosen++) {
    const some = order.filter((_, at) => (chosen >> at) & 1).map((id) => before.indexOf(id));
    if (some.every((at, n) => at >= 0 && (n === 0 || at > some[n - 1]!))) most = Math.max(most, some.length);
  }
  return most;
}

test('whatever comes, goes and moves, the positions go up and as few as can be are written', () => {
  const list = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });
  const reached = fc.tally();
  fc.assert(
    fc.property(fc.array(list, { minLength: 2, maxLength: 6 }), (orders) => {
      let had = new Map<string, number>();
      let before: string[] = [];
      for (const order of orders) {
        const write = positionsToWrite(order, had);
        const now = new Map(order.map((id) => [id, write.get(id) ?? had.get(id)!]));
        const positions = [...now.values()];
        expect(positions).toEqual([...positions].sort((a, b) => a - b));
        expect(new Set(positions).size).toBe(order.length);
        expect(order.length - write.size).toBe(mostThatStay(order, before));
        reached.count(write.size === 0 ? 'nothing written' : write.size < order.length ? 'some' : 'all');
        [had, before] = [now, order];
      }
    }),
    { numRuns: 200 },
  );
  for (const share of ['nothing written', 'some', 'all']) reached.expectTimes(share, 20);
});
