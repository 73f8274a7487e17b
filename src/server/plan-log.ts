import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { and, asc, desc, eq, gt, gte, inArray, lt, lte, sql } from 'drizzle-orm';
import {
  applyEdit,
  editSchema,
  migrateDocument,
  readingDocument,
  readingEdit,
  type Edit,
  type Plan,
  type ChannelId,
  type PlanId,
} from '../core/plan';
import { revisions, snapshots, type Database } from '../db';
import { reading, writing } from './database';
import { heldAt } from './held-plans';
import { inSteps, letOthers } from './in-steps';
import { wordsOfLabel } from './labels';
import { newestPlan, unreadable, wantDocument, wantRow } from './plan-rows';

/** The log of a plan, and the way back through it. */

/** The label of a revision in a plan's log; null where there is none. */
export async function labelOf(
  database: Database,
  planId: PlanId,
  revision: number | null,
): Promise<string | null> {
  if (revision === null) return null;
  const [row] = await database
    .select({ label: revisions.label, labelParts: revisions.labelParts })
    .from(revisions)
    .where(and(eq(revisions.planId, planId), eq(revisions.revision, revision)));
  return row ? wordsOfLabel(row) : null;
}

/** Bytes of the log that are held in memory at once when it is gone through. */
const MOST_AT_ONCE = 4_000_000;

/** The revisions after `revision` up to `newest`, newest first, fetched in parts that memory bears. */
async function* laterThan(database: Database, planId: PlanId, newest: number, revision: number) {
  const span = (from: number, to: number) =>
    and(eq(revisions.planId, planId), gte(revisions.revision, from), lte(revisions.revision, to));
  const sizes = await database
    .select({ revision: revisions.revision, bytes: revisions.bytes })
    .from(revisions)
    .where(span(revision + 1, newest))
    .orderBy(desc(revisions.revision));
  while (sizes.length > 0) {
    const last = sizes[0]!.revision;
    let oldest = last;
    for (let bytes = 0; sizes.length > 0 && bytes < MOST_AT_ONCE;) {
      const taken = sizes.shift()!;
      bytes += taken.bytes ?? 20_000;
      oldest = taken.revision;
    }
    yield* await database
      .select({ revision: revisions.revision, inverse: revisions.inverse })
      .from(revisions)
      .where(span(oldest, last))
      .orderBy(desc(revisions.revision));
  }
}

/** A snapshot is kept every so many revisions: going back costs no more edits than that. */
export const SNAPSHOT_EVERY = 200;
const [zip, unzip] = [promisify(gzip), promisify(gunzip)];

/** Keeps what a plan is at a revision, where it is the turn of that one. Not part of the edit: without it going back only takes longer. */
export function keepSnapshot(planId: PlanId, revision: number, plan: Plan): void {
  if (revision % SNAPSHOT_EVERY !== 0) return;
  const keep = async () => {
    const document = await zip(JSON.stringify(plan));
    await (await writing()).insert(snapshots).values({ planId, revision, document }).onConflictDoNothing();
  };
  keep().catch(() => {});
}

/** The nearest that is known whole at or after a revision: a snapshot, or the newest. */
async function nearestAfter(database: Database, planId: PlanId, revision: number) {
  const [found] = await database
    .select()
    .from(snapshots)
    .where(and(eq(snapshots.planId, planId), gte(snapshots.revision, revision)))
    .orderBy(asc(snapshots.revision))
    .limit(1);
  if (!found) return newestPlan(database, planId);
  const read = await inSteps(readingDocument(JSON.parse((await unzip(found.document)).toString())));
  // A snapshot is only a shorter way; the newest leads back as well.
  return read.ok ? { plan: read.value, revision: found.revision } : newestPlan(database, planId);
}

/** The plan as it was at `revision`: the nearest that is known whole after it, with the inverses of what came in between. */
export async function planAt(database: Database, planId: PlanId, revision: number): Promise<Plan> {
  const held = heldAt(planId, revision);
  if (held) return held;
  const from = await nearestAfter(database, planId, revision);
  let { plan } = from;
  for await (const { inverse } of laterThan(database, planId, from.revision, revision)) {
    const back = applyEdit(plan, await inSteps(readingEdit(inverse)));
    if (!back.ok)
      throw new Error(`The log of ${planId} does not lead back to revision ${revision}: ${back.reason}`);
    plan = back.value;
  }
  return plan;
}

/** The edits after a revision up to another, in their order: what brings somebody along who has the first. */
export async function editsBetween(
  database: Database,
  planId: PlanId,
  after: number,
  upTo: number,
): Promise<Edit[]> {
  const rows = await database
    .select({ edit: revisions.edit })
    .from(revisions)
    .where(and(eq(revisions.planId, planId), gt(revisions.revision, after), lte(revisions.revision, upTo)))
    .orderBy(asc(revisions.revision));
  const edits: Edit[] = [];
  for (const { edit } of rows) edits.push(await inSteps(readingEdit(edit)));
  return edits;
}

/**
 * Of a plan whose newest document cannot be read: what was kept of it before, newest first, as far as the log leads. Neither
 * the document nor the edits have been checked: anything may come of it.
 */
async function* salvage(database: Database, planId: PlanId) {
  const { row, document } = await wantDocument(database, planId, { removed: true });
  let now = migrateDocument(document);
  for await (const { revision, inverse } of laterThan(database, planId, row.revision, 0)) {
    try {
      const edit = editSchema.safeParse(inverse);
      const back = edit.success && applyEdit(now as Plan, edit.data);
      if (!back || !back.ok) return;
      now = back.value;
    } catch {
      return;
    }
    yield { revision: revision - 1, read: await inSteps(readingDocument(now)) };
  }
}

/** The newest revision before the newest at which the plan can be read; null where the log leads to none. */
export async function lastReadable(database: Database, planId: PlanId): Promise<number | null> {
  for await (const { revision, read } of salvage(database, planId)) if (read.ok) return revision;
  return null;
}

/** An earlier revision of a plan whose newest cannot be read; only what is a plan comes of it. */
export async function salvaged(database: Database, planId: PlanId, revision: number): Promise<Plan> {
  for await (const one of salvage(database, planId))
    if (one.revision === revision && one.read.ok) return one.read.value;
  const { row, document } = await wantDocument(database, planId);
  const read = await inSteps(readingDocument(document));
  throw unreadable(row.name, read.ok ? 'Its log does not lead back there.' : read.reason);
}

/** Which name a channel, in the edit or in what leads back; all where none is asked for. An id has no signs of patterns. */
const names = (channel: ChannelId | undefined) =>
  channel === undefined
    ? undefined
    : sql`(${revisions.edit}::text like ${`%"${channel}"%`} or ${revisions.inverse}::text like ${`%"${channel}"%`})`;

/** Bytes of edits that one page of the log holds at most, but one edit whatever its size. */
const LONGEST_PAGE = 1_000_000;

/** Labels that are searched at once. */
const SEARCHED_AT_ONCE = 1000;

/** The revisions before `before` with their sizes, newest first: so many, or as many as there are. Labels are searched in the words of today. */
async function sizesOf(
  database: Database,
  id: PlanId,
  before: number,
  most: number,
  { search, channel }: { search: string; channel: ChannelId | undefined },
): Promise<{ revision: number; bytes: number | null }[]> {
  const wanted = search.trim().toLowerCase();
  const found: { revision: number; bytes: number | null }[] = [];
  for (let next = before; ;) {
    const rows = await database
      .select({
        revision: revisions.revision,
        bytes: revisions.bytes,
        label: revisions.label,
        labelParts: revisions.labelParts,
      })
      .from(revisions)
      .where(and(eq(revisions.planId, id), lt(revisions.revision, next), names(channel)))
      .orderBy(desc(revisions.revision))
      .limit(wanted === '' ? most : SEARCHED_AT_ONCE);
    for (const one of rows)
      if (wanted === '' || wordsOfLabel(one).toLowerCase().includes(wanted)) found.push(one);
    const last = rows.at(-1);
    if (wanted === '' || !last || rows.length < SEARCHED_AT_ONCE || found.length >= most)
      return found.slice(0, most);
    next = last.revision;
    await letOthers();
  }
}

/**
 * A page of the log, newest first: at most `limit` revisions, and no more than fit into an answer. `next` is what to ask
 * for with `before` to get the page after it; null on the last one.
 */
export async function planLog(
  id: PlanId,
  before: number | undefined,
  limit: number,
  { search = '', channel }: { search?: string | undefined; channel?: ChannelId | undefined } = {},
) {
  const database = await reading();
  const row = await wantRow(database, id);
  const own = eq(revisions.planId, id);
  const sizes = await sizesOf(database, id, before ?? row.revision + 1, limit + 1, { search, channel });
  let fits = 0;
  for (let bytes = 0; fits < Math.min(limit, sizes.length); fits++) {
    bytes += sizes[fits]!.bytes ?? 20_000;
    if (fits > 0 && bytes > LONGEST_PAGE) break;
  }
  const page = sizes.slice(0, fits).map(({ revision }) => revision);
  if (page.length === 0) return { edits: [], next: null };
  const rows = await database
    .select({
      revision: revisions.revision,
      kind: revisions.kind,
      label: revisions.label,
      labelParts: revisions.labelParts,
      edit: revisions.edit,
      at: revisions.at,
    })
    .from(revisions)
    .where(and(own, inArray(revisions.revision, page)))
    .orderBy(desc(revisions.revision));
  return {
    edits: rows.map(({ labelParts, ...one }) => ({
      ...one,
      label: wordsOfLabel({ label: one.label, labelParts }),
      at: one.at.toISOString(),
    })),
    next: sizes.length > fits ? page.at(-1)! : null,
  };
}
