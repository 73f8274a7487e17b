import * as fc from '../property.test.kit';
import { daysOf, daysOfStation } from '.';

test('a route is cut into days of one length, or where one stays the night', () => {
  expect(daysOf(300, 3)).toEqual([
    { from: 0, to: 100 },
    { from: 100, to: 200 },
    { from: 200, to: 300 },
  ]);
  expect(daysOf(300, [220, 80, 80, 0, 300, 400])).toEqual([
    { from: 0, to: 80 },
    { from: 80, to: 220 },
    { from: 220, to: 300 },
  ]);
  expect(daysOf(300, 0)).toEqual([{ from: 0, to: 300 }]);
});

test('a station near the end of a day is wanted on the next one too', () => {
  const days = daysOf(300, 3);
  expect(daysOfStation(50, days, 15)).toEqual([0]);
  expect(daysOfStation(85, days, 15)).toEqual([0, 1]);
  expect(daysOfStation(115, days, 15)).toEqual([0, 1]);
  expect(daysOfStation(116, days, 15)).toEqual([1]);
  expect(daysOfStation(300, days, 15)).toEqual([2]);
});

test('every station of a route has a day, and days are in order', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 2000, noNaN: true }),
      fc.integer({ min: 1, max: 12 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 60, noNaN: true }),
      (km, n, share, overlap) => {
        const days = daysOf(km, n);
        expect(days).toHaveLength(n);
        const wanted = daysOfStation(km * share, days, overlap);
        expect(wanted.length).toBeGreaterThan(0);
        expect(wanted).toEqual([...wanted].sort((a, b) => a - b));
      },
    ),
  );
});
