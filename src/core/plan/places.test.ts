import { placesOf, withIds, withPlacesOf } from './places';

const list = [{ id: 'a' }, { id: 'b' }, { id: 'c' }];

test('a record is found by its id, and what is not there is not', () => {
  expect([...placesOf(list)]).toEqual([
    ['a', 0],
    ['b', 1],
    ['c', 2],
  ]);
  expect(placesOf(list).get('d')).toBeUndefined();
  expect(placesOf(list)).toBe(placesOf(list));
});

test('a list that was made of another one takes over what is known; others do not', () => {
  const next = withPlacesOf(list, [list[0]!, { id: 'b' }, list[2]!]);
  expect(placesOf(next)).toBe(placesOf(list));
  expect(placesOf(withPlacesOf(next, [...next]))).toBe(placesOf(list));
  const other = [...list].reverse();
  expect(placesOf(other).get('a')).toBe(2);
});

test('records are found by their ids, in the order of the list', () => {
  expect(withIds(list, new Set(['c', 'gone', 'a']))).toEqual([list[0], list[2]]);
  expect(withIds(list, new Set())).toEqual([]);
});
