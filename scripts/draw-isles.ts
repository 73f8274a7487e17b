import { writeFileSync } from 'node:fs';
import { contours } from 'd3-contour';
import { createNoise2D } from 'simplex-noise';
import { bearing, between, destination, distanceKm, type Point } from '../src/core/radio';
import { seeded } from '../src/sim/random';
import { ISLANDS, TOWNS } from '../src/sim/register/gazetteer';

/**
 * Draws the Orrin Isles, the same each time: coast, hills, towns and ferry lines, as src/views/find/map/isles.json. Run by hand after the
 * gazetteer has changed: node --import tsx scripts/draw-isles.ts
 */

const WEST = -33.6;
const EAST = -26.2;
const SOUTH = 50;
const NORTH = 54.3;
/** Degrees of a cell: 1.1 km. */
const CELL_LAT = 0.01;
const CELL_LON = 0.0162;
const columns = Math.round((EAST - WEST) / CELL_LON);
const rows = Math.round((NORTH - SOUTH) / CELL_LAT);

const noise = createNoise2D(seeded(4711));
/** Five octaves, each half as strong and twice as fine: from -1 to 1. */
function rough(x: number, y: number, finest = 5): number {
  let [sum, most] = [0, 0];
  for (let octave = 0; octave < finest; octave++) {
    const strength = 0.55 ** octave;
    sum += strength * noise(x * 2 ** octave + octave * 17, y * 2 ** octave);
    most += strength;
  }
  return sum / most;
}

/** How high the land is, 0 at the shore, about 1 at its middle; below 0 at sea. */
function height(point: Point): number {
  let [best, second] = [-1, -1];
  for (const island of ISLANDS) {
    const [length, width, direction] = island.reach;
    const km = distanceKm(island, point);
    if (km > length * 1.8) continue;
    const off = ((bearing(island, point) - direction) * Math.PI) / 180;
    const reach = Math.hypot((km * Math.cos(off)) / length, (km * Math.sin(off)) / width);
    const own = 1.2 - reach;
    if (own > best) [best, second] = [own, best];
    else second = Math.max(second, own);
  }
  const [x, y] = [(point.lon + 30) * 62, (point.lat - 52) * 111];
  // A sound lies between two islands, wherever they would run into one another.
  const sound = second < 0 ? 0 : Math.max(0, 0.15 + 0.1 * rough(x / 30 + 9, y / 30) - (best - second));
  const shore = best - 6 * sound + 0.3 * rough(x / 46, y / 46);
  // Towns stand on land, whatever the sea would have.
  let town = 0;
  for (const one of TOWNS) {
    const km = distanceKm(one, point);
    if (km < 16) town = Math.max(town, 0.16 * (1 - km / 16));
  }
  const low = Math.max(shore, town > 0 && best > 0.05 ? town - 0.1 : -1);
  return low <= 0 ? low : low * (0.7 + 0.75 * Math.max(-0.5, rough(x / 44 + 40, y / 44, 3)));
}

const values: number[] = [];
for (let row = 0; row < rows; row++)
  for (let column = 0; column < columns; column++)
    values.push(height({ lat: NORTH - row * CELL_LAT, lon: WEST + column * CELL_LON }));

/** Thousandths of a degree: 111 m. */
const place = ([x, y]: number[]): [number, number] => [
  Math.round((WEST + x! * CELL_LON) * 1000),
  Math.round((NORTH - y! * CELL_LAT) * 1000),
];

/** Each ring as its first place and the steps from each to the next. */
function written(ring: number[][]): number[] {
  let [x, y] = [0, 0];
  return ring.flatMap((corner) => {
    const [nextX, nextY] = place(corner);
    const step = [nextX - x, nextY - y];
    [x, y] = [nextX, nextY];
    return step;
  });
}

const area = (ring: number[][]): number =>
  Math.abs(
    ring.reduce((sum, [x, y], at) => {
      const [nextX, nextY] = ring[(at + 1) % ring.length]!;
      return sum + x! * nextY! - nextX! * y!;
    }, 0) / 2,
  );

/** Corners that lie within a third of a cell of the line between their neighbours are left out. */
function thinned(ring: number[][], off: number): number[][] {
  const kept: number[][] = [];
  for (const corner of ring) {
    const [a, b] = kept.slice(-2);
    if (a && b) {
      const across =
        Math.abs((corner[0]! - a[0]!) * (a[1]! - b[1]!) - (a[0]! - b[0]!) * (corner[1]! - a[1]!)) /
        (Math.hypot(corner[0]! - a[0]!, corner[1]! - a[1]!) || 1);
      if (across < off) kept.pop();
    }
    kept.push(corner);
  }
  return kept;
}

const LEVELS = [0, 0.22, 0.42, 0.62, 0.82];
const land = contours().size([columns, rows]).smooth(true).thresholds(LEVELS)(values);
const levels = land.map(({ coordinates }, level) =>
  coordinates
    .flat()
    .filter((ring) => area(ring) > (level === 0 ? 5 : 14))
    .map((ring) => written(thinned(ring, level === 0 ? 0.28 : 0.4))),
);

const FERRIES: [string, string][] = [
  ['Tamsin Quay', 'Norrast'],
  ['Ketterby', 'Hollin Bay'],
  ['Garrowick', 'Perrin Cross'],
  ['Ullstead', 'Stennick'],
  ['Quillhaven', 'Hestin Vale'],
  ['Strand', 'Farrow Point'],
];
const called = (name: string) => TOWNS.find((town) => town.name === name)!;
/** A ferry keeps off the straight line, as the sea has it. */
const ferries = FERRIES.map(([from, to]) => {
  const [a, b] = [called(from), called(to)];
  const middle = destination(between(a, b, 0.5), bearing(a, b) + 90, distanceKm(a, b) * 0.12);
  return [a, middle, b].map(({ lat, lon }) => [Math.round(lon * 1000), Math.round(lat * 1000)]);
});

/** Towns whose names stand on the map first, where there is little room. */
const LARGE = ['Ketterby', 'Norrast', 'Hollin Bay', 'Perrin Cross', 'Stennick', 'Tamsin Quay', 'Garrowick'];
const towns = TOWNS.map(({ name, lat, lon }) => ({ name, lat, lon, large: LARGE.includes(name) }));
const islands = ISLANDS.map(({ name, lat, lon }) => ({ name, lat, lon }));

const text = JSON.stringify({ levels, ferries, towns, islands });
writeFileSync('src/views/find/map/isles.json', `${text}\n`);
console.log(`${levels.map((rings) => rings.length).join(' ')} rings, ${Math.round(text.length / 1000)} kB`);
