import { and, eq, sql } from 'drizzle-orm';
import {
  headIn,
  listIn,
  reading as readingOf,
  sameIds,
  type AnyDocument,
  type AnyRecord,
  type DocumentDifference,
  type Shape,
} from '../../core/document';
import { positionsToWrite } from '../../core/plan';
import type { Result } from '../../core/result';
import { documents, records, type Database } from '../../db';
import { reading } from '../database';
import { inSteps } from '../in-steps';
import { notFound, Problem } from '../problem';
import { heldNewest, hold, type Held } from './held';
import { rowsIn, stageRows, type RowsToPut } from './staging';
import { knownTypeOf, typeOf } from './types';

/**
 * Documents as the tables keep them: a row of what is said of one as a whole, and a row a record. Plans of format 1 are one
 * value until they are changed first; a value that is no document stays as it is.
 */

/** A document's own row. */
export type Row = typeof documents.$inferSelect;

/** The row of a document; the problem that says it is unknown or removed. */
export async function wantRow(database: Database, id: string): Promise<Row> {
  const [row] = await database.select().from(documents).where(eq(documents.id, id));
  return wanted(row, id);
}

function wanted(row: Row | undefined, id: string): Row {
  const word = knownTypeOf(id)?.type.shape.word ?? 'document';
  if (!row) throw notFound(`${word} ${id}`);
  if (row.removedAt)
    throw new Problem(
      410,
      'plan-removed',
      `This ${word} was removed`,
      `“${row.name}” was removed. Bring it back on the Plans page, then go on.`,
    );
  return row;
}

/** The records of a document by kind, as one value: read in one statement with its row, so that both are of one moment. */
const LISTS = sql<Record<string, { id: string }[]> | null>`(
  select json_object_agg(kind, list) from (
    select kind, json_agg(data || jsonb_build_object('id', id) order by position, id) as list
    from records where records.document_id = documents.id group by kind
  ) as kinds)`;

async function rowWithLists(database: Database, id: string) {
  const [found] = await database
    .select({ row: documents, lists: LISTS })
    .from(documents)
    .where(eq(documents.id, id));
  return found;
}

type Found = NonNullable<Awaited<ReturnType<typeof rowWithLists>>>;

/** The value that a document's rows are, readable or not; in the format of today, or as it was kept before there were rows. */
function valueIn({ row, lists }: Found): unknown {
  if (row.head === null) return row.document;
  const { kinds, headFields, format } = typeOf(row.id).shape;
  const all = Object.entries(kinds).map(([kind, { list }]) => [list, lists?.[kind] ?? []] as const);
  return {
    ...{ format, id: row.id, name: row.name },
    ...(headFields.includes('modelId') && { modelId: row.modelId }),
    ...row.head,
    ...Object.fromEntries(all),
  };
}

/** The problem that says what is wrong with a plan that cannot be read, and which parts of it can be saved or opened. */
export const unreadable = (name: string, reason: string): Problem =>
  new Problem(
    409,
    'plan-unreadable',
    'This plan cannot be read',
    `“${name}” cannot be opened. ${reason} On the Plans page its document can be saved as it is, and its last readable revision, where it has one, opened as a new plan.`,
  );

/**
 * A document's row with its value, whole or not; the problem that says it is unknown, or removed where those are not wanted
 * `too`.
 */
export async function wantValue(
  database: Database,
  id: string,
  { removed = false } = {},
): Promise<{ row: Row; value: unknown }> {
  const found = await rowWithLists(database, id);
  const row = removed && found ? found.row : wanted(found?.row, id);
  return { row, value: valueIn({ row, lists: found!.lists }) };
}

/** The document in a value, in steps between which others have their turn. Not in the compute thread: to send it there and back takes longer. */
export const documentIn = <D extends AnyDocument>(shape: Shape, value: unknown): Promise<Result<D>> =>
  inSteps(readingOf<D>(shape, value));

/** The newest revision of a document, from the tables, and held from now on. */
export async function loadDocument<D extends AnyDocument>(database: Database, id: string): Promise<Held<D>> {
  const { row, value } = await wantValue(database, id);
  const read = await documentIn<D>(typeOf(id).shape, value);
  if (!read.ok) throw unreadable(row.name, read.reason);
  const { revision, undoHead, redoHead } = row;
  const bytes = row.bytes ?? JSON.stringify(read.value).length;
  const held = { document: read.value, revision, undoHead, redoHead, bytes, inRows: row.head !== null };
  hold(id, held);
  return held;
}

/** The newest revision of a document: what is held where that still is the newest, otherwise from the tables. */
export async function newestDocument<D extends AnyDocument>(
  database: Database,
  id: string,
): Promise<Held<D>> {
  const row = await wantRow(database, id);
  const held = heldNewest<D>(id);
  return held?.revision === row.revision ? held : loadDocument(database, id);
}

/** The document as it is kept, readable or not: to be saved, looked at and mended by hand. */
export async function rawDocument(id: string): Promise<string> {
  const { value } = await wantValue(await reading(), id);
  return JSON.stringify(value, null, 2);
}

/** Rows of records to put and to remove. `position` is null where the row keeps the one that it has. */
export interface RowChanges {
  put: { kind: string; id: string; position: number | null; data: object }[];
  gone: { kind: string; id: string }[];
}

async function positionsOf(database: Database, id: string, kind: string): Promise<Map<string, number>> {
  const rows = await database
    .select({ id: records.id, position: records.position })
    .from(records)
    .where(and(eq(records.documentId, id), eq(records.kind, kind)));
  return new Map(rows.map((row) => [row.id, row.position]));
}

/** Puts the records of a kind of which some came, went or moved: those that changed, and those that get another position. */
async function putInOrder(
  database: Database,
  documentId: string,
  kind: string,
  { was, is, changed }: Readonly<Record<'was' | 'is' | 'changed', readonly AnyRecord[]>>,
  put: (record: AnyRecord, position: number | null) => void,
): Promise<void> {
  const there = new Set(is.map(({ id }) => id));
  const onlyWent = sameIds(
    was.filter(({ id }) => there.has(id)),
    is,
  );
  const positions: ReadonlyMap<string, number> = onlyWent
    ? new Map()
    : positionsToWrite(
        is.map(({ id }) => id),
        await positionsOf(database, documentId, kind),
      );
  const others = new Set(changed);
  for (const record of is) {
    const position = positions.get(record.id);
    if (position !== undefined || others.has(record)) put(record, position ?? null);
  }
}

/** The rows to put and to remove by a difference that led from one document to another. */
export async function rowChanges(
  database: Database,
  there: DocumentDifference,
  before: AnyDocument,
  after: AnyDocument,
): Promise<RowChanges> {
  const changes: RowChanges = { put: [], gone: [] };
  const { shape } = typeOf(after.id);
  for (const kind of Object.keys(shape.kinds)) {
    const change = there.records[kind];
    if (!change) continue;
    const put = ({ id, ...data }: AnyRecord, position: number | null) =>
      changes.put.push({ kind, id, position, data });
    const [was, is] = [listIn(shape, before, kind), listIn(shape, after, kind)];
    if (shape.kinds[kind]!.order === 'slots') for (const record of change.put) put(record, 0);
    else if (sameIds(was, is)) for (const record of change.put) put(record, null);
    else await putInOrder(database, before.id, kind, { was, is, changed: change.put }, put);
    for (const id of change.remove) changes.gone.push({ kind, id });
  }
  return changes;
}

/** The rows of all records of a document of which there are none yet. */
export function allRows(document: AnyDocument): RowChanges {
  const { shape } = typeOf(document.id);
  const put = Object.entries(shape.kinds).flatMap(([kind, { order }]) =>
    listIn(shape, document, kind).map(({ id, ...data }, at) => ({
      ...{ kind, id, data },
      position: order === 'slots' ? 0 : at,
    })),
  );
  return { put, gone: [] };
}

/** What the columns of a document's row have of its head. */
export function headColumns(document: AnyDocument): { name: string; model: string | null; head: object } {
  const {
    name,
    modelId = null,
    ...head
  } = headIn(typeOf(document.id).shape, document) as {
    name: string;
    modelId?: string;
  };
  return { name, model: modelId, head };
}

/** The rows of a new document, of which large ones are staged. */
export const stageDocument = (database: Database, document: AnyDocument): Promise<RowsToPut> =>
  stageRows(
    database,
    allRows(document).put.map((row) => ({ document: document.id, ...row })),
  );

/** Keeps a document that is new, as its first revision. `rows` are those of `stageDocument`. */
export async function insertDocument(
  database: Database,
  document: AnyDocument,
  rows: RowsToPut,
): Promise<void> {
  const { id } = document;
  const { name, model, head } = headColumns(document);
  const bytes = JSON.stringify(document).length;
  await database.execute(sql`
    with gate as (
      insert into documents (id, type, name, model_id, head, bytes, revision, created_at, updated_at)
      values (${id}, ${typeOf(id).name}, ${name}, ${model}, ${JSON.stringify(head)}::jsonb, ${bytes}, 1, clock_timestamp(), clock_timestamp())
      on conflict do nothing returning id
    )
    insert into records (document_id, kind, id, position, data)
    select gate.id, x.kind, x.id, x.position, x.data
    from (${rowsIn([rows])}) as x join gate on gate.id = x.document`);
}
