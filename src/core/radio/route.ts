import { distanceKm, EARTH_RADIUS_KM, type Point } from './geo';

/** Where a point lies beside a route, km. */
export interface Beside {
  /** To the nearest point of the route. */
  distance: number;
  /** What has been travelled there, from its beginning. */
  along: number;
}

/** A point of the sphere as a vector of length 1, so that it is worked out once where it is asked for often. */
export type Vector = readonly [number, number, number];

const rad = (degrees: number) => (degrees * Math.PI) / 180;
export const vectorOf = ({ lat, lon }: Point): Vector => [
  Math.cos(rad(lat)) * Math.cos(rad(lon)),
  Math.cos(rad(lat)) * Math.sin(rad(lon)),
  Math.sin(rad(lat)),
];
const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const size = (a: Vector) => Math.sqrt(dot(a, a));
/** The angle between two vectors; exact for small ones too, where the arc cosine is not. */
const angle = (a: Vector, b: Vector) => Math.atan2(size(cross(a, b)), dot(a, b));

const by = (x: number, y: number, z: number, a: Vector) => x * a[0] + y * a[1] + z * a[2];
/** The square of the chord between the ends of two vectors: exact for small angles too, and nothing is made for it. */
const chord = (x: number, y: number, z: number, b: Vector) =>
  (x - b[0]) ** 2 + (y - b[1]) ** 2 + (z - b[2]) ** 2;
const angleOfChord = (square: number) => 2 * Math.asin(Math.min(1, Math.sqrt(square) / 2));

/** Ends that are nearer to one another, or to being opposite, than this have no great circle of their own. */
const NO_CIRCLE = 1e-12;

interface Leg {
  a: Vector;
  b: Vector;
  /** The pole of its great circle; null where there is none. */
  pole: Vector | null;
  /** What is on the far side of its beginning, and on this side of its end, as poles too: a point between them is beside the leg. */
  begins: Vector;
  ends: Vector;
  km: number;
  from: number;
}

/** A route that was measured: places in order, joined by legs along great circles. */
export interface Route {
  /** From the first place to the last, km. */
  km: number;
  /** What has been travelled at each of its places, km. */
  at: readonly number[];
  /** Where a point lies beside it; of several as near, where the route comes first. */
  beside(point: Point): Beside;
  /**
   * The same for many points, three numbers each as vectors, written into `distances` and `alongs`: those further from it than `km` cost
   * next to nothing and have a distance without end.
   */
  among(at: ArrayLike<number>, km: number, distances: Float64Array, alongs: Float64Array): void;
}

/**
 * Measures a route of one place or more. Legs go the shorter way round; between places that are exactly opposite there is no such
 * way, and only the two places themselves count.
 *
 * @example routeOf([{ lat: 52, lon: -30 }, { lat: 53, lon: -30 }]).beside({ lat: 52.5, lon: -29 }) // { distance: 67.7, along: 55.8 }
 */
export function routeOf(places: readonly Point[]): Route {
  const legs: Leg[] = [];
  const only = places.length === 1 ? vectorOf(places[0]!) : null;
  const at = [0];
  for (const [index, place] of places.slice(1).entries()) {
    const [a, b] = [vectorOf(places[index]!), vectorOf(place)];
    const normal = cross(a, b);
    const across = size(normal);
    const pole: Vector | null =
      across < NO_CIRCLE ? null : [normal[0] / across, normal[1] / across, normal[2] / across];
    const from = at[index]!;
    const km = angle(a, b) * EARTH_RADIUS_KM;
    legs.push({ a, b, pole, begins: pole ? cross(pole, a) : a, ends: pole ? cross(b, pole) : b, km, from });
    at.push(from + km);
  }
  // Written as one loop without a thing made on the way: it goes over every station in reach of a route.
  const among = (at: ArrayLike<number>, km: number, distances: Float64Array, alongs: Float64Array): void => {
    const most = km / EARTH_RADIUS_KM;
    // What is surely further is not looked at: the sine of the angle, and the square of its chord with room for rounding.
    const limit = most < Math.PI / 2 ? Math.sin(most) : Infinity;
    const chords = most < Math.PI ? (2 * Math.sin(most / 2)) ** 2 * (1 + 1e-9) : Infinity;
    for (let point = 0; point * 3 < at.length; point++) {
      const [x, y, z] = [at[point * 3]!, at[point * 3 + 1]!, at[point * 3 + 2]!];
      let radians = Infinity;
      let along = 0;
      if (only) {
        const square = chord(x, y, z, only);
        if (square <= chords) radians = angleOfChord(square);
      }
      for (const leg of legs) {
        const off = leg.pole ? by(x, y, z, leg.pole) : 0;
        // No point of a great circle is nearer than the circle itself.
        if (Math.abs(off) > limit) continue;
        const on = by(x, y, z, leg.begins);
        if (leg.pole && Math.abs(off) < 1 - NO_CIRCLE && on >= 0 && by(x, y, z, leg.ends) >= 0) {
          const away = Math.asin(Math.abs(off));
          if (away >= radians) continue;
          radians = away;
          along = leg.from + Math.atan2(on, by(x, y, z, leg.a)) * EARTH_RADIUS_KM;
          continue;
        }
        // Beyond either end the nearest point is that end.
        const [toA, toB] = [chord(x, y, z, leg.a), chord(x, y, z, leg.b)];
        if (toA > chords && toB > chords) continue;
        const away = angleOfChord(Math.min(toA, toB));
        if (away >= radians) continue;
        radians = away;
        along = toA <= toB ? leg.from : leg.from + leg.km;
      }
      distances[point] = radians <= most ? radians * EARTH_RADIUS_KM : Infinity;
      alongs[point] = along;
    }
  };
  const [distances, alongs] = [new Float64Array(1), new Float64Array(1)];
  return {
    km: at.at(-1)!,
    at,
    beside(point) {
      among(vectorOf(point), Infinity, distances, alongs);
      return { distance: distances[0]!, along: alongs[0]! };
    },
    among,
  };
}

/** A box of degrees; where it goes over the 180th meridian, `west` is more than `east`. */
export interface Box {
  south: number;
  north: number;
  west: number;
  east: number;
}

const turned = (lon: number) => ((((lon + 180) % 360) + 360) % 360) - 180;

/** The box that holds all that is within so many km of a point; where a pole is among it, all the way round. */
export function boxAround({ lat, lon }: Point, km: number): Box {
  const reach = ((km / EARTH_RADIUS_KM) * 180) / Math.PI;
  const [south, north] = [lat - reach, lat + reach];
  if (south <= -90 || north >= 90)
    return { south: Math.max(-90, south), north: Math.min(90, north), west: -180, east: 180 };
  // The widest is not at the latitude of the point but a little towards the pole: sin(width) = sin(reach) / cos(lat).
  const width = (Math.asin(Math.min(1, Math.sin(rad(reach)) / Math.cos(rad(lat)))) * 180) / Math.PI;
  if (width >= 180) return { south, north, west: -180, east: 180 };
  return { south, north, west: turned(lon - width), east: turned(lon + width) };
}

/** Pieces of a route that get a box of their own, km: boxes of long legs hold mostly what is far from them. */
const PIECE_KM = 15;
/** Most pieces of one leg. */
const MOST_PIECES = 100;

/** Boxes that together hold all that is within so many km of a route. */
export function boxesAlong(places: readonly Point[], km: number): Box[] {
  if (places.length === 1) return [boxAround(places[0]!, km)];
  return places.slice(1).flatMap((to, index) => {
    const from = places[index]!;
    const length = distanceKm(from, to);
    const pieces = Math.max(1, Math.min(MOST_PIECES, Math.ceil(length / PIECE_KM)));
    // Around the middle of each piece, as far as half of it and what is asked for.
    return Array.from({ length: pieces }, (_, piece) =>
      boxAround(between(from, to, (piece + 0.5) / pieces), km + length / pieces / 2),
    );
  });
}

/** The point that lies a share of the way from one to another along their great circle; between opposite ones, the first. */
export function between(from: Point, to: Point, share: number): Point {
  const [a, b] = [vectorOf(from), vectorOf(to)];
  const whole = angle(a, b);
  if (Math.sin(whole) < NO_CIRCLE) return share < 0.5 ? from : to;
  const [x, y] = [Math.sin((1 - share) * whole) / Math.sin(whole), Math.sin(share * whole) / Math.sin(whole)];
  const c = [0, 1, 2].map((axis) => x * a[axis]! + y * b[axis]!) as unknown as Vector;
  return {
    lat: (Math.atan2(c[2], Math.hypot(c[0], c[1])) * 180) / Math.PI,
    lon: (Math.atan2(c[1], c[0]) * 180) / Math.PI,
  };
}

/** The place at which so many km of a route have been travelled; its ends before and after it. */
export function placeAlong(places: readonly Point[], km: number): Point {
  const { at } = routeOf(places);
  const leg = at.findIndex((travelled, index) => index > 0 && km <= travelled);
  if (km <= 0 || places.length < 2) return places[0]!;
  if (leg < 0) return places.at(-1)!;
  const length = at[leg]! - at[leg - 1]!;
  return between(places[leg - 1]!, places[leg]!, length === 0 ? 0 : (km - at[leg - 1]!) / length);
}

/** Degrees as exact as a route is written: 11 m. */
const DEGREE_FIGURES = 4;

/** A route as it stands in an address: `52.06,-29.84;51.9,-29.5`. */
export const routeText = (places: readonly Point[]): string =>
  places
    .map(({ lat, lon }) => [lat, lon].map((degrees) => Number(degrees.toFixed(DEGREE_FIGURES))).join(','))
    .join(';');

/** Reads a route as it stands in an address; null where it is none. */
export function parseRoute(text: string): Point[] | null {
  const places = text.split(';').map((one) => one.split(','));
  const sound = places.every(
    (one) =>
      one.length === 2 &&
      one.every((degrees) => /^-?\d{1,3}(\.\d{1,9})?$/.test(degrees)) &&
      Math.abs(Number(one[0])) <= 90 &&
      Math.abs(Number(one[1])) <= 180,
  );
  return sound ? places.map(([lat, lon]) => ({ lat: Number(lat), lon: Number(lon) })) : null;
}

/**
 * A line with fewer places that is nowhere further from the one that was given than `km`, by dropping what lies nearly straight between
 * its neighbours (Ramer, Douglas, Peucker).
 */
export function simplified(places: readonly Point[], km: number): Point[] {
  const keep = new Set([0, places.length - 1]);
  const open: [number, number][] = [[0, places.length - 1]];
  for (let part = open.pop(); part; part = open.pop()) {
    const [from, to] = part;
    if (to - from < 2) continue;
    const leg = routeOf([places[from]!, places[to]!]);
    let [worst, off] = [from, -1];
    for (let at = from + 1; at < to; at++) {
      const { distance } = leg.beside(places[at]!);
      if (distance > off) [worst, off] = [at, distance];
    }
    if (off <= km) continue;
    keep.add(worst);
    open.push([from, worst], [worst, to]);
  }
  return places.filter((_, at) => keep.has(at));
}

/** The same in at most so many places, as near to what was given as that allows, within a factor of two. */
export function simplifiedTo(places: readonly Point[], most: number): Point[] {
  let found = [...places];
  for (let km = 0.05; found.length > most; km *= 2) found = simplified(places, km);
  return found;
}
