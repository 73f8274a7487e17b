import * as fc from '../property.test.kit';
import {
  bearing,
  destination,
  distanceKm,
  formatDistance,
  horizonKm,
  inUnit,
  locator,
  parseLocator,
  toKm,
  windName,
} from '.';

describe('distance and bearing', () => {
  test('a degree of a great circle is 111.195 km', () => {
    expect(distanceKm({ lat: 52, lon: -30 }, { lat: 53, lon: -30 })).toBeCloseTo(111.195, 3);
    expect(distanceKm({ lat: 0, lon: 0 }, { lat: 0, lon: 180 })).toBeCloseTo(Math.PI * 6371.0088, 3);
  });
  test('bearings and their names', () => {
    expect(bearing({ lat: 0, lon: 0 }, { lat: 0, lon: 1 })).toBeCloseTo(90, 6);
    expect(bearing({ lat: 52, lon: -30 }, { lat: 51, lon: -30 })).toBeCloseTo(180, 6);
    expect([0, 11.2, 11.3, 90, 236, 349, 359].map(windName)).toEqual(['N', 'N', 'NNE', 'E', 'SW', 'N', 'N']);
  });
  test('going out and measuring back agree', () => {
    const start = { lat: 52.06, lon: -29.84 };
    const end = destination(start, 237, 40);
    expect(distanceKm(start, end)).toBeCloseTo(40, 6);
    expect(bearing(start, end)).toBeCloseTo(237, 6);
  });
  test('the radio horizon of 100 m and 4 m is 49.4 km', () =>
    expect(horizonKm(100, 4)).toBeCloseTo(49.44, 10));
  test('a mile is 1.609344 km', () => {
    expect(toKm(25, 'mi')).toBeCloseTo(40.2336, 10);
    expect(inUnit(1.609344, 'mi')).toBe(1);
    expect([formatDistance(6.44, 'km'), formatDistance(6.44, 'mi')]).toEqual(['6.4 km', '4.0 mi']);
  });
});

describe('locators', () => {
  // By hand: 150.16° east of the date line is field 7 (H), square 5, 0.16° of 2°/24 is 1 (b), 0.0767° of 2°/240 is 9;
  // 142.06° north of the south pole is field 14 (O), square 2, 0.06° of 1°/24 is 1 (b), 0.0183° of 1°/240 is 4.
  const ketterby = { lat: 52.06, lon: -29.84 };
  test.each([
    [2, 'HO'],
    [4, 'HO52'],
    [6, 'HO52bb'],
    [8, 'HO52bb94'],
  ] as const)('with %d characters: %s', (characters, text) =>
    expect(locator(ketterby, characters)).toBe(text),
  );
  test('the ends of the earth', () => {
    expect(locator({ lat: -90, lon: -180 }, 8)).toBe('AA00aa00');
    expect(locator({ lat: 90, lon: 180 }, 8)).toBe('RR99xx99');
    expect(locator({ lat: 0, lon: 0 }, 6)).toBe('JJ00aa');
  });
  test('one is read as the middle of its square, in capitals or not', () => {
    expect(parseLocator('HO52')).toEqual({ ok: true, value: { lat: 52.5, lon: -29 } });
    expect(parseLocator(' ho52BB ')).toEqual(parseLocator('HO52bb'));
  });
  test.each(['H', 'HO5', 'SO52', 'HO52ya', 'HO52bb9', '52HO', ''])('“%s” is none', (text) =>
    expect(parseLocator(text)).toMatchObject({ ok: false }),
  );
  test('writing and reading again ends in the same square', () => {
    const anyPoint = fc.record({
      lat: fc.double({ min: -90, max: 90, noNaN: true }),
      lon: fc.double({ min: -180, max: 180, noNaN: true }),
    });
    fc.assert(
      fc.property(anyPoint, fc.constantFrom(2, 4, 6, 8), (point, characters) => {
        const text = locator(point, characters);
        const middle = parseLocator(text);
        expect(middle.ok).toBe(true);
        if (!middle.ok) return;
        expect(locator(middle.value, characters)).toBe(text);
        const [height, width] = { 2: [10, 20], 4: [1, 2], 6: [1 / 24, 1 / 12], 8: [1 / 240, 1 / 120] }[
          characters
        ]!;
        expect(Math.abs(middle.value.lat - point.lat)).toBeLessThanOrEqual(height! / 2 + 1e-6);
        expect(Math.abs(middle.value.lon - point.lon)).toBeLessThanOrEqual(width! / 2 + 1e-6);
      }),
    );
  });
});
