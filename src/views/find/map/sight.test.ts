import type { Camera } from './camera';
import { around, onScreen, pxPerKm } from './camera';
import { dragged, gripAt, pointsOf, spanOf, type Drawn } from './sight';

const size = { width: 400, height: 400 };
const centre = { lat: 52, lon: -30 };
const circle: Drawn = { kind: 'around', centre, km: 40 };
const camera: Camera = around(pointsOf(circle), size);
const [x, y] = onScreen(camera, size, centre);
const radius = 40 * pxPerKm(camera, 52);

test('a circle is in sight with its margin, and takes most of the picture', () => {
  expect([Math.round(x), Math.round(y)]).toEqual([200, expect.closeTo(200, -1)]);
  // 400 px less 24 on either side
  expect(radius).toBeGreaterThan(170);
  expect(radius).toBeLessThan(178);
  expect(spanOf(pointsOf(circle), camera, size)).toBeCloseTo(0.88, 1);
});

test.each([
  ['its middle', x, y, false, 'centre'],
  ['its rim, to the east', x + radius, y, false, 'rim'],
  ['its rim, to the north', x, y - radius, false, 'rim'],
  ['a little within the rim', x + radius - 5, y, false, 'rim'],
  ['well within', x + radius / 2, y, false, 'map'],
  ['far outside', x + radius + 20, y, false, 'map'],
  ['anywhere with Shift', x + radius / 2, y, true, 'new circle'],
])('pressed on %s', (_, atX, atY, shift, kind) => {
  expect(gripAt(circle, camera, size, atX, atY, shift).kind).toBe(kind);
});

test('places of a route are taken hold of one by one; without a circle or a route the map is', () => {
  const route: Drawn = { kind: 'along', places: [centre, { lat: 52.2, lon: -30 }], km: 15, cuts: [centre] };
  const view = around(pointsOf(route), size);
  const [toX, toY] = onScreen(view, size, { lat: 52.2, lon: -30 });
  expect(gripAt(route, view, size, toX + 3, toY, false)).toEqual({ kind: 'place', at: 1 });
  expect(gripAt(route, view, size, toX + 30, toY, false)).toEqual({ kind: 'map' });
  expect(gripAt({ kind: 'none' }, view, size, toX, toY, false)).toEqual({ kind: 'map' });
  const there = { lat: 53, lon: -31 };
  expect(dragged(route, { kind: 'place', at: 1 }, there)).toEqual({
    kind: 'along',
    places: [centre, there],
    km: 15,
    cuts: [],
  });
});

test('what is dragged: the rim to a whole number of km, a new circle from where it began, the middle with its width', () => {
  // a degree of latitude is 111.2 km
  expect(dragged(circle, { kind: 'rim' }, { lat: 53, lon: -30 })).toEqual({ ...circle, km: 111 });
  expect(dragged(circle, { kind: 'rim' }, centre)).toEqual({ ...circle, km: 1 });
  expect(dragged(circle, { kind: 'rim' }, { lat: 70, lon: -30 })).toEqual({ ...circle, km: 500 });
  expect(dragged(circle, { kind: 'centre' }, { lat: 51, lon: -29 })).toEqual({
    ...circle,
    centre: { lat: 51, lon: -29 },
  });
  const from = { lat: 51, lon: -30 };
  expect(dragged({ kind: 'none' }, { kind: 'new circle', centre: from }, centre)).toEqual({
    kind: 'around',
    centre: from,
    km: 111,
  });
  expect(dragged(circle, { kind: 'map' }, centre)).toBeNull();
});
