import { and, asc, count, eq, inArray, isNull, lt, max, ne, or, sql } from 'drizzle-orm';
import type { DirectoryRow, StationsAnswer } from '../api';
import {
  candidatesInSteps,
  readAll,
  stationsOf,
  type Circle,
  type Entry,
  type Known,
  type Source,
  type Where,
} from '../core/directory';
import { MODELS } from '../core/models';
import type { PlanId } from '../core/plan';
import { boxesAlong, distanceKm, between, routeOf, type Point, type Route } from '../core/radio';
import { ownDirectories, stations } from '../db';
import { reading, writing } from './database';
import { giveUpAfter } from './fetch-json';
import { inSteps, letOthers } from './in-steps';
import { wantModel } from './models';
import { getPlan } from './plans';
import { notFound, Problem } from './problem';
import { placesGone, placesKept, visitSpots, type Spot } from './station-places';
import { accountOf, keepAccount, patienceMs, SOURCES, type Account } from './sources';

/** Stations as they were answered, kept with their dates: what is searched, with the directories or without them. */

/** Rows of one statement. */
const AT_ONCE = 500;
/** Stations that are read at once. */
const READ_AT_ONCE = 500;
/** What was asked of a directory so short a time ago is not asked again, ms. */
const FRESH_MS = 10 * 60_000;

/** Keeps what a source answered; what it said before of the same stations is over. */
export async function keepStations(source: string, entries: readonly Entry[], asked: Date): Promise<void> {
  const database = await writing();
  // One station twice in an answer would be two changes of one row in one statement.
  const rows = [...new Map(entries.map((entry) => [entry.ref, entry])).values()];
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    // One parameter for all of them: a statement with thousands takes long to make.
    const put = JSON.stringify(
      rows
        .slice(from, from + AT_ONCE)
        .map((entry) => ({ ref: entry.ref, lat: entry.lat, lon: entry.lon, entry })),
    );
    await database.execute(sql`
      insert into ${stations} (source, ref, lat, lon, entry, asked_at)
      select ${source}, ref, lat, lon, entry, ${asked.toISOString()}::timestamptz
      from jsonb_to_recordset(${put}::jsonb) as x(ref text, lat double precision, lon double precision, entry jsonb)
      on conflict (source, ref) do update set lat = excluded.lat, lon = excluded.lon, entry = excluded.entry,
        asked_at = excluded.asked_at, gone_at = null`);
  }
  await placesKept(rows.map(({ ref, lat, lon }) => ({ source, ref, lat, lon })));
}

/** Marks those as gone that a source no longer has in a circle of which it has just said all. */
async function forgetGone(
  source: string,
  circle: Circle,
  answered: ReadonlySet<string>,
  asked: Date,
): Promise<void> {
  const database = await writing();
  const there: string[] = [];
  // What lies on the edge may have been left out by rounding.
  const inside = routeOf([circle]);
  await visitNear(inside, [circle], circle.radiusKm - 0.01, ({ ref, source: of }) => {
    if (of === source && !answered.has(ref)) there.push(ref);
  });
  if (there.length === 0) return;
  const gone = await database
    .update(stations)
    .set({ goneAt: asked })
    .where(and(eq(stations.source, source), inArray(stations.ref, there), lt(stations.askedAt, asked)))
    .returning({ ref: stations.ref });
  await placesGone(
    source,
    gone.map(({ ref }) => ref),
  );
}

interface Asked extends Circle {
  source: string;
  at: number;
}
/** Which circles were asked for of late, in this process. */
let asked: Asked[] = [];

/** Whether a source was asked for all of a circle a moment ago. */
const isFresh = (source: string, circle: Circle) =>
  asked.some(
    (one) =>
      one.source === source &&
      Date.now() - one.at < FRESH_MS &&
      distanceKm(one, circle) + circle.radiusKm <= one.radiusKm + 0.001,
  );

/** Asks a source for a circle and keeps what it says; gives what keeps it from answering, and the rows that nobody understood. */
export async function askSource(
  source: Source,
  circle: Circle,
  again: boolean,
  signal: AbortSignal,
): Promise<{ trouble: string | null; skipped: string[] }> {
  if (!again && isFresh(source.id, circle)) return { trouble: null, skipped: [] };
  const at = new Date();
  try {
    const { entries, skipped, total } = await readAll(source, circle, signal);
    await keepStations(source.id, entries, at);
    if (total <= entries.length + skipped.length && skipped.length === 0) {
      await forgetGone(source.id, circle, new Set(entries.map(({ ref }) => ref)), at);
      asked = [
        ...asked.filter((one) => Date.now() - one.at < FRESH_MS).slice(-200),
        { ...circle, source: source.id, at: at.getTime() },
      ];
    }
    return { trouble: null, skipped };
  } catch (error) {
    // Whatever else it is has its own way up: nothing is to be hidden behind a directory.
    if (error instanceof Problem) return { trouble: error.detail, skipped: [] };
    throw error;
  }
}

/** What is asked: where, of which sources, and whether the directories themselves are asked as well. */
export interface StationSearch {
  where: { kind: 'around'; point: Point; km: number } | { kind: 'along'; places: Point[]; km: number };
  sources: readonly string[];
  ask: 'no' | 'yes' | 'again';
  most: number;
  planId?: PlanId | undefined;
  modelId?: string | undefined;
}

/** The smallest circle around the middle of a route's ends and turns that holds its corridor. */
function circleOf({ where }: StationSearch): Circle {
  if (where.kind === 'around') return { ...where.point, radiusKm: where.km };
  const [first] = where.places as [Point];
  const furthest = where.places.reduce(
    (a, b) => (distanceKm(first, b) > distanceKm(first, a) ? b : a),
    first,
  );
  const middle = between(first, furthest, 0.5);
  // Great circles bulge towards the pole between two places: looked at a few points of each leg.
  const reach = Math.max(
    ...where.places.flatMap((place, index) =>
      [0, 0.25, 0.5, 0.75].map((share) =>
        distanceKm(middle, between(place, where.places[index + 1] ?? place, share)),
      ),
    ),
  );
  return { ...middle, radiusKm: reach + where.km };
}

/** Goes over the kept stations that are no further than `km` from a route; `see` gets the distance and what has been travelled, km. */
async function visitNear(
  route: Route,
  places: readonly Point[],
  km: number,
  see: (spot: Spot, distance: number, along: number) => void,
): Promise<void> {
  let [distances, alongs] = [new Float64Array(256), new Float64Array(256)];
  await visitSpots(boxesAlong(places, km), (spots, at) => {
    if (spots.length > distances.length)
      [distances, alongs] = [new Float64Array(spots.length), new Float64Array(spots.length)];
    route.among(at, km, distances, alongs);
    for (let one = 0; one < spots.length; one++)
      if (distances[one]! < Infinity) see(spots[one]!, distances[one]!, alongs[one]!);
  });
}

/** Kept stations near a place or a route, in order; the first `most` of them with all that is known. */
async function findKept({ where, sources, most }: StationSearch): Promise<{ known: Known[]; total: number }> {
  const places = where.kind === 'around' ? [where.point] : where.places;
  // A place is a route of one.
  const route = routeOf(places);
  // Thousands are found of which a hundred are wanted: they are held as numbers, and no thing is made for each.
  const found: Spot[] = [];
  const distances: number[] = [];
  const orders: number[] = [];
  await visitNear(route, places, where.km, (one, distance, along) => {
    if (!sources.includes(one.source)) return;
    found.push(one);
    distances.push(distance);
    orders.push(where.kind === 'along' ? along : distance);
  });
  // Of many only the first are put in order: numbers alone are sorted ten times as fast.
  const last = Float64Array.from(orders).sort()[Math.min(most, orders.length) - 1] ?? 0;
  const wanted = found
    .map((_, at) => at)
    .filter((at) => orders[at]! <= last)
    .sort((a, b) => orders[a]! - orders[b]! || distances[a]! - distances[b]!)
    .slice(0, most)
    .map((at) => found[at]!);
  return { known: await readStations(wanted), total: found.length };
}

/** The sources without files of one's own that have not come in whole. */
async function wholeOnes(sources: readonly string[]): Promise<readonly string[]> {
  if (!sources.some((id) => id.startsWith('own-'))) return sources;
  const database = await reading();
  const rows = await database
    .select({ id: ownDirectories.id })
    .from(ownDirectories)
    .where(ne(ownDirectories.state, 'whole'));
  return sources.filter((source) => !rows.some(({ id }) => id === source));
}

/** What is kept of stations, by source and reference; those that nobody knows any more are left out. */
export async function readStations(wanted: readonly { source: string; ref: string }[]): Promise<Known[]> {
  const database = await reading();
  const known: Known[] = [];
  for (let from = 0; from < wanted.length; from += READ_AT_ONCE) {
    const some = wanted.slice(from, from + READ_AT_ONCE);
    const rows = await database
      .select({ source: stations.source, entry: stations.entry, askedAt: stations.askedAt })
      .from(stations)
      .where(
        or(
          ...[...new Set(some.map(({ source }) => source))].map(
            (source) =>
              sql`(${stations.source} = ${source} and ${stations.ref} = any(${sql.param(
                some.filter((one) => one.source === source).map(({ ref }) => ref),
              )}::text[]))`,
          ),
        ),
      );
    for (const { source, entry, askedAt } of rows)
      known.push({ source, entry, asked: askedAt.toISOString() });
    await letOthers();
  }
  return known;
}

/** Farthest that a search reaches, km: half of the way round would be everything. */
export const FARTHEST_KM = 1500;

/**
 * Searches what is kept around a place or along a route, and the directories themselves where that is asked for. One that does not
 * answer keeps nothing away that is known of it: it is said beside what was found.
 */
export async function searchStations(search: StationSearch, gone?: AbortSignal): Promise<StationsAnswer> {
  const kept = search.planId === undefined ? null : await getPlan(search.planId);
  const model = wantModel(search.modelId ?? kept?.plan.modelId ?? MODELS[0]!.id);
  const circle = circleOf(search);
  if (circle.radiusKm > FARTHEST_KM)
    throw new Problem(
      422,
      'too-large',
      'Too far',
      `This reaches ${Math.round(circle.radiusKm)} km from its middle; ${FARTHEST_KM} km are the most. Nothing was searched.`,
    );
  const told = new Map<string, string | null>();
  const skipped: string[] = [];
  if (search.ask !== 'no') {
    const signal = giveUpAfter(patienceMs(), gone);
    await Promise.all(
      SOURCES.filter(({ id }) => search.sources.includes(id)).map(async (source) => {
        const answer = await askSource(source, circle, search.ask === 'again', signal);
        told.set(source.id, answer.trouble);
        skipped.push(...answer.skipped);
      }),
    );
  }
  const { known, total } = await findKept({ ...search, sources: await wholeOnes(search.sources) });
  const { where } = search;
  const held: Where =
    where.kind === 'around'
      ? { kind: 'around', point: where.point }
      : { kind: 'along', places: where.places };
  return {
    candidates: await inSteps(candidatesInSteps(stationsOf(known), held, model, kept?.plan ?? null)),
    skipped,
    beyond: total - known.length,
    troubles: [...told].flatMap(([id, trouble]) =>
      trouble === null ? [] : [{ source: id, name: SOURCES.find((one) => one.id === id)!.name, trouble }],
    ),
    routeKm: where.kind === 'along' ? routeOf(where.places).km : null,
  };
}

/** The directories, with what is kept of each. */
export async function listDirectories(): Promise<DirectoryRow[]> {
  const database = await reading();
  const rows = await database
    .select({ source: stations.source, kept: count(), asked: max(stations.askedAt) })
    .from(stations)
    .where(isNull(stations.goneAt))
    .groupBy(stations.source);
  const asked = await Promise.all(
    SOURCES.map(async ({ id, name, holds, wantsAccount = false }) => {
      const row = rows.find(({ source }) => source === id);
      return {
        id,
        name,
        holds,
        wantsAccount,
        // The name alone: a password is never shown, not even as stars of its length.
        account: wantsAccount ? ((await accountOf(id))?.name ?? null) : null,
        own: false,
        brokenOff: false,
        kept: row?.kept ?? 0,
        asked: row?.asked?.toISOString() ?? null,
      };
    }),
  );
  const files = await database
    .select()
    .from(ownDirectories)
    .where(ne(ownDirectories.state, 'loading'))
    .orderBy(asc(ownDirectories.name));
  const own = files.map(({ id, name, at, state }): DirectoryRow => ({
    ...{ id, name, holds: 'a file of your own', wantsAccount: false, account: null, own: true },
    brokenOff: state === 'broken off',
    kept: rows.find(({ source }) => source === id)?.kept ?? 0,
    asked: at.toISOString(),
  }));
  return [...asked, ...own];
}

/** Keeps the name and password for a directory once it has taken them, or forgets them. */
export async function setAccount(id: string, account: Account | null, gone?: AbortSignal): Promise<void> {
  const source = SOURCES.find((one) => one.id === id);
  if (!source?.tryAccount) throw notFound(`directory ${id.slice(0, 40)} that wants an account`);
  if (account !== null) await source.tryAccount(account, giveUpAfter(patienceMs(), gone));
  await keepAccount(id, account);
}
