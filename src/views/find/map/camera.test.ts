import * as fc from '@/core/property.test.kit';
import {
  around,
  fromScreen,
  levelOf,
  onScreen,
  panned,
  plane,
  projectionOf,
  pxPerKm,
  zoomed,
} from './camera';

const size = { width: 800, height: 600 };
const camera = fc.record({
  x: fc.double({ min: -3, max: 3, noNaN: true }),
  y: fc.double({ min: -1.5, max: 1.5, noNaN: true }),
  k: fc.double({ min: 600, max: 300_000, noNaN: true }),
});
const px = fc.double({ min: 0, max: 800, noNaN: true });

test('the plane is that of Mercator', () => {
  expect(plane({ lat: 0, lon: 180 })).toEqual([Math.PI, expect.closeTo(0, 9)]);
  // ln(tan(45 + 60/2)) = ln(tan 75) = 1.31696
  expect(plane({ lat: 60, lon: 0 })[1]).toBeCloseTo(-1.31696, 5);
  expect(Number.isFinite(plane({ lat: 90, lon: 0 })[1])).toBe(true);
});

test('what is drawn somewhere is what is there', () => {
  fc.assert(
    fc.property(camera, px, px, (from, x, y) => {
      const point = fromScreen(from, size, x, y);
      fc.pre(Math.abs(point.lat) < 85);
      const [backX, backY] = onScreen(from, size, point);
      expect(backX).toBeCloseTo(x, 5);
      expect(backY).toBeCloseTo(y, 5);
      fc.pre(Math.abs(point.lon) < 180);
      const [drawnX, drawnY] = projectionOf(from, size)([point.lon, point.lat])!;
      expect(drawnX).toBeCloseTo(x, 3);
      expect(drawnY).toBeCloseTo(y, 3);
    }),
  );
});

test('zooming keeps what is under the pointer, moving takes it along', () => {
  fc.assert(
    fc.property(camera, px, px, fc.double({ min: 0.2, max: 5, noNaN: true }), (from, x, y, by) => {
      const point = fromScreen(from, size, x, y);
      fc.pre(Math.abs(point.lat) < 85);
      const [nearX, nearY] = onScreen(zoomed(from, size, by, x, y), size, point);
      expect(nearX).toBeCloseTo(x, 4);
      expect(nearY).toBeCloseTo(y, 4);
      const [movedX, movedY] = onScreen(panned(from, 30, -20), size, point);
      expect(movedX).toBeCloseTo(x + 30, 4);
      expect(movedY).toBeCloseTo(y - 20, 4);
    }),
  );
});

test('all of what is wanted is seen, with its margin', () => {
  const points = [
    { lat: 51, lon: -31 },
    { lat: 53, lon: -29 },
    { lat: 52, lon: -30 },
  ];
  const from = around(points, size, 50);
  const seen = points.map((point) => onScreen(from, size, point));
  expect(Math.min(...seen.map(([, y]) => y))).toBeCloseTo(50, 3);
  expect(Math.max(...seen.map(([, y]) => y))).toBeCloseTo(550, 3);
  for (const [x] of seen) expect(x > 50 && x < 750).toBe(true);
});

test('a km, and a level of zoom', () => {
  // 6371.0088 px a radian: a px a km at the equator, two at 60 degrees
  expect(pxPerKm({ x: 0, y: 0, k: 6371.0088 }, 0)).toBeCloseTo(1, 9);
  expect(pxPerKm({ x: 0, y: 0, k: 6371.0088 }, 60)).toBeCloseTo(2, 9);
  // the whole way round in 256 px is level 0, in 1024 px level 2
  expect(levelOf({ x: 0, y: 0, k: 1024 / (2 * Math.PI) })).toBeCloseTo(2, 9);
});
