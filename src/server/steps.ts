import { sql } from 'drizzle-orm';
import type { LabelParts, PlanId } from '../core/plan';
import { openDatabase, type Database } from '../db';
import type { RowChanges } from './plan-rows';
import { rowsIn, stageRows, unstage, type RowsToPut } from './staging';

/**
 * Steps of plans, kept: log, rows and key of each. The embedded database has one connection, and a statement and a commit
 * cost it more than the rows that they write: what comes while one is under way goes into the next together, one statement
 * for all. A PostgreSQL server has connections enough; each goes alone there.
 */

/** A step as it is kept: the plan's row as it is from now on, the log's, its key's, and the rows that change. */
export interface StepToKeep {
  id: PlanId;
  /** The revision that is the newest; where it is not, nothing is kept. */
  from: number;
  name: string;
  model: string;
  head: object;
  bytes: number;
  undoHead: number | null;
  redoHead: number | null;
  kind: 'edit' | 'undo' | 'redo';
  /** As JSON, which is made once. */
  edit: string;
  inverse: string;
  logBytes: number;
  label: LabelParts;
  beforeUndo: number | null;
  beforeRedo: number | null;
  key: string | null;
  request: string;
  receipt: object;
  rows: RowChanges;
}

/** A step of which many rows are staged. */
type Ready = StepToKeep & { put: RowsToPut };

interface Waiting {
  step: Ready;
  done: (kept: boolean) => void;
  failed: (error: unknown) => void;
}

/** Most that go into one statement: others want their turn at the connection too. */
const MOST = 32;

const shared = globalThis as { veridonSteps?: { waiting: Waiting[]; running: boolean } };
const state = (shared.veridonSteps ??= { waiting: [], running: false });

/**
 * Keeps a step. True once it is on the disk; false where somebody else was first, the plan is removed, or the key has been
 * used: nothing of it is kept then.
 */
export async function keepStep(database: Database, wanted: StepToKeep): Promise<boolean> {
  const { kind } = await openDatabase();
  const put = await stageRows(
    database,
    wanted.rows.put.map((row) => ({ plan: wanted.id, ...row })),
  );
  const step = { ...wanted, put };
  try {
    if (kind !== 'pglite') return await alone(database, step);
    return await new Promise((done, failed) => {
      state.waiting.push({ step, done, failed });
      if (!state.running) void run(database);
    });
  } finally {
    await unstage(database, put);
  }
}

async function run(database: Database): Promise<void> {
  state.running = true;
  while (state.waiting.length > 0) {
    // What has been sent meanwhile is heard first, so that it goes along.
    await new Promise((heard) => setImmediate(heard));
    const batch = state.waiting.splice(0, MOST);
    const together = await keptTogether(database, batch);
    for (const one of together ? [] : batch) await alone(database, one.step).then(one.done, one.failed);
  }
  state.running = false;
}

/**
 * True where it was settled for all of them; false where the database refused, whatever of: then each is asked for itself, so that
 * one spoils it for nobody. One that was kept all the same is not the next any more and is kept no second time.
 */
async function keptTogether(database: Database, batch: readonly Waiting[]): Promise<boolean> {
  try {
    const kept = await carryOut(
      database,
      batch.map(({ step }) => step),
    );
    for (const { step, done } of batch) done(kept.has(step.id));
    return true;
  } catch {
    return false;
  }
}

async function alone(database: Database, step: Ready): Promise<boolean> {
  try {
    return (await carryOut(database, [step])).has(step.id);
  } catch (error) {
    if (isKeyTwice(error)) return false;
    throw error;
  }
}

/** SQLSTATE 23505: of the rows that are inserted only a key can be there already, since the gate guards the revision. */
const isKeyTwice = (error: unknown): boolean => {
  const { code, cause } = error as { code?: unknown; cause?: unknown };
  return code === '23505' || (typeof cause === 'object' && cause !== null && isKeyTwice(cause));
};

/** The plans whose step was kept. A plan has one step in it at most: those of one plan take turns. */
async function carryOut(database: Database, steps: readonly Ready[]): Promise<Set<string>> {
  const put = steps.map((step) => step.put);
  const gone = steps.flatMap(({ id, rows }) => rows.gone.map((row) => ({ plan: id, ...row })));
  const keys = steps.some(({ key }) => key !== null);
  const asked = JSON.stringify(steps.map(({ rows: _, put: _put, ...step }) => step));
  const statement = sql`
    with steps as materialized (
      select * from jsonb_to_recordset(${asked}::jsonb) as x(
        id text, "from" integer, name text, model text, head jsonb, bytes integer, "undoHead" integer, "redoHead" integer,
        kind text, edit text, inverse text, "logBytes" integer, label jsonb, "beforeUndo" integer, "beforeRedo" integer,
        key text, request text, receipt jsonb)
    ), gate as (
      update plans set name = steps.name, model_id = steps.model, head = steps.head, document = null, bytes = steps.bytes,
        revision = steps."from" + 1, undo_head = steps."undoHead", redo_head = steps."redoHead", updated_at = now()
      from steps where plans.id = steps.id and plans.revision = steps."from" and plans.removed_at is null
      returning plans.id
    ), logged as (
      insert into revisions (plan_id, revision, kind, edit, inverse, bytes, label_parts, before_undo, before_redo)
      select id, "from" + 1, kind, edit::jsonb, inverse::jsonb, "logBytes", label, "beforeUndo", "beforeRedo"
      from steps join gate using (id)
    )${
      keys
        ? sql`, keyed as (
      insert into changes (key, request, receipt)
      select key, request, receipt from steps join gate using (id) where key is not null
    )`
        : sql``
    }${
      gone.length > 0
        ? sql`, gone as (
      delete from records using gate, jsonb_to_recordset(${JSON.stringify(gone)}::jsonb) as x(plan text, kind text, id text)
      where x.plan = gate.id and records.plan_id = x.plan and records.kind = x.kind and records.id = x.id
    )`
        : sql``
    }${
      steps.some(({ rows }) => rows.put.length > 0)
        ? sql`, put as (
      insert into records (plan_id, kind, id, position, data)
      select x.plan, x.kind, x.id, coalesce(x.position, 'NaN'), x.data
      from (${rowsIn(put)}) as x join gate on gate.id = x.plan
      on conflict (plan_id, kind, id) do update set data = excluded.data,
        position = case when excluded.position = 'NaN' then records.position else excluded.position end
    )`
        : sql``
    }
    select id from gate`;
  const { rows } = (await database.execute(statement)) as unknown as { rows: { id: string }[] };
  return new Set(rows.map(({ id }) => id));
}
