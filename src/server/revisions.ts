import { and, desc, eq, gt, lt } from 'drizzle-orm';
import {
  applyEdit,
  editLabel,
  editSchema,
  inverseOf,
  planSchema,
  rebaseEdit,
  type Edit,
  type Plan,
} from '../core/plan';
import { plans, revisions, type Database } from '../db';
import { reading, writing } from './database';
import { labelOf, wantModel, wantRow, type Row } from './plans';
import { Problem } from './problem';

/** What a change answers. `plan` is there where the edit was run on a newer revision than it was made on. */
export interface ChangeAnswer {
  revision: number;
  label: string;
  undo: string | null;
  redo: string | null;
  plan?: Plan;
}

/** The plan as it was at `revision`: the newest, with the inverses of what came later applied to it. */
async function planAt(database: Database, row: Row, revision: number): Promise<Plan> {
  const later = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.planId, row.id), gt(revisions.revision, revision)))
    .orderBy(desc(revisions.revision));
  let plan = planSchema.parse(row.document);
  for (const { inverse } of later) {
    const back = applyEdit(plan, editSchema.parse(inverse));
    if (!back.ok)
      throw new Error(`The log of ${row.id} does not lead back to revision ${revision}: ${back.reason}`);
    plan = back.value;
  }
  return plan;
}

interface Step {
  kind: 'edit' | 'undo' | 'redo';
  edit: Edit;
  label: string;
  before: Plan;
  after: Plan;
  undoHead: (revision: number) => number | null;
  redoHead: (revision: number) => number | null;
}

async function append(database: Database, row: Row, step: Step): Promise<ChangeAnswer> {
  const revision = row.revision + 1;
  const undoHead = step.undoHead(revision);
  const redoHead = step.redoHead(revision);
  await database.insert(revisions).values({
    planId: row.id,
    revision,
    kind: step.kind,
    edit: step.edit,
    inverse: inverseOf(step.before, step.after),
    label: step.label,
    beforeUndo: row.undoHead,
    beforeRedo: row.redoHead,
  });
  await database
    .update(plans)
    .set({
      document: step.after,
      name: step.after.name,
      modelId: step.after.modelId,
      revision,
      undoHead,
      redoHead,
      updatedAt: new Date(),
    })
    .where(eq(plans.id, row.id));
  return {
    revision,
    label: step.label,
    undo: await labelOf(database, row.id, undoHead),
    redo: await labelOf(database, row.id, redoHead),
  };
}

/**
 * Appends an edit to a plan's log in one transaction. An edit that was made on an old revision is run again on the
 * newest where it still holds, and refused with a reason where not. Once this has answered, the edit is on disk.
 */
export async function editPlan(id: string, base: number, edit: Edit): Promise<ChangeAnswer> {
  if (edit.name === 'describe' && edit.set.modelId !== undefined) wantModel(edit.set.modelId);
  const database = await writing();
  return database.transaction(async (transaction) => {
    const row = await wantRow(transaction, id, true);
    if (base > row.revision)
      throw new Problem(
        409,
        'unknown-revision',
        'No such revision',
        `The plan is at revision ${row.revision}; the edit says ${base}. Load the plan again.`,
      );
    const before = planSchema.parse(row.document);
    const stale = base < row.revision;
    const result = stale
      ? rebaseEdit(edit, await planAt(transaction, row, base), before)
      : applyEdit(before, edit);
    if (!result.ok) {
      const [status, kind, title] = stale
        ? ([409, 'stale-edit', 'Changed meanwhile'] as const)
        : ([422, 'edit-refused', 'This cannot be done'] as const);
      throw new Problem(status, kind, title, result.reason, { revision: row.revision });
    }
    const answer = await append(transaction, row, {
      kind: 'edit',
      edit,
      label: editLabel(edit, before),
      before,
      after: result.value,
      undoHead: (revision) => revision,
      redoHead: () => null,
    });
    return stale ? { ...answer, plan: result.value } : answer;
  });
}

/** Takes the last edit back, or the last undo: a revision of its own, so that the log only ever grows. */
export async function stepBack(id: string, kind: 'undo' | 'redo'): Promise<ChangeAnswer & { plan: Plan }> {
  const database = await writing();
  return database.transaction(async (transaction) => {
    const row = await wantRow(transaction, id, true);
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
    const before = planSchema.parse(row.document);
    const edit = editSchema.parse(target!.inverse);
    const result = applyEdit(before, edit);
    if (!result.ok) throw new Error(`The log of ${id} does not lead back from ${head}: ${result.reason}`);
    const answer = await append(transaction, row, {
      kind,
      edit,
      label: target!.label,
      before,
      after: result.value,
      undoHead: (revision) => (kind === 'undo' ? target!.beforeUndo : revision),
      redoHead: (revision) => (kind === 'undo' ? revision : target!.beforeRedo),
    });
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
): Promise<ChangeAnswer & { plan: Plan }> {
  const database = await writing();
  return database.transaction(async (transaction) => {
    const row = await wantRow(transaction, id, true);
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
    const before = planSchema.parse(row.document);
    const after = await planAt(transaction, row, revision);
    const answer = await append(transaction, row, {
      kind: 'edit',
      edit: inverseOf(after, before),
      label: `Go back to revision ${revision}`,
      before,
      after,
      undoHead: (next) => next,
      redoHead: () => null,
    });
    return { ...answer, plan: after };
  });
}

/** The log, newest first. */
export async function planLog(id: string, before: number | undefined, limit: number) {
  const database = await reading();
  await wantRow(database, id, false);
  const own = eq(revisions.planId, id);
  const rows = await database
    .select({
      revision: revisions.revision,
      kind: revisions.kind,
      label: revisions.label,
      edit: revisions.edit,
      at: revisions.at,
    })
    .from(revisions)
    .where(before === undefined ? own : and(own, lt(revisions.revision, before)))
    .orderBy(desc(revisions.revision))
    .limit(limit);
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
