import { eq, sql } from 'drizzle-orm';
import { homeOf, leftKey, newsOf, type News, type Standing } from '../core/directory';
import { slotRanges } from '../core/models';
import { makeId, type Plan, type PlanId } from '../core/plan';
import { distanceKm, type Point } from '../core/radio';
import { newsLeft, plans, stations } from '../db';
import { reading, writing } from './database';
import { giveUpAfter } from './fetch-json';
import { wantRow } from './plan-rows';
import { wantModel } from './models';
import { getPlan } from './plans';
import { patienceMs, SOURCES } from './sources';
import { askSource } from './stations';

/** Least and most that is looked at around a plan, km. */
const LEAST_KM = 20;
const MOST_KM = 300;
/** So much farther is asked than the plan reaches, km: a station that moved is not gone. */
const BEYOND_KM = 60;
/** Most that is remembered as left of one plan. */
const MOST_LEFT = 20_000;

/** What is said of a plan's stations, and what kept a directory from answering. */
export interface NewsAnswer {
  revision: number;
  news: News[];
  /** How many were left before. */
  left: number;
  troubles: { source: string; name: string; trouble: string }[];
}

/** Where a plan is used: around home, or the middle of its stations, as far as they reach; null where nobody knows. */
function areaOf(plan: Plan): (Point & { km: number }) | null {
  const places = plan.channels.flatMap(({ source }): Point[] =>
    source?.lat !== undefined && source.lon !== undefined ? [{ lat: source.lat, lon: source.lon }] : [],
  );
  if (places.length === 0) return null;
  const sum = (of: (place: Point) => number) =>
    places.reduce((all, place) => all + of(place), 0) / places.length;
  const middle = homeOf(plan) ?? { lat: sum(({ lat }) => lat), lon: sum(({ lon }) => lon) };
  const farthest = Math.max(...places.map((place) => distanceKm(middle, place)));
  return { ...middle, km: Math.min(MOST_KM, Math.max(LEAST_KM, farthest + 1)) };
}

/** What is kept of the stations of a plan and of those around it. */
async function standingOf(plan: Plan, area: (Point & { km: number }) | null): Promise<Standing[]> {
  const database = await reading();
  const refs = plan.channels.flatMap(({ source }) => (source ? [source] : []));
  const bySource = new Map<string, string[]>();
  for (const { directory, entry } of refs)
    if (SOURCES.some(({ id }) => id === directory))
      bySource.set(directory, [...(bySource.get(directory) ?? []), entry]);
  const own = await Promise.all(
    [...bySource].map(([source, list]) =>
      database
        .select({ source: stations.source, entry: stations.entry, goneAt: stations.goneAt })
        .from(stations)
        .where(sql`${stations.source} = ${source} and ${stations.ref} = any(${sql.param(list)}::text[])`),
    ),
  );
  // A degree of latitude is 111 km; of longitude less, the farther from the equator.
  const lat = area ? area.km / 111 : 0;
  const lon = area ? lat / Math.max(0.05, Math.cos((area.lat * Math.PI) / 180)) : 0;
  const around = area
    ? await database
        .select({ source: stations.source, entry: stations.entry, goneAt: stations.goneAt })
        .from(stations)
        .where(
          sql`${stations.goneAt} is null and ${stations.lat} between ${area.lat - lat} and ${area.lat + lat} and ${stations.lon} between ${area.lon - lon} and ${area.lon + lon}`,
        )
    : [];
  const all = new Map(
    [...around, ...own.flat()].map((row) => [
      `${row.source} ${row.entry.ref}`,
      { source: row.source, entry: row.entry, gone: row.goneAt !== null },
    ]),
  );
  return [...all.values()];
}

/**
 * Holds a plan against what the directories say now, which are asked around it unless only what is kept is wanted. One that does not
 * answer keeps nothing away that is known: it is said beside it.
 */
export async function newsOfPlan(id: PlanId, ask: boolean, gone?: AbortSignal): Promise<NewsAnswer> {
  const { plan, revision } = await getPlan(id);
  const model = wantModel(plan.modelId);
  const area = areaOf(plan);
  const used = new Set(plan.channels.flatMap(({ source }) => source?.directory ?? []));
  const troubles: NewsAnswer['troubles'] = [];
  if (ask && area) {
    const signal = giveUpAfter(patienceMs(), gone);
    await Promise.all(
      SOURCES.filter((source) => used.has(source.id)).map(async (source) => {
        const circle = { lat: area.lat, lon: area.lon, radiusKm: area.km + BEYOND_KM };
        const { trouble } = await askSource(source, circle, true, signal);
        if (trouble !== null) troubles.push({ source: source.id, name: source.name, trouble });
      }),
    );
  }
  const database = await reading();
  const [row] = await database.select({ at: plans.createdAt }).from(plans).where(eq(plans.id, id));
  const left = await database.select({ key: newsLeft.key }).from(newsLeft).where(eq(newsLeft.planId, id));
  const [{ list, range }] = slotRanges(model) as [ReturnType<typeof slotRanges>[number]];
  const news = newsOf(plan, model, {
    standing: await standingOf(plan, area),
    area,
    since: (row?.at ?? new Date(0)).toISOString(),
    left: new Set(left.map(({ key }) => key)),
    wanted: { placement: 'next-free', at: range.first, range, list },
    makeId: () => makeId('ch', crypto.getRandomValues(new Uint8Array(12))),
  });
  return { revision, news, left: left.length, troubles };
}

/** Leaves news as they are until the directory says something else; `again` forgets all that was left before. */
export async function leaveNews(
  id: PlanId,
  leave: readonly Pick<News, 'source' | 'ref' | 'updated'>[],
  again: boolean,
): Promise<{ left: number }> {
  const database = await writing();
  await wantRow(database, id);
  return database.transaction(async (transaction) => {
    if (again) await transaction.delete(newsLeft).where(eq(newsLeft.planId, id));
    if (leave.length > 0)
      // One parameter for all: a statement with thousands of them takes long to make.
      await transaction.execute(
        sql`insert into ${newsLeft} (plan_id, key) select ${id}, key from jsonb_array_elements_text(${JSON.stringify(leave.map(leftKey))}::jsonb) as key on conflict do nothing`,
      );
    await transaction.execute(
      sql`delete from ${newsLeft} where plan_id = ${id} and key in (
        select key from ${newsLeft} where plan_id = ${id} order by at desc, key offset ${MOST_LEFT})`,
    );
    return { left: await transaction.$count(newsLeft, eq(newsLeft.planId, id)) };
  });
}
