import { and, isNull, sql } from 'drizzle-orm';
import { vectorOf, type Box, type Point } from '../core/radio';
import { stations } from '../db';
import { reading } from './database';

/**
 * Where all kept stations are, in memory: of a hundred thousand, those in a box are found in a millisecond, for which the database takes
 * a hundred. What else is known of them stays in the database.
 */

/** Which station stands somewhere. */
export interface Spot {
  source: string;
  ref: string;
}

/** A square of so many degrees. */
const SQUARE = 0.1;
/** With a database that others write to as well it is read anew after so long, ms. */
const SHARED_MS = 60_000;

const keyOf = ({ source, ref }: Spot) => `${source} ${ref}`;
const row = (lat: number) => Math.floor((lat + 90) / SQUARE);
const column = (lon: number) => Math.floor((lon + 180) / SQUARE);
const COLUMNS = column(180) + 1;
const squareOf = ({ lat, lon }: Point) => row(lat) * COLUMNS + column(lon);

/** What stands in a square: numbers in one row, so that going over all of them is going along the memory. */
interface Square {
  spots: Spot[];
  /** Three numbers each, as vectors. */
  at: number[];
}

interface Places {
  /** In which square each stands. */
  byKey: Map<string, number>;
  squares: Map<number, Square>;
  at: number;
}

// One for the process, however often modules are loaded again.
const shared = globalThis as { veridonPlaces?: { folder: string; places: Promise<Places> } };

function put({ byKey, squares }: Places, { source, ref, lat, lon }: Spot & Point): void {
  const spot = { source, ref };
  const key = keyOf(spot);
  take(squares, byKey.get(key), spot);
  const number = squareOf({ lat, lon });
  byKey.set(key, number);
  let square = squares.get(number);
  if (!square) squares.set(number, (square = { spots: [], at: [] }));
  square.spots.push(spot);
  square.at.push(...vectorOf({ lat, lon }));
}

function take(squares: Places['squares'], number: number | undefined, { source, ref }: Spot): void {
  const square = number === undefined ? undefined : squares.get(number);
  const at = square?.spots.findIndex((one) => one.ref === ref && one.source === source) ?? -1;
  if (at < 0) return;
  square!.spots.splice(at, 1);
  square!.at.splice(at * 3, 3);
}

/** Rows that are read at once. */
const AT_ONCE = 2000;

/** Reads all, a stretch at a time. What is saved or removed meanwhile is told afterwards: both wait until this has ended. */
async function read(): Promise<Places> {
  const places: Places = { byKey: new Map(), squares: new Map(), at: Date.now() };
  const database = await reading();
  let last = { source: '', ref: '' };
  for (;;) {
    const rows = await database
      .select({ source: stations.source, ref: stations.ref, lat: stations.lat, lon: stations.lon })
      .from(stations)
      .where(
        and(
          isNull(stations.goneAt),
          sql`(${stations.source}, ${stations.ref}) > (${last.source}, ${last.ref})`,
        ),
      )
      .orderBy(stations.source, stations.ref)
      .limit(AT_ONCE);
    for (const spot of rows) put(places, spot);
    const end = rows.at(-1);
    if (!end || rows.length < AT_ONCE) return places;
    last = end;
  }
}

/** All places; read from the database when they are first wanted. */
async function all(): Promise<Places> {
  const folder = `${process.env.DATABASE_URL ?? ''} ${process.env.VERIDON_DATA_DIR ?? ''}`;
  const known = shared.veridonPlaces;
  if (known?.folder === folder) {
    const places = await known.places;
    if (!process.env.DATABASE_URL || Date.now() - places.at < SHARED_MS) return places;
  }
  const places = read();
  shared.veridonPlaces = { folder, places };
  // What could not be read is read again by whoever comes next.
  places.catch(() => {
    if (shared.veridonPlaces?.places === places) shared.veridonPlaces = undefined;
  });
  return places;
}

/** Says that stations are kept; told once they are. */
export async function placesKept(spots: readonly (Spot & Point)[]): Promise<void> {
  const places = await all();
  for (const spot of spots) put(places, spot);
}

/** Says that stations are gone. */
export async function placesGone(source: string, refs: readonly string[]): Promise<void> {
  const { byKey, squares } = await all();
  for (const ref of refs) {
    const spot = { source, ref };
    take(squares, byKey.get(keyOf(spot)), spot);
    byKey.delete(keyOf(spot));
  }
}

/** Goes over the stations in the boxes by squares, each once, and some that are a little outside; their places are three numbers each, as vectors. */
export async function visitSpots(
  boxes: readonly Box[],
  see: (spots: readonly Spot[], at: readonly number[]) => void,
): Promise<void> {
  const { squares } = await all();
  const touched = new Set<number>();
  for (const { south, north, west, east } of boxes) {
    const spans =
      west <= east
        ? [[west, east]]
        : [
            [west, 180],
            [-180, east],
          ];
    for (let at = row(south); at <= row(north); at++)
      for (const [from, to] of spans)
        for (let along = column(from!); along <= column(to!); along++) touched.add(at * COLUMNS + along);
  }
  for (const number of touched) {
    const square = squares.get(number);
    if (square) see(square.spots, square.at);
  }
}
