import { and, count, desc, eq, gt, isNotNull, isNull, lt } from 'drizzle-orm';
import { check, contentToWrite } from '../core/check';
import { fit } from '../core/fit';
import { modelById, type Model } from '../core/models';
import {
  applyEdit,
  editLabel,
  editSchema,
  inverseOf,
  makeId,
  newPlan,
  planSchema,
  rebaseEdit,
  type Edit,
  type Plan,
  type PlanDetails,
} from '../core/plan';
import { plans, revisions, type Database } from '../db';
import { reading, writing } from './database';
import { notFound, Problem } from './problem';

/** A plan as its row keeps it. */
export interface KeptPlan {
  plan: Plan;
  revision: number;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

/** What a change answers. `plan` is there where the edit was run on a newer revision than it was made on. */
export interface ChangeAnswer {
  revision: number;
  label: string;
  undo: string | null;
  redo: string | null;
  plan?: Plan;
}

/** The plans, the last changed first; with `removed` those that were removed, the last removed first. */
export async function listPlans({ removed = false } = {}) {
  const database = await reading();
  const rows = await database
    .select()
    .from(plans)
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
  return rows.map((row) => {
    const model = modelById(row.modelId);
    return {
      id: row.id,
      name: row.name,
      modelId: row.modelId,
      model: model ? `${model.maker} ${model.name}` : row.modelId,
      slots: model?.slots.count ?? 0,
      channels: row.document.channels.length,
      receive: row.document.channels.map((channel) => channel.rx),
      revision: row.revision,
      updatedAt: row.updatedAt.toISOString(),
    };
  });
}

/** A model by its id, or the problem that names those there are. */
export function wantModel(id: string): Model {
  const model = modelById(id);
  if (!model)
    throw new Problem(
      422,
      'unknown-model',
      'Unknown model',
      `Veridon knows no model “${id}”. GET /api/models lists those it knows.`,
    );
  return model;
}

export async function createPlan(
  details: PlanDetails,
  from: Pick<Plan, 'channels'> = { channels: [] },
): Promise<KeptPlan> {
  wantModel(details.modelId);
  const database = await writing();
  const id = makeId('pl', crypto.getRandomValues(new Uint8Array(12)));
  const plan: Plan = { ...newPlan(id, details), channels: from.channels };
  await database
    .insert(plans)
    .values({ id, name: plan.name, modelId: plan.modelId, document: plan, revision: 1 });
  return { plan, revision: 1, undo: null, redo: null };
}

/** A new plan with all that another holds; its log begins anew. Channels keep their ids, so that the two can be compared. */
export async function duplicatePlan(id: string): Promise<KeptPlan> {
  const { plan } = await getPlan(id);
  const taken = new Set((await listPlans()).map(({ name }) => name));
  const base = plan.name
    .replace(/, copy( \d+)?$/, '')
    .slice(0, 50)
    .trimEnd();
  let name = `${base}, copy`;
  for (let n = 2; taken.has(name); n++) name = `${base}, copy ${n}`;
  return createPlan({ name, modelId: plan.modelId, owner: plan.owner }, plan);
}

/** Puts a plan away, or brings it back. Nothing of it is deleted; doing it again changes nothing. */
export async function setRemoved(id: string, removed: boolean): Promise<{ id: string; name: string }> {
  const database = await writing();
  const [row] = await database
    .update(plans)
    .set({ removedAt: removed ? new Date() : null })
    .where(eq(plans.id, id))
    .returning({ id: plans.id, name: plans.name });
  if (!row) throw notFound(`plan ${id}`);
  return row;
}

async function labelOf(database: Database, planId: string, revision: number | null): Promise<string | null> {
  if (revision === null) return null;
  const [row] = await database
    .select({ label: revisions.label })
    .from(revisions)
    .where(and(eq(revisions.planId, planId), eq(revisions.revision, revision)));
  return row?.label ?? null;
}

type Row = typeof plans.$inferSelect;

async function wantRow(database: Database, id: string, lock: boolean): Promise<Row> {
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

export async function getPlan(id: string): Promise<KeptPlan> {
  const database = await reading();
  const row = await wantRow(database, id, false);
  return {
    plan: planSchema.parse(row.document),
    revision: row.revision,
    undo: await labelOf(database, id, row.undoHead),
    redo: await labelOf(database, id, row.redoHead),
  };
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

export async function fitPlan(id: string, modelId?: string) {
  const { plan, revision } = await getPlan(id);
  return { revision, fit: fit(plan, wantModel(modelId ?? plan.modelId)) };
}

export async function checkPlan(id: string, modelId?: string) {
  const { plan, revision } = await getPlan(id);
  const model = wantModel(modelId ?? plan.modelId);
  return { revision, findings: check(plan, model), heldBack: contentToWrite(plan, model).heldBack };
}

/** True where no plan has been made yet. */
export async function hasNoPlans(): Promise<boolean> {
  const database = await reading();
  const [row] = await database.select({ n: count() }).from(plans);
  return row!.n === 0;
}
