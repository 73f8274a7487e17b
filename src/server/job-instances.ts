import { and, eq } from 'drizzle-orm';
import type { Job } from '../core/bench';
import type { RadioId } from '../core/plan';
import { jobs, lives, type Database } from '../db';
import { writing } from './database';
import { instanceId, living } from './instance';
import { listLives } from './live';
import { Problem } from './problem';
import { calledOf, radioOf } from './radios';

/** Jobs where several instances share a database: one for each radio, and how far each is. */

/** The problem of a radio with which something is under way. */
export const radioBusy = (called: string) =>
  new Problem(
    409,
    'port-busy',
    'The radio is busy',
    listLives().some((live) => live.called === called && live.state !== 'ended')
      ? `${called} follows a plan. End that first.`
      : `A job is already under way with ${called}.`,
  );

/** Refuses where another instance carries out a job with the radio, or has it follow a plan: its line is taken then, and looking for it there would take long. */
export async function wantFree(database: Database, radioId: RadioId): Promise<void> {
  if (!process.env.DATABASE_URL) return;
  const others = await Promise.all([
    database
      .select({ instance: jobs.instance })
      .from(jobs)
      .where(and(eq(jobs.radioId, radioId), eq(jobs.state, 'running'))),
    database.select({ instance: lives.instance }).from(lives).where(eq(lives.radioId, radioId)),
  ]);
  const names = others.flat().flatMap(({ instance }) => (instance === instanceId ? [] : [instance]));
  if (names.length === 0) return;
  const alive = await living(database);
  if (names.some((name) => name !== null && alive.includes(name)))
    throw radioBusy(calledOf(await radioOf(radioId)));
}

/** SQLSTATE 23505 of the index that lets a radio have one job at a time: another instance has just started one. */
export const isTaken = (error: unknown): boolean => {
  if (typeof error !== 'object' || error === null) return false;
  const { constraint, cause } = error as { constraint?: unknown; cause?: unknown };
  return constraint === 'jobs_one_for_a_radio' || isTaken(cause);
};

/** How often the progress of a job is saved for other instances, ms. */
const PROGRESS_MS = 500;

/** Saves the progress of a job for other instances, where there can be some; gives what ends that. */
export function savingProgress(job: Job): () => void {
  if (!process.env.DATABASE_URL) return () => {};
  let saving: Promise<unknown> | undefined;
  const save = async () => {
    const { phase, bytes, of, secondsLeft, message } = job;
    const database = await writing();
    await database
      .update(jobs)
      .set({ progress: { phase, bytes, of, secondsLeft }, message })
      .where(and(eq(jobs.id, job.id), eq(jobs.state, 'running')));
  };
  const timer = setInterval(() => {
    // Where the database is away, the next one is saved when it is back.
    saving ??= save()
      .catch(() => {})
      .finally(() => (saving = undefined));
  }, PROGRESS_MS);
  return () => clearInterval(timer);
}
