import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { and, asc, desc, eq, gt, gte, inArray, lt, lte, sql } from 'drizzle-orm';
import { migrated, type AnyDocument } from '../../core/document';
import { atOnce } from '../../core/stepwise';
import { revisions, snapshots, type Database } from '../../db';
import { reading, writing } from '../database';
import { inSteps, letOthers } from '../in-steps';
import { heldAt } from './held';
import { wordsOfLabel } from './labels';
import { documentIn, newestDocument, unreadable, wantRow, wantValue } from './rows';
import { typeOf } from './types';

/** The log of a document, and the way back through it. */

/** The label of a revision in the log of a document; null where there is none. */
export async function labelOf(
  database: Database,
  id: string,
  revision: number | null,
): Promise<string | null> {
  if (revision === null) return null;
  const [row] = await database
    .select({ label: revisions.label, labelParts: revisions.labelParts })
    .from(revisions)
    .where(and(eq(revisions.documentId, id), eq(revisions.revision, revision)));
  return row ? wordsOfLabel({ documentId: id, ...row }) : null;
}

/** Bytes of the log that are held in memory at once when it is gone through. */
const MOST_AT_ONCE = 4_000_000;

/** The revisions after `revision` up to `newest`, newest first, fetched in parts that memory bears. */
async function* laterThan(database: Database, id: string, newest: number, revision: number) {
  const span = (from: number, to: number) =>
    and(eq(revisions.documentId, id), gte(revisions.revision, from), lte(revisions.revision, to));
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

/** Keeps what a document is at a revision, where it is the turn of that one. Not part of the edit: without it going back only takes longer. */
export function keepSnapshot(id: string, revision: number, now: AnyDocument): void {
  if (revision % SNAPSHOT_EVERY !== 0) return;
  const keep = async () => {
    const document = await zip(JSON.stringify(now));
    await (
      await writing()
    )
      .insert(snapshots)
      .values({ documentId: id, revision, document })
      .onConflictDoNothing();
  };
  keep().catch(() => {});
}

/** The nearest that is known whole at or after a revision: a snapshot, or the newest. */
async function nearestAfter<D extends AnyDocument>(database: Database, id: string, revision: number) {
  const [found] = await database
    .select()
    .from(snapshots)
    .where(and(eq(snapshots.documentId, id), gte(snapshots.revision, revision)))
    .orderBy(asc(snapshots.revision))
    .limit(1);
  if (!found) return newestDocument<D>(database, id);
  const value: unknown = JSON.parse((await unzip(found.document)).toString());
  const read = await documentIn<D>(typeOf(id).shape, value);
  // A snapshot is only a shorter way; the newest leads back as well.
  return read.ok ? { document: read.value, revision: found.revision } : newestDocument<D>(database, id);
}

/** The document as it was at `revision`: the nearest that is known whole after it, with the inverses of what came in between. */
export async function documentAt<D extends AnyDocument>(
  database: Database,
  id: string,
  revision: number,
): Promise<D> {
  const held = heldAt<D>(id, revision);
  if (held) return held;
  const type = typeOf<D>(id);
  const from = await nearestAfter<D>(database, id, revision);
  let { document } = from;
  for await (const { inverse } of laterThan(database, id, from.revision, revision)) {
    const back = type.apply(document, await inSteps(type.readingEdit(inverse)));
    if (!back.ok)
      throw new Error(`The log of ${id} does not lead back to revision ${revision}: ${back.reason}`);
    document = back.value;
  }
  return document;
}

/** The edits after a revision up to another, in their order: what brings somebody along who has the first. */
export async function editsBetween<E extends object>(
  database: Database,
  id: string,
  after: number,
  upTo: number,
): Promise<E[]> {
  const rows = await database
    .select({ edit: revisions.edit })
    .from(revisions)
    .where(and(eq(revisions.documentId, id), gt(revisions.revision, after), lte(revisions.revision, upTo)))
    .orderBy(asc(revisions.revision));
  const type = typeOf<AnyDocument, E>(id);
  const edits: E[] = [];
  for (const { edit } of rows) edits.push(await inSteps(type.readingEdit(edit)));
  return edits;
}

/**
 * Of a document whose newest revision cannot be read: what was kept of it before, newest first, as far as the log leads. Neither
 * the document nor the edits have been checked: anything may come of it.
 */
async function* salvage<D extends AnyDocument>(database: Database, id: string) {
  const type = typeOf<D>(id);
  const { row, value } = await wantValue(database, id, { removed: true });
  let now = migrated(type.shape, value);
  for await (const { revision, inverse } of laterThan(database, id, row.revision, 0)) {
    try {
      const back = type.apply(now as D, atOnce(type.readingEdit(inverse)));
      if (!back.ok) return;
      now = back.value;
    } catch {
      return;
    }
    yield { revision: revision - 1, read: await documentIn<D>(type.shape, now) };
  }
}

/** The newest revision before the newest at which it can be read; null where the log leads to none. */
export async function lastReadable(database: Database, id: string): Promise<number | null> {
  for await (const { revision, read } of salvage(database, id)) if (read.ok) return revision;
  return null;
}

/** An earlier revision of a document whose newest cannot be read; only what is a document of its type comes of it. */
export async function salvaged<D extends AnyDocument>(
  database: Database,
  id: string,
  revision: number,
): Promise<D> {
  for await (const one of salvage<D>(database, id))
    if (one.revision === revision && one.read.ok) return one.read.value;
  const { row, value } = await wantValue(database, id);
  const read = await documentIn(typeOf(id).shape, value);
  throw unreadable(row.name, read.ok ? 'Its log does not lead back there.' : read.reason);
}

/** Which name a record, in the edit or in what leads back; all where none is asked for. An id has no signs of patterns. */
const names = (record: string | undefined) =>
  record === undefined
    ? undefined
    : sql`(${revisions.edit}::text like ${`%"${record}"%`} or ${revisions.inverse}::text like ${`%"${record}"%`})`;

/** Bytes of edits that one page of the log holds at most, but one edit whatever its size. */
const LONGEST_PAGE = 1_000_000;

/** Labels that are searched at once. */
const SEARCHED_AT_ONCE = 1000;

/** The revisions before `before` with their sizes, newest first: so many, or as many as there are. Labels are searched in the words of today. */
async function sizesOf(
  database: Database,
  id: string,
  before: number,
  most: number,
  { search, record }: { search: string; record: string | undefined },
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
      .where(and(eq(revisions.documentId, id), lt(revisions.revision, next), names(record)))
      .orderBy(desc(revisions.revision))
      .limit(wanted === '' ? most : SEARCHED_AT_ONCE);
    for (const one of rows)
      if (
        wanted === '' ||
        wordsOfLabel({ documentId: id, ...one })
          .toLowerCase()
          .includes(wanted)
      )
        found.push(one);
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
export async function documentLog<E extends object>(
  id: string,
  before: number | undefined,
  limit: number,
  { search = '', record }: { search?: string | undefined; record?: string | undefined } = {},
) {
  const database = await reading();
  const row = await wantRow(database, id);
  const own = eq(revisions.documentId, id);
  const sizes = await sizesOf(database, id, before ?? row.revision + 1, limit + 1, { search, record });
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
    edits: rows.map(({ labelParts, edit, ...one }) => ({
      ...one,
      edit: edit as E,
      label: wordsOfLabel({ documentId: id, label: one.label, labelParts }),
      at: one.at.toISOString(),
    })),
    next: sizes.length > fits ? page.at(-1)! : null,
  };
}
