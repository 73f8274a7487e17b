import { lt, sql } from 'drizzle-orm';
import { instances, type Database } from '../db';

/**
 * This process among those that may use the same database. Each shows every few seconds that it lives; what one has begun
 * that has not shown itself for a while is lost, and any other may say so.
 */

const kept = globalThis as { veridonInstance?: string };

/** The name of this process, made anew at every start. */
export const instanceId: string = (kept.veridonInstance ??= `in_${crypto.randomUUID().replaceAll('-', '')}`);

/** How often a process shows that it lives, ms. */
export const BEAT_MS = 10_000;
/** A process that has not shown itself for so long, s, is taken for dead: four beats and some. */
export const SILENT_S = 45;

/** Shows that this process lives, by the clock of the database, which all of them share. */
export async function beat(database: Database): Promise<void> {
  await database
    .insert(instances)
    .values({ id: instanceId })
    .onConflictDoUpdate({ target: instances.id, set: { seenAt: sql`now()` } });
}

const silent = sql`now() - make_interval(secs => ${SILENT_S})`;

/** The processes that live, this one among them. */
export async function living(database: Database): Promise<string[]> {
  const rows = await database
    .select({ id: instances.id })
    .from(instances)
    .where(sql`${instances.seenAt} > ${silent}`);
  return [...rows.map(({ id }) => id), instanceId];
}

/** Forgets processes that are long gone. */
export async function forgetDead(database: Database): Promise<void> {
  await database.delete(instances).where(lt(instances.seenAt, sql`now() - interval '1 day'`));
}
