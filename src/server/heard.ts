import { count, eq, max, sql } from 'drizzle-orm';
import { WEEK_MS, type Heard } from '../core/heard';
import type { HeardAt } from '../core/heard/heard.schema';
import type { PlanId } from '../core/plan';
import { heard, type Database } from '../db';
import { reading, writing } from './database';
import { NOBODY, once, receiptOf } from './once';
import { newestPlan, wantRow } from './plan-rows';
import { Problem } from './problem';

/** Most times that are kept of a plan. */
const MOST = 1_000_000;
/** Clocks may differ by so much; what was heard later than that is a wrong date, ms. */
const AHEAD_MS = 24 * 3600_000;

/** How often each channel of a plan was heard and when last; over so many weeks also by week. */
export async function heardOf(id: PlanId, weeks: number, now = Date.now()): Promise<Heard[]> {
  const database = await reading();
  await wantRow(database, id);
  const rows = await database
    .select({ channel: heard.channelId, times: count(), last: max(heard.at) })
    .from(heard)
    .where(eq(heard.planId, id))
    .groupBy(heard.channelId)
    .orderBy(heard.channelId);
  const back = sql<number>`floor((${now} - extract(epoch from ${heard.at}) * 1000) / ${WEEK_MS})::int`;
  const byWeek =
    weeks === 0
      ? []
      : await database
          .select({ channel: heard.channelId, back: back.as('back'), times: count() })
          .from(heard)
          .where(eq(heard.planId, id))
          .groupBy(heard.channelId, sql`back`);
  const counted = new Map(rows.map(({ channel }) => [channel, new Array<number>(weeks).fill(0)]));
  for (const { channel, back, times } of byWeek) {
    const own = counted.get(channel)!;
    // What lies ahead by a clock that is wrong belongs to this week.
    const week = weeks - 1 - Math.max(0, back);
    if (week >= 0) own[week]! += times;
  }
  return rows.map(({ channel, times, last }) => ({
    channel,
    times,
    last: last!.toISOString(),
    weeks: counted.get(channel)!,
  }));
}

/** Keeps when channels were heard, and forgets what was not after all. All of it or nothing; done twice it is the same. */
export async function hear(
  id: PlanId,
  { put, drop }: { put: readonly HeardAt[]; drop: readonly HeardAt[] },
  asker = NOBODY,
): Promise<{ added: number; dropped: number }> {
  const database = await writing();
  const request = { heardIn: id, put, drop };
  const before = await receiptOf<{ added: number; dropped: number }>(database, asker, request);
  if (before) return before;
  const { document: plan } = await newestPlan(database, id);
  const channels = new Set<string>(plan.channels.map((channel) => channel.id));
  const unknown = put.find(({ channel }) => !channels.has(channel));
  if (unknown)
    throw new Problem(
      422,
      'unknown-channel',
      'No such channel',
      `The plan has no channel ${unknown.channel} any more. Nothing was kept.`,
    );
  const ahead = put.find(({ at }) => Date.parse(at) > Date.now() + AHEAD_MS);
  if (ahead)
    throw new Problem(
      422,
      'not-yet',
      'Not heard yet',
      `${ahead.at} is more than a day from now. Nothing was kept; put the date right.`,
    );
  return database.transaction((transaction) =>
    once(
      transaction,
      asker,
      request,
      async () => {
        const done = await saveTimes(transaction, id, put, drop);
        return { answer: done, receipt: done };
      },
      async (receipt: { added: number; dropped: number }) => receipt,
    ),
  );
}

async function saveTimes(
  transaction: Database,
  id: PlanId,
  put: readonly HeardAt[],
  drop: readonly HeardAt[],
): Promise<{ added: number; dropped: number }> {
  let dropped = 0;
  if (drop.length > 0) {
    const ids = sql.param(drop.map(({ channel }) => channel));
    const times = sql.param(drop.map(({ at }) => at));
    const gone = await transaction
      .delete(heard)
      .where(
        sql`${heard.planId} = ${id} AND (${heard.channelId}, ${heard.at}) IN (SELECT * FROM unnest(${ids}::text[], ${times}::timestamptz[]))`,
      )
      .returning({ channel: heard.channelId });
    dropped = gone.length;
  }
  if (put.length === 0) return { added: 0, dropped };
  const [{ saved } = { saved: 0 }] = await transaction
    .select({ saved: count() })
    .from(heard)
    .where(eq(heard.planId, id));
  if (saved + put.length > MOST)
    throw new Problem(
      422,
      'too-many',
      'Too many',
      `A plan has at most ${MOST} times at which a channel was heard, and has ${saved} already. Nothing was saved.`,
    );
  const added = await transaction
    .insert(heard)
    .values(put.map(({ channel, at }) => ({ planId: id, channelId: channel, at: new Date(at) })))
    .onConflictDoNothing()
    .returning({ channel: heard.channelId });
  return { added: added.length, dropped };
}

/** Gives a plan that was made of another one what was heard there: its channels keep their ids. */
export async function copyHeard(database: Database, from: PlanId, to: PlanId): Promise<void> {
  await database.execute(
    sql`INSERT INTO heard (plan_id, channel_id, at) SELECT ${to}, channel_id, at FROM heard WHERE plan_id = ${from}`,
  );
}
