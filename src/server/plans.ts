import { and, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { check, contentToWrite, countFindings } from '../core/check';
import { fit } from '../core/fit';
import { modelById, type Model } from '../core/models';
import { makeId, newPlan, PLAN_NAME_LIMIT, planSchema, type Plan, type PlanDetails } from '../core/plan';
import { cutText } from '../core/text';
import { jobs, plans, revisions, type Database } from '../db';
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

/** The plans, the last changed first; with `removed` those that were removed, the last removed first. */
export async function listPlans({ removed = false } = {}) {
  const database = await reading();
  const rows = await database
    .select()
    .from(plans)
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
  const written = await lastWrites(database);
  return rows.map((row) => {
    const model = modelById(row.modelId);
    const findings = model ? check(planSchema.parse(row.document), model) : [];
    return {
      id: row.id,
      name: row.name,
      modelId: row.modelId,
      model: model ? `${model.maker} ${model.name}` : row.modelId,
      slots: model?.slots.count ?? 0,
      channels: row.document.channels.length,
      receive: row.document.channels.map((channel) => channel.rx),
      findings: countFindings(findings),
      revision: row.revision,
      updatedAt: row.updatedAt.toISOString(),
      written: written.get(row.id) ?? null,
    };
  });
}

/** The plans by name alone, the last changed first, or those that were removed. */
export async function planNames({ removed = false } = {}): Promise<
  { id: string; name: string; modelId: string }[]
> {
  const database = await reading();
  return database
    .select({ id: plans.id, name: plans.name, modelId: plans.modelId })
    .from(plans)
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
}

/** By plan: into which radio it was last written whole, when, and at which revision. */
async function lastWrites(database: Database) {
  const rows = await database
    .selectDistinctOn([jobs.planId], {
      planId: jobs.planId,
      serial: jobs.serial,
      at: jobs.endedAt,
      revision: jobs.planRevision,
    })
    .from(jobs)
    .where(and(eq(jobs.kind, 'write'), eq(jobs.state, 'done')))
    .orderBy(jobs.planId, desc(jobs.startedAt));
  return new Map(
    rows.map(({ planId, serial, at, revision }) => [planId!, { serial, at: at!.toISOString(), revision }]),
  );
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
  from: Partial<Pick<Plan, 'channels' | 'abbreviations'>> = {},
): Promise<KeptPlan> {
  wantModel(details.modelId);
  const database = await writing();
  const id = makeId('pl', crypto.getRandomValues(new Uint8Array(12)));
  const { channels = [], abbreviations = null } = from;
  const plan: Plan = { ...newPlan(id, details), channels, abbreviations };
  await database
    .insert(plans)
    .values({ id, name: plan.name, modelId: plan.modelId, document: plan, revision: 1 });
  return { plan, revision: 1, undo: null, redo: null };
}

/** A new plan with all that another holds; its log begins anew. Channels keep their ids, so that the two can be compared. */
export async function duplicatePlan(id: string): Promise<KeptPlan> {
  const { plan } = await getPlan(id);
  const taken = new Set((await planNames()).map(({ name }) => name));
  const base = plan.name.replace(/, copy( \d+)?$/, '');
  const named = (ending: string) => cutText(base, PLAN_NAME_LIMIT - ending.length) + ending;
  let name = named(', copy');
  for (let n = 2; taken.has(name); n++) name = named(`, copy ${n}`);
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
