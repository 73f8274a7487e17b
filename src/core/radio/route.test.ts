import * as fc from '../property.test.kit';

import {
  between,
  boxAround,
  boxesAlong,
  destination,
  distanceKm,
  parseRoute,
  placeAlong,
  routeOf,
  routeText,
  simplified,
  simplifiedTo,
  vectorOf,
  type Box,
  type Point,
} from '.';

const inBox = ({ lat, lon }: Point, { south, north, west, east }: Box): boolean =>
  lat >= south && lat <= north && (west <= east ? lon >= west && lon <= east : lon >= west || lon <= east);
const p = (lat: number, lon: number): Point => ({ lat, lon });
const DEGREE = 111.195; // km of a great circle, 6371.0088 x pi / 180
const point = fc.record({
  lat: fc.double({ min: -90, max: 90, noNaN: true }),
  lon: fc.double({ min: -180, max: 180, noNaN: true }),
});

test.each([
  // along the equator: two degrees north of it, ten degrees on
  ['equator', [p(0, 0), p(0, 30)], p(2, 10), 2 * DEGREE, 10 * DEGREE],
  // before the beginning and after the end the ends are nearest
  ['before', [p(0, 0), p(0, 30)], p(0, -3), 3 * DEGREE, 0],
  ['after', [p(0, 0), p(0, 30)], p(0, 31), DEGREE, 30 * DEGREE],
  // along a meridian, so that a point one degree of latitude beyond a turn lies off it
  ['two legs', [p(50, -30), p(52, -30), p(52, -29)], p(51, -30), 0, DEGREE],
  // over the 180th meridian
  ['antimeridian', [p(0, 179), p(0, -179)], p(1, 180), DEGREE, DEGREE],
  ['antimeridian, from the other side', [p(0, 179), p(0, -179)], p(-1, -180), DEGREE, DEGREE],
  // over the pole: from 89 N 0 to 89 N 180 the way goes over the pole, and 89 N 90 W is one degree from it
  ['pole', [p(89, 0), p(89, 180)], p(89, -90), DEGREE, DEGREE],
  // the pole of the leg's own circle is a quarter of the way round from all of it
  ['quarter', [p(0, 0), p(0, 30)], p(90, 0), 90 * DEGREE, 0],
  // opposite to the middle of a leg: 165 degrees to either end
  ['antipode', [p(0, 0), p(0, 30)], p(0, -165), 165 * DEGREE, 0],
  // opposite ends have no way between them
  ['opposite ends', [p(0, 0), p(0, 180)], p(10, 0), 10 * DEGREE, 0],
  ['one place', [p(52, -30)], p(53, -30), DEGREE, 0],
  ['a leg of no length', [p(52, -30), p(52, -30)], p(53, -30), DEGREE, 0],
])('%s', (_, places, of, distance, along) => {
  const found = routeOf(places).beside(of);
  expect(found.distance).toBeCloseTo(distance, 1);
  expect(found.along).toBeCloseTo(along, 1);
});

test('among many points each that is near enough is where beside says it is, and all others are without end', () => {
  let near = 0;
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 1, maxLength: 5 }),
      fc.array(point, { minLength: 1, maxLength: 9 }),
      fc.double({ min: 0.1, max: 15_000, noNaN: true }),
      (places, points, far) => {
        const route = routeOf(places);
        const besides = points.map((one) => route.beside(one));
        // As far as one of them to a hair as well: nothing is lost on the edge.
        for (const km of [far, ...besides.map(({ distance }) => distance + 1e-6)]) {
          const [distances, alongs] = [new Float64Array(9), new Float64Array(9)];
          route.among(points.flatMap(vectorOf), km, distances, alongs);
          for (const [at, { distance, along }] of besides.entries()) {
            expect(distances[at]).toBe(distance <= km ? distance : Infinity);
            if (distance > km) continue;
            expect(alongs[at]).toBe(along);
            near++;
          }
        }
      },
    ),
  );
  fc.expectReached('near', near, 301);
});

test('what has been travelled at each place', () => {
  const { km, at } = routeOf([p(50, -30), p(52, -30), p(52, -30), p(51, -30)]);
  expect(at.map((one) => Math.round(one))).toEqual([0, 222, 222, 334]);
  expect(km).toBeCloseTo(3 * DEGREE, 1);
  expect(routeOf([]).beside(p(0, 0)).distance).toBe(Infinity);
});

test('no point of a route is nearer than what it says, and one is as near', () => {
  fc.assert(
    fc.property(fc.array(point, { minLength: 1, maxLength: 5 }), point, (places, of) => {
      const { distance, along } = routeOf(places).beside(of);
      let nearest = Infinity;
      let where: Point = places[0]!;
      for (let leg = 0; leg < Math.max(1, places.length - 1); leg++)
        for (let share = 0; share <= 1; share += 1 / 64) {
          const there = between(places[leg]!, places[leg + 1] ?? places[leg]!, share);
          const away = distanceKm(there, of);
          if (away < nearest) [nearest, where] = [away, there];
        }
      expect(nearest).toBeGreaterThan(distance - 0.001);
      // pieces of a 64th of a leg, half of which is at most 157 km
      expect(nearest).toBeLessThan(distance + 160);
      expect(where).toBeDefined();
      expect(along).toBeLessThanOrEqual(routeOf(places).km + 0.001);
    }),
  );
});

test('a point on a leg is on the route, as far along as it is from the beginning', () => {
  fc.assert(
    fc.property(point, point, fc.double({ min: 0, max: 1, noNaN: true }), (from, to, share) => {
      fc.pre(distanceKm(from, to) < 19_900);
      const { distance, along } = routeOf([from, to]).beside(between(from, to, share));
      expect(distance).toBeLessThan(0.01);
      expect(Math.abs(along - share * distanceKm(from, to))).toBeLessThan(0.05);
    }),
  );
});

test.each([
  [p(0, 0), DEGREE, { south: -1, north: 1, west: -1, east: 1 }],
  // sin(width) = sin(1) / cos(60) = 0.0349: two degrees and a little
  [p(60, 0), DEGREE, { south: 59, north: 61, west: -2.0003, east: 2.0003 }],
  [p(0, 179.5), DEGREE, { south: -1, north: 1, west: 178.5, east: -179.5 }],
  [p(89.5, 10), DEGREE, { south: 88.5, north: 90, west: -180, east: 180 }],
  [p(-89.5, 10), DEGREE, { south: -90, north: -88.5, west: -180, east: 180 }],
])('the box around %j', (centre, km, box) => {
  const found = boxAround(centre, km);
  for (const side of ['south', 'north', 'west', 'east'] as const)
    expect(found[side]).toBeCloseTo(box[side], 3);
});

test('what is near is in a box, whatever the place; and boxes leave most of the world out', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 1, maxLength: 4 }),
      fc.double({ min: 1, max: 500, noNaN: true }),
      fc.double({ min: 0, max: 359, noNaN: true }),
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      point,
      (places, km, degrees, share, way, any) => {
        const boxes = boxesAlong(places, km);
        const leg = Math.min(Math.floor(way * places.length), Math.max(0, places.length - 2));
        const to = places[leg + 1] ?? places[leg]!;
        fc.pre(distanceKm(places[leg]!, to) < 19_900);
        const near = destination(between(places[leg]!, to, way), degrees, km * share);
        const held = { lat: near.lat, lon: ((((near.lon + 180) % 360) + 360) % 360) - 180 };
        expect(boxes.some((box) => inBox(held, box))).toBe(true);
        reached.count('out', !boxes.some((box) => inBox(any, box)));
      },
    ),
    { numRuns: 300 },
  );
  reached.expectShare('out', 0.1);
});

test('the place at which so much of a route has been travelled', () => {
  const places = [p(0, 0), p(0, 10), p(0, 10), p(5, 10)];
  expect(placeAlong(places, 5 * DEGREE)).toEqual({ lat: expect.closeTo(0, 3), lon: expect.closeTo(5, 3) });
  expect(placeAlong(places, 12 * DEGREE)).toEqual({ lat: expect.closeTo(2, 3), lon: expect.closeTo(10, 3) });
  expect(placeAlong(places, -1)).toEqual(p(0, 0));
  expect(placeAlong(places, 1e6)).toEqual(p(5, 10));
  expect(placeAlong([p(1, 1)], 7)).toEqual(p(1, 1));
});

test('a route is written to four figures and read again', () => {
  const places = [p(52.06001, -29.84), p(-51.9, 29.5)];
  expect(routeText(places)).toBe('52.06,-29.84;-51.9,29.5');
  expect(parseRoute('52.06,-29.84;-51.9,29.5')).toEqual([p(52.06, -29.84), p(-51.9, 29.5)]);
  for (const none of ['', '52', '52,', '52,1,2', '91,0', '0,181', 'a,b', '1e1,0', '52,1;', 'Infinity,0'])
    expect(parseRoute(none)).toBeNull();
});

test('a track loses what lies straight, and nothing of it lies further from what is left than was said', () => {
  // 0.01 degrees are 1.1 km off the line; 0.001 are 0.1 km
  const track = [p(52, -30), p(52.001, -29.9), p(52.01, -29.8), p(52, -29.7), p(52, -29.6)];
  expect(simplified(track, 0.5)).toEqual([p(52, -30), p(52.01, -29.8), p(52, -29.7), p(52, -29.6)]);
  expect(simplified(track, 2)).toEqual([p(52, -30), p(52, -29.6)]);
  expect(simplified([p(1, 1)], 1)).toEqual([p(1, 1)]);
  const near = fc.record({
    lat: fc.double({ min: 51, max: 53, noNaN: true }),
    lon: fc.double({ min: -31, max: -29, noNaN: true }),
  });
  fc.assert(
    fc.property(
      fc.array(near, { minLength: 2, maxLength: 60 }),
      fc.integer({ min: 2, max: 20 }),
      (places, most) => {
        const left = simplified(places, 20);
        for (const place of places) expect(routeOf(left).beside(place).distance).toBeLessThan(20.001);
        expect(simplifiedTo(places, most).length).toBeLessThanOrEqual(Math.max(2, most));
        expect(left[0]).toEqual(places[0]);
        expect(left.at(-1)).toEqual(places.at(-1));
      },
    ),
  );
});
