import { and, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import {
  applyEdit,
  editLabel,
  editSchema,
  inverseOf,
  outcomeFault,
  rebaseEdit,
  type Edit,
  type Plan,
} from '../core/plan';
import { plans, revisions, type Database } from '../db';
import { reading, writing } from './database';
import { NOBODY, once, type Asker } from './once';
import { labelOf, planAt, readPlan, wantRow, type Row } from './plan-rows';
import { wantModel } from './plans';
import { recentPlan, rememberPlan } from './recent-plans';
import { Problem } from './problem';

/** What a change answers. `plan` is there where the edit was run on a newer revision than it was made on. */
export interface ChangeAnswer {
  revision: number;
  label: string;
  undo: string | null;
  redo: string | null;
  plan?: Plan;
}

/** An edit that was made further back than this is refused: finding out whether it still holds would keep others waiting. */
const FAR_BACK = 2000;

interface Step {
  kind: 'edit' | 'undo' | 'redo';
  edit: Edit;
  label: string;
  before: Plan;
  after: Plan;
  undoHead: (revision: number) => number | null;
  redoHead: (revision: number) => number | null;
}

/** Most that the document of a plan may have, bytes of JSON; a full radio of 3,600 channels takes 2 MB. */
const LONGEST_PLAN = 4_000_000;

/** The JSON of a plan that may be kept, or the problem that says why it may not. */
function keepable(before: Plan, after: Plan): string {
  const fault = outcomeFault(before, after);
  if (fault !== null)
    throw new Problem(422, 'edit-refused', 'This cannot be done', `${fault} Nothing was changed.`);
  if (after.modelId !== before.modelId) wantModel(after.modelId);
  const json = JSON.stringify(after);
  if (json.length > LONGEST_PLAN)
    throw new Problem(
      422,
      'plan-too-large',
      'The plan would be too large',
      `A plan may have ${LONGEST_PLAN / 1_000_000} MB. Nothing was changed; make two plans of it.`,
    );
  return json;
}

/** A revision that has been made, and is there once its transaction is. */
interface Made {
  revision: number;
  plan: Plan;
  bytes: number;
}

async function append(database: Database, row: Row, step: Step, made: Made[]): Promise<ChangeAnswer> {
  const json = keepable(step.before, step.after);
  const revision = row.revision + 1;
  made.push({ revision, plan: step.after, bytes: json.length });
  const undoHead = step.undoHead(revision);
  const redoHead = step.redoHead(revision);
  const [edit, inverse] = [step.edit, inverseOf(step.before, step.after)].map((one) => JSON.stringify(one));
  await database.insert(revisions).values({
    planId: row.id,
    revision,
    kind: step.kind,
    edit: sql`${edit}::jsonb`,
    inverse: sql`${inverse}::jsonb`,
    bytes: edit!.length + inverse!.length,
    label: step.label,
    beforeUndo: row.undoHead,
    beforeRedo: row.redoHead,
  });
  await database
    .update(plans)
    .set({
      document: sql`${json}::jsonb`,
      name: step.after.name,
      modelId: step.after.modelId,
      revision,
      undoHead,
      redoHead,
      updatedAt: new Date(),
    })
    .where(eq(plans.id, row.id));
  const label = (head: number | null) => (head === revision ? step.label : labelOf(database, row.id, head));
  return { revision, label: step.label, undo: await label(undoHead), redo: await label(redoHead) };
}

/** What the answer to a change is made of again: the revision that it made, and whether the plan went with it. */
interface Receipt {
  revision: number;
  withPlan: boolean;
}

/** The answer that a change got when it was first sent. */
async function answerAgain(
  database: Database,
  id: string,
  { revision, withPlan }: Receipt,
): Promise<ChangeAnswer> {
  const row = await wantRow(database, id, false);
  const own = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.planId, id), inArray(revisions.revision, [revision, revision + 1])));
  const made = own.find((one) => one.revision === revision)!;
  // What undo and redo would have done then is what the next revision found before itself.
  const next = own.find((one) => one.revision === revision + 1);
  return {
    revision,
    label: made.label,
    undo: await labelOf(database, id, next ? next.beforeUndo : row.undoHead),
    redo: await labelOf(database, id, next ? next.beforeRedo : row.redoHead),
    ...(withPlan && { plan: await planAt(database, row, revision) }),
  };
}

/** Changes a plan in one transaction, once. `run` gets the newest row, kept to this transaction. */
async function change(
  id: string,
  asker: Asker,
  request: unknown,
  run: (transaction: Database, row: Row, made: Made[]) => Promise<ChangeAnswer>,
): Promise<ChangeAnswer> {
  const database = await writing();
  const made: Made[] = [];
  const changed = await database.transaction((transaction) =>
    once<ChangeAnswer, Receipt>(
      transaction,
      asker,
      { id, request },
      async () => {
        const answer = await run(transaction, await wantRow(transaction, id, true), made);
        return { answer, receipt: { revision: answer.revision, withPlan: answer.plan !== undefined } };
      },
      (receipt) => answerAgain(transaction, id, receipt),
    ),
  );
  for (const { revision, plan, bytes } of made) rememberPlan(id, revision, plan, bytes);
  return changed;
}

/** The plan on which an edit was made, where that is not the newest any more. */
async function baseOf(database: Database, row: Row, base: number): Promise<Plan> {
  if (row.revision - base > FAR_BACK)
    throw new Problem(
      409,
      'stale-edit',
      'Made too long ago',
      `This was made on revision ${base}; the plan is at ${row.revision}. Load the plan again and look at it.`,
      { revision: row.revision },
    );
  const known = recentPlan(row.id, base);
  if (known) return known;
  // Whoever makes one edit on it is likely to make the next on it too.
  const plan = await planAt(database, row, base);
  rememberPlan(row.id, base, plan, JSON.stringify(plan).length);
  return plan;
}

/**
 * Appends an edit to a plan's log in one transaction. An edit that was made on an old revision is run again on the
 * newest where it still holds, and refused with a reason where not. Once this has answered, the edit is on disk.
 */
export function editPlan(id: string, base: number, edit: Edit, asker = NOBODY): Promise<ChangeAnswer> {
  return change(id, asker, { base, edit }, async (transaction, row, made) => {
    if (base > row.revision)
      throw new Problem(
        409,
        'unknown-revision',
        'No such revision',
        `The plan is at revision ${row.revision}; the edit says ${base}. Load the plan again.`,
      );
    const before = readPlan(row);
    const stale = base < row.revision;
    const result = stale
      ? rebaseEdit(edit, await baseOf(transaction, row, base), before)
      : applyEdit(before, edit);
    if (!result.ok) {
      const [status, kind, title] = stale
        ? ([409, 'stale-edit', 'Changed meanwhile'] as const)
        : ([422, 'edit-refused', 'This cannot be done'] as const);
      throw new Problem(status, kind, title, result.reason, { revision: row.revision });
    }
    const answer = await append(
      transaction,
      row,
      {
        kind: 'edit',
        edit,
        label: editLabel(edit, before),
        before,
        after: result.value,
        undoHead: (revision) => revision,
        redoHead: () => null,
      },
      made,
    );
    return stale ? { ...answer, plan: result.value } : answer;
  });
}

/** Takes the last edit back, or the last undo: a revision of its own, so that the log only ever grows. */
export function stepBack(id: string, kind: 'undo' | 'redo', asker = NOBODY): Promise<ChangeAnswer> {
  return change(id, asker, kind, async (transaction, row, made) => {
    const head = kind === 'undo' ? row.undoHead : row.redoHead;
    if (head === null)
      throw new Problem(
        409,
        `nothing-to-${kind}`,
        `Nothing to ${kind}`,
        kind === 'undo' ? 'Nothing has been changed yet.' : 'Nothing has been undone.',
      );
    const [target] = await transaction
      .select()
      .from(revisions)
      .where(and(eq(revisions.planId, id), eq(revisions.revision, head)));
    const before = readPlan(row);
    const edit = editSchema.parse(target!.inverse);
    const result = applyEdit(before, edit);
    if (!result.ok) throw new Error(`The log of ${id} does not lead back from ${head}: ${result.reason}`);
    const answer = await append(
      transaction,
      row,
      {
        kind,
        edit,
        label: target!.label,
        before,
        after: result.value,
        undoHead: (revision) => (kind === 'undo' ? target!.beforeUndo : revision),
        redoHead: (revision) => (kind === 'undo' ? revision : target!.beforeRedo),
      },
      made,
    );
    return { ...answer, plan: result.value };
  });
}

/**
 * Makes a plan again what it was at an earlier revision: a revision of its own, which undo takes back like any other.
 * Refused where the plan is not at `base` any more, since what came since would be lost unseen.
 */
export async function goBack(
  id: string,
  base: number,
  revision: number,
  asker = NOBODY,
): Promise<ChangeAnswer> {
  // Found before the transaction: the log does not change behind us, and a long one keeps nobody waiting.
  const database = await reading();
  const then = await wantRow(database, id, false);
  const wanted =
    base === then.revision && revision < base ? await planAt(database, then, revision) : undefined;
  return change(id, asker, { base, revision }, async (transaction, row, made) => {
    if (base !== row.revision)
      throw new Problem(
        409,
        'stale-edit',
        'Changed meanwhile',
        `The plan was changed meanwhile: it is at revision ${row.revision}. Look at it and try again.`,
        { revision: row.revision },
      );
    if (revision >= row.revision)
      throw new Problem(
        422,
        'unknown-revision',
        'No earlier revision',
        `The plan is at revision ${row.revision}; name an earlier one to go back to.`,
      );
    const before = readPlan(row);
    const after = wanted ?? (await planAt(transaction, row, revision));
    const answer = await append(
      transaction,
      row,
      {
        kind: 'edit',
        edit: inverseOf(after, before),
        label: `Go back to revision ${revision}`,
        before,
        after,
        undoHead: (next) => next,
        redoHead: () => null,
      },
      made,
    );
    return { ...answer, plan: after };
  });
}

/** Bytes of edits that one page of the log holds at most, but one edit whatever its size. */
const LONGEST_PAGE = 1_000_000;

/**
 * A page of the log, newest first: at most `limit` revisions, and no more than fit into an answer. `next` is what to ask
 * for with `before` to get the page after it; null on the last one.
 */
export async function planLog(id: string, before: number | undefined, limit: number) {
  const database = await reading();
  const row = await wantRow(database, id, false);
  const own = eq(revisions.planId, id);
  const sizes = await database
    .select({ revision: revisions.revision, bytes: revisions.bytes })
    .from(revisions)
    .where(and(own, lt(revisions.revision, before ?? row.revision + 1)))
    .orderBy(desc(revisions.revision))
    .limit(limit + 1);
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
      edit: revisions.edit,
      at: revisions.at,
    })
    .from(revisions)
    .where(and(own, inArray(revisions.revision, page)))
    .orderBy(desc(revisions.revision));
  return {
    edits: rows.map((one) => ({ ...one, at: one.at.toISOString() })),
    next: sizes.length > fits ? page.at(-1)! : null,
  };
}
