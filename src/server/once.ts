import { createHash } from 'node:crypto';
import { eq, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { changes, type Database } from '../db';
import { reading, writing } from './database';
import { Problem } from './problem';

/**
 * The key of a change, made by its client: a name for the client, a point, and what no other change of it has. The head
 * `Idempotency-Key` (IETF draft of that name) carries it.
 */
export const changeKeySchema = z
  .string()
  .regex(
    /^[A-Za-z0-9-]{4,40}\.[A-Za-z0-9-]{1,40}$/,
    'is not the key of a change: it reads like page7f3a.12, letters, figures and dashes around a point',
  );

/** The header that carries it. */
export const KEY_HEADER = 'Idempotency-Key';

/** Who asks for a change, as far as that is said. */
export interface Asker {
  /** The key of the change; null where it has none, and sending it again does it again. */
  key: string | null;
}
export const NOBODY: Asker = { key: null };

/** The client that a key names; nothing where there is none. */
export const clientOf = ({ key }: Asker): string => key?.split('.', 1)[0] ?? '';

/** What is kept of a request beside its key, to know it again by. */
export const requestDigest = (request: unknown): string =>
  createHash('sha256').update(JSON.stringify(request)).digest('hex');

/** The problem of a key that was another change's. */
export const keyUsed = (key: string): Problem =>
  new Problem(
    422,
    'key-used',
    'This key has been used',
    `The change ${key} was another one. Nothing was changed; send it with a key of its own.`,
  );

/**
 * Does a change once. Its key is kept in the same transaction as what it did; sent again, the answer is made again of the
 * receipt. Two that come at the same moment wait for each other on the key's row.
 */
export async function once<A, R>(
  transaction: Database,
  { key }: Asker,
  request: unknown,
  run: () => Promise<{ answer: A; receipt: R }>,
  again: (receipt: R) => Promise<A>,
): Promise<A> {
  if (key === null) return (await run()).answer;
  const digest = requestDigest(request);
  const [taken] = await transaction
    .insert(changes)
    .values({ key, request: digest })
    .onConflictDoNothing()
    .returning({ key: changes.key });
  if (taken) {
    const { answer, receipt } = await run();
    await transaction.update(changes).set({ receipt }).where(eq(changes.key, key));
    return answer;
  }
  const [known] = await transaction.select().from(changes).where(eq(changes.key, key));
  if (known!.request !== digest) throw keyUsed(key);
  return again(known!.receipt as R);
}

/** The receipt of a change that was done before; undefined if it was not. Throws for a key that belongs to another change. */
export async function receiptOf<R>(
  database: Database,
  { key }: Asker,
  request: unknown,
): Promise<R | undefined> {
  if (key === null) return undefined;
  const [known] = await database.select().from(changes).where(eq(changes.key, key));
  if (!known) return undefined;
  if (known.request !== requestDigest(request)) throw keyUsed(key);
  return known.receipt as R;
}

const answering = new Map<string, { digest: string; answer: Promise<unknown> }>();

/**
 * Runs a change that keeps no receipt of its own, and saves its answer. A change that is sent again, even at the same moment, gets the saved answer. If the process
 * is killed after the work and before the answer is saved, a repeated change runs again: each of these operations finds then what it did before.
 */
export async function answeredOnce<R>({ key }: Asker, request: unknown, run: () => Promise<R>): Promise<R> {
  if (key === null) return run();
  const digest = requestDigest(request);
  const now = answering.get(key);
  if (now) {
    if (now.digest !== digest) throw keyUsed(key);
    return now.answer as Promise<R>;
  }
  const answer = (async () => {
    const before = await receiptOf<{ answer: R }>(await reading(), { key }, request);
    if (before) return before.answer;
    const said = await run();
    const database = await writing();
    await database
      .insert(changes)
      .values({ key, request: digest, receipt: { answer: said } })
      .onConflictDoNothing();
    return said;
  })();
  answering.set(key, { digest, answer });
  try {
    return await answer;
  } finally {
    answering.delete(key);
  }
}

/** Forgets keys that nobody will send again. */
export async function forgetOldChanges(database: Database): Promise<void> {
  await database.delete(changes).where(lt(changes.at, sql`now() - interval '30 days'`));
}
