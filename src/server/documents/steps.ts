import { sql } from 'drizzle-orm';
import { openDatabase, type Database } from '../../db';
import { CHANNEL } from '../bus';
import { instanceId } from '../instance';
import type { Receipt } from './receipts';
import type { RowChanges } from './rows';
import { rowsIn, stageRows, unstage, type RowsToPut } from './staging';

/**
 * Steps of documents, kept: log, rows and key of each; those of one change are kept together or not at all. The embedded database has one connection, and a statement and a commit
 * cost it more than the rows that they write: what comes while one is under way goes into the next together, one statement
 * for all. A PostgreSQL server has connections enough; each goes alone there.
 */

/** A step as it is kept: the document's row as it is from now on, the log's, its key's, and the rows that change. */
export interface StepToKeep {
  id: string;
  /** The revision that is the newest; where it is not, nothing is kept. */
  from: number;
  name: string;
  model: string | null;
  head: object;
  bytes: number;
  undoHead: number | null;
  redoHead: number | null;
  kind: 'edit' | 'undo' | 'redo';
  /** As JSON, which is made once. */
  edit: string;
  inverse: string;
  logBytes: number;
  label: object;
  beforeUndo: number | null;
  beforeRedo: number | null;
  /** The same for all steps of one change of several documents; null where it changes one. */
  changeId: string | null;
  key: string | null;
  request: string;
  receipt: Receipt;
  rows: RowChanges;
}

/** A step of which many rows are staged. */
type Ready = StepToKeep & { put: RowsToPut };

/** The steps of one change, one a document. */
type Change = readonly Ready[];

interface Waiting {
  change: Change;
  done: (kept: boolean) => void;
  failed: (error: unknown) => void;
}

/** Most that go into one statement: others want their turn at the connection too. */
const MOST = 32;

const shared = globalThis as { veridonSteps?: { waiting: Waiting[]; running: boolean } };
const state = (shared.veridonSteps ??= { waiting: [], running: false });

/**
 * Keeps the steps of one change, all or none. True once they are on the disk; false where somebody else was first, a document is removed, or the key has been
 * used: nothing is kept then.
 */
export async function keepSteps(database: Database, wanted: readonly StepToKeep[]): Promise<boolean> {
  const { kind } = await openDatabase();
  const puts: RowsToPut[] = [];
  try {
    for (const { id, rows } of wanted)
      puts.push(
        await stageRows(
          database,
          rows.put.map((row) => ({ document: id, ...row })),
        ),
      );
    const change = wanted.map((step, at): Ready => ({ ...step, put: puts[at]! }));
    if (kind !== 'pglite') return await alone(database, change, true);
    return await new Promise((done, failed) => {
      state.waiting.push({ change, done, failed });
      if (!state.running) void run(database);
    });
  } finally {
    for (const put of puts) await unstage(database, put);
  }
}

async function run(database: Database): Promise<void> {
  state.running = true;
  while (state.waiting.length > 0) {
    // What has been sent meanwhile is heard first, so that it goes along.
    await new Promise((heard) => setImmediate(heard));
    const batch = state.waiting.splice(0, MOST);
    const together = await keptTogether(database, batch);
    for (const one of together ? [] : batch)
      await alone(database, one.change, false).then(one.done, one.failed);
  }
  state.running = false;
}

/**
 * True where it was settled for all of them; false where the database refused, whatever of: then each is asked for itself, so that
 * one refused change does not stop the others. A change that was saved before the error is refused the second time, since its revision is no longer the next.
 */
async function keptTogether(database: Database, batch: readonly Waiting[]): Promise<boolean> {
  try {
    const kept = await carryOut(
      database,
      batch.map(({ change }) => change),
      false,
    );
    for (const { change, done } of batch) done(isKept(kept, change));
    return true;
  } catch {
    return false;
  }
}

const isKept = (kept: ReadonlySet<string>, change: Change) => change.every(({ id }) => kept.has(id));

async function alone(database: Database, change: Change, announce: boolean): Promise<boolean> {
  try {
    return isKept(await carryOut(database, [change], announce), change);
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

/** Where a change has several steps, the numbers of those changes of which every document is still at the revision from which it is to go on. In one order, so that two such changes wait for each other and not both. */
const WHOLE = sql`, ready as materialized (
      select steps.change, steps.id from steps
      join documents on documents.id = steps.id and documents.revision = steps."from" and documents.removed_at is null
      order by documents.id for update of documents
    ), whole as materialized (
      select steps.change from steps left join ready on ready.change = steps.change and ready.id = steps.id
      group by steps.change having count(*) = count(ready.id)
    )`;

/** Saves the steps and gives the ids of the documents whose step was saved. With `announce`, other instances are told when it is committed. Steps of one document take turns, so there is at most one of each. */
async function carryOut(database: Database, all: readonly Change[], announce: boolean): Promise<Set<string>> {
  const steps = all.flatMap((change, number) => change.map((step) => ({ ...step, change: number })));
  const several = steps.length > all.length;
  const put = steps.map((step) => step.put);
  const gone = steps.flatMap(({ id, rows }) => rows.gone.map((row) => ({ document: id, ...row })));
  const keys = steps.some(({ key }) => key !== null);
  const asked = JSON.stringify(steps.map(({ rows: _, put: _put, ...step }) => step));
  const statement = sql`
    with steps as materialized (
      select * from jsonb_to_recordset(${asked}::jsonb) as x(
        change integer, id text, "from" integer, name text, model text, head jsonb, bytes integer, "undoHead" integer,
        "redoHead" integer, kind text, edit text, inverse text, "logBytes" integer, label jsonb, "beforeUndo" integer,
        "beforeRedo" integer, "changeId" text, key text, request text, receipt jsonb)
    )${several ? WHOLE : sql``}, gate as (
      update documents set name = steps.name, model_id = steps.model, head = steps.head, document = null, bytes = steps.bytes,
        revision = steps."from" + 1, undo_head = steps."undoHead", redo_head = steps."redoHead", updated_at = now()
      from steps where documents.id = steps.id and documents.revision = steps."from" and documents.removed_at is null${
        several ? sql` and steps.change in (select change from whole)` : sql``
      }
      returning documents.id
    ), logged as (
      insert into revisions (document_id, revision, kind, edit, inverse, bytes, label_parts, before_undo, before_redo, change_id)
      select id, "from" + 1, kind, edit::jsonb, inverse::jsonb, "logBytes", label, "beforeUndo", "beforeRedo", "changeId"
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
      delete from records using gate, jsonb_to_recordset(${JSON.stringify(gone)}::jsonb) as x(document text, kind text, id text)
      where x.document = gate.id and records.document_id = x.document and records.kind = x.kind and records.id = x.id
    )`
        : sql``
    }${
      steps.some(({ rows }) => rows.put.length > 0)
        ? sql`, put as (
      insert into records (document_id, kind, id, position, data)
      select x.document, x.kind, x.id, coalesce(x.position, 'NaN'), x.data
      from (${rowsIn(put)}) as x join gate on gate.id = x.document
      on conflict (document_id, kind, id) do update set data = excluded.data,
        position = case when excluded.position = 'NaN' then records.position else excluded.position end
    )`
        : sql``
    }
    ${announce ? sql`select id, pg_notify(${CHANNEL}, json_build_object('topic', 'document', 'from', ${instanceId}::text, 'id', id, 'revision', steps."from" + 1)::text) from gate join steps using (id)` : sql`select id from gate`}`;
  const { rows } = (await database.execute(statement)) as unknown as { rows: { id: string }[] };
  return new Set(rows.map(({ id }) => id));
}
