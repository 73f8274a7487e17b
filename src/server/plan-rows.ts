import { and, eq, sql } from 'drizzle-orm';
import {
  FORMAT,
  headOf,
  KIND_NAMES,
  KINDS,
  positionsToWrite,
  readingDocument,
  recordsOf,
  sameIds,
  type AnyRecord,
  type Difference,
  type Kind,
  type Plan,
  type PlanId,
} from '../core/plan';
import type { Result } from '../core/result';
import { plans, records, type Database } from '../db';
import { reading } from './database';
import { heldPlan, hold, type HeldPlan } from './held-plans';
import { inSteps } from './in-steps';
import { notFound, Problem } from './problem';
import { rowsIn, stageRows, type RowsToPut } from './staging';

/**
 * Plans as the tables keep them: a row of what is said of the plan as a whole, and a row a record. Plans of format 1 are one
 * document until they are changed first; a document that is no plan stays as it is.
 */

/** A plan's own row. */
export type Row = typeof plans.$inferSelect;

/** The row of a plan; the problem that says it is unknown or removed. */
export async function wantRow(database: Database, id: PlanId): Promise<Row> {
  const [row] = await database.select().from(plans).where(eq(plans.id, id));
  return wanted(row, id);
}

function wanted(row: Row | undefined, id: PlanId): Row {
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

/** The records of a plan by kind, as one value: read in one statement with the plan's row, so that both are of one moment. */
const LISTS = sql<Record<string, { id: string }[]> | null>`(
  select json_object_agg(kind, list) from (
    select kind, json_agg(data || jsonb_build_object('id', id) order by position, id) as list
    from records where records.plan_id = plans.id group by kind
  ) as kinds)`;

async function rowWithLists(database: Database, id: PlanId) {
  const [found] = await database.select({ row: plans, lists: LISTS }).from(plans).where(eq(plans.id, id));
  return found;
}

type Found = NonNullable<Awaited<ReturnType<typeof rowWithLists>>>;

/** The document that a plan's rows are, readable or not; in the format of today, or as it was kept before there were rows. */
function documentIn({ row, lists }: Found): unknown {
  if (row.head === null) return row.document;
  const records = Object.fromEntries(KIND_NAMES.map((kind) => [KINDS[kind].list, lists?.[kind] ?? []]));
  return { format: FORMAT, id: row.id, name: row.name, modelId: row.modelId, ...row.head, ...records };
}

/** The problem that says what is wrong with a plan that cannot be read, and what can be had of it all the same. */
export const unreadable = (name: string, reason: string): Problem =>
  new Problem(
    409,
    'plan-unreadable',
    'This plan cannot be read',
    `“${name}” cannot be opened. ${reason} On the Plans page its document can be saved as it is, and its last readable revision, where it has one, opened as a new plan.`,
  );

/**
 * A plan's row with its document, whole or not; the problem that says it is unknown, or removed where those are not wanted
 * `too`.
 */
export async function wantDocument(
  database: Database,
  id: PlanId,
  { removed = false } = {},
): Promise<{ row: Row; document: unknown }> {
  const found = await rowWithLists(database, id);
  const row = removed && found ? found.row : wanted(found?.row, id);
  return { row, document: documentIn({ row, lists: found!.lists }) };
}

/** The plan in a document, in steps between which others have their turn. Not in the compute thread: to send it there and back takes longer. */
export const planIn = (document: unknown): Promise<Result<Plan>> => inSteps(readingDocument(document));

/** The newest revision of a plan, from the tables, and held from now on. */
export async function loadPlan(database: Database, id: PlanId): Promise<HeldPlan> {
  const { row, document } = await wantDocument(database, id);
  const read = await planIn(document);
  if (!read.ok) throw unreadable(row.name, read.reason);
  const { revision, undoHead, redoHead } = row;
  const bytes = row.bytes ?? JSON.stringify(read.value).length;
  const held = { plan: read.value, revision, undoHead, redoHead, bytes, inRows: row.head !== null };
  hold(id, held);
  return held;
}

/** The newest revision of a plan: what is held where that still is the newest, otherwise from the tables. */
export async function newestPlan(database: Database, id: PlanId): Promise<HeldPlan> {
  const row = await wantRow(database, id);
  const held = heldPlan(id);
  return held?.revision === row.revision ? held : loadPlan(database, id);
}

/** The document as it is kept, readable or not: to be saved, looked at and mended by hand. */
export async function rawDocument(id: PlanId): Promise<string> {
  const { document } = await wantDocument(await reading(), id);
  return JSON.stringify(document, null, 2);
}

/** Rows of records to put and to remove. `position` is null where the row keeps the one that it has. */
export interface RowChanges {
  put: { kind: string; id: string; position: number | null; data: object }[];
  gone: { kind: string; id: string }[];
}

/** The positions of the rows of a kind, by id. */
async function positionsOf(database: Database, planId: PlanId, kind: Kind): Promise<Map<string, number>> {
  const rows = await database
    .select({ id: records.id, position: records.position })
    .from(records)
    .where(and(eq(records.planId, planId), eq(records.kind, kind)));
  return new Map(rows.map(({ id, position }) => [id, position]));
}

/** Puts the records of a kind of which some came, went or moved: those that changed, and those that get another position. */
async function putInOrder(
  database: Database,
  planId: PlanId,
  kind: Kind,
  { was, is, changed }: Readonly<Record<'was' | 'is' | 'changed', readonly AnyRecord[]>>,
  put: (record: AnyRecord, position: number | null) => void,
): Promise<void> {
  const there = new Set<string>(is.map(({ id }) => id));
  const onlyWent = sameIds(
    was.filter(({ id }) => there.has(id)),
    is,
  );
  const positions: ReadonlyMap<string, number> = onlyWent
    ? new Map()
    : positionsToWrite(
        is.map(({ id }) => id),
        await positionsOf(database, planId, kind),
      );
  const others = new Set(changed);
  for (const record of is) {
    const position = positions.get(record.id);
    if (position !== undefined || others.has(record)) put(record, position ?? null);
  }
}

/** The rows to put and to remove by a difference that led from one plan to another. */
export async function rowChanges(
  database: Database,
  there: Difference,
  before: Plan,
  after: Plan,
): Promise<RowChanges> {
  const changes: RowChanges = { put: [], gone: [] };
  for (const kind of KIND_NAMES) {
    const change = there.records[kind];
    if (!change) continue;
    const put = ({ id, ...data }: AnyRecord, position: number | null) =>
      changes.put.push({ kind, id, position, data });
    const [was, is] = [recordsOf(before, kind), recordsOf(after, kind)] as readonly (readonly AnyRecord[])[];
    if (KINDS[kind].order === 'slots') for (const record of change.put) put(record, 0);
    else if (sameIds(was!, is!)) for (const record of change.put) put(record, null);
    else await putInOrder(database, before.id, kind, { was: was!, is: is!, changed: change.put }, put);
    for (const id of change.remove) changes.gone.push({ kind, id });
  }
  return changes;
}

/** The rows of all records of a plan of which there are none yet. */
export const allRows = (plan: Plan): RowChanges => ({
  put: KIND_NAMES.flatMap((kind) =>
    (recordsOf(plan, kind) as readonly AnyRecord[]).map(({ id, ...data }, at) => ({
      ...{ kind, id, data },
      position: KINDS[kind].order === 'slots' ? 0 : at,
    })),
  ),
  gone: [],
});

/** The rows of a new plan, of which large ones are staged. */
export const stagePlan = (database: Database, plan: Plan): Promise<RowsToPut> =>
  stageRows(
    database,
    allRows(plan).put.map((row) => ({ plan: plan.id, ...row })),
  );

/** Keeps a plan that is new, as its first revision. `rows` are those of `stagePlan`. */
export async function insertPlan(database: Database, plan: Plan, rows: RowsToPut): Promise<void> {
  const { id } = plan;
  const { name, modelId, ...rest } = headOf(plan);
  const head = JSON.stringify(rest);
  const bytes = JSON.stringify(plan).length;
  await database.execute(sql`
    with gate as (
      insert into plans (id, name, model_id, head, bytes, revision, created_at, updated_at)
      values (${id}, ${name}, ${modelId}, ${head}::jsonb, ${bytes}, 1, clock_timestamp(), clock_timestamp()) on conflict do nothing returning id
    
    )
    insert into records (plan_id, kind, id, position, data)
    select gate.id, x.kind, x.id, x.position, x.data
    from (${rowsIn([rows])}) as x join gate on gate.id = x.plan`);
}
