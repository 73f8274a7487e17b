import { and, desc, eq, gte, lte } from 'drizzle-orm';
import { applyEdit, editSchema, orderedChannels, planSchema, type Plan } from '../core/plan';
import { fail, ok, type Result } from '../core/result';
import { plans, revisions, type Database } from '../db';
import { reading } from './database';
import { notFound, Problem } from './problem';

/** Plans and their logs as the tables keep them, and the way from there to a plan, readable or not. */

/** The label of a revision in a plan's log; null where there is none. */
export async function labelOf(
  database: Database,
  planId: string,
  revision: number | null,
): Promise<string | null> {
  if (revision === null) return null;
  const [row] = await database
    .select({ label: revisions.label })
    .from(revisions)
    .where(and(eq(revisions.planId, planId), eq(revisions.revision, revision)));
  return row?.label ?? null;
}

/** A plan as its table keeps it. */
export type Row = typeof plans.$inferSelect;

/** The row of a plan, kept to this transaction with `lock`; the problem that says it is unknown or removed. */
export async function wantRow(database: Database, id: string, lock: boolean): Promise<Row> {
  const query = database.select().from(plans).where(eq(plans.id, id));
  const [row] = await (lock ? query.for('update') : query);
  if (!row) throw notFound(`plan ${id}`);
  if (row.removedAt)
    throw new Problem(
      410,
      'plan-removed',
      'This plan was removed',
      `“${row.name}” was removed. Bring it back on the Plans page, then go on.`,
    );
  return row;
}

/** The plan that a document is, or what is wrong with it, in a sentence. */
export function asPlan(document: unknown): Result<Plan> {
  const read = planSchema.safeParse(document);
  if (!read.success) {
    const [issue] = read.error.issues;
    const where = issue!.path.join('.');
    return fail(
      `Its document is no plan: ${where || 'all of it'} is not what a plan holds${where && ' there'}.`,
    );
  }
  const ordered = orderedChannels(read.data.channels);
  return typeof ordered === 'string' ? fail(`Its document is no plan: ${ordered}`) : ok(read.data);
}

/** The newest revision before the row's own at which the plan can be read; null where the log leads to none. */
export async function lastReadable(database: Database, row: Row): Promise<number | null> {
  let document = row.document;
  for await (const { revision, inverse } of laterThan(database, row, 0)) {
    try {
      const back = applyEdit(document, inverse);
      if (!back.ok) return null;
      document = back.value;
    } catch {
      // Neither the document nor the edit has been checked: anything may come of it.
      return null;
    }
    if (asPlan(document).ok) return revision - 1;
  }
  return null;
}

/** The plan that a row holds; the problem that says what is wrong with it and what can be had of it all the same. */
export function readPlan(row: Row): Plan {
  const read = asPlan(row.document);
  if (read.ok) return read.value;
  throw new Problem(
    409,
    'plan-unreadable',
    'This plan cannot be read',
    `“${row.name}” cannot be opened. ${read.reason} On the Plans page its document can be saved as it is, and its last readable revision, where it has one, opened as a new plan.`,
  );
}

/** The document as it is kept, readable or not: to be saved, looked at and mended by hand. */
export async function rawDocument(id: string): Promise<string> {
  const database = await reading();
  const row = await wantRow(database, id, false);
  return JSON.stringify(row.document, null, 2);
}

/** Bytes of the log that are held in memory at once when it is gone through. */
const MOST_AT_ONCE = 4_000_000;

/** The plan as it was at `revision`: what its row holds, with the inverses of what came later applied to it. */
export async function planAt(database: Database, row: Row, revision: number): Promise<Plan> {
  let plan = readPlan(row);
  for await (const { inverse } of laterThan(database, row, revision)) {
    const back = applyEdit(plan, editSchema.parse(inverse));
    if (!back.ok)
      throw new Error(`The log of ${row.id} does not lead back to revision ${revision}: ${back.reason}`);
    plan = back.value;
  }
  return plan;
}

/** The revisions after `revision` up to the row's own, newest first, fetched in parts that memory bears. */
async function* laterThan(database: Database, row: Pick<Row, 'id' | 'revision'>, revision: number) {
  const span = (from: number, to: number) =>
    and(eq(revisions.planId, row.id), gte(revisions.revision, from), lte(revisions.revision, to));
  const sizes = await database
    .select({ revision: revisions.revision, bytes: revisions.bytes })
    .from(revisions)
    .where(span(revision + 1, row.revision))
    .orderBy(desc(revisions.revision));
  while (sizes.length > 0) {
    const newest = sizes[0]!.revision;
    let oldest = newest;
    for (let bytes = 0; sizes.length > 0 && bytes < MOST_AT_ONCE;) {
      const taken = sizes.shift()!;
      bytes += taken.bytes ?? 20_000;
      oldest = taken.revision;
    }
    yield* await database
      .select({ revision: revisions.revision, inverse: revisions.inverse })
      .from(revisions)
      .where(span(oldest, newest))
      .orderBy(desc(revisions.revision));
  }
}

/** An earlier revision of a plan whose newest cannot be read; only what is a plan comes of it. */
export async function salvaged(database: Database, row: Row, revision: number): Promise<Plan> {
  const readable = await lastReadable(database, row);
  if (readable === null || revision > readable) return readPlan(row);
  let document = row.document;
  for await (const { inverse } of laterThan(database, row, revision)) {
    const back = applyEdit(document, inverse);
    if (!back.ok) return readPlan(row);
    document = back.value;
  }
  return readPlan({ ...row, document });
}
