import { count, eq, sql } from 'drizzle-orm';
import type { Neighbour } from '../core/check';
import type { Fit } from '../core/fit';
import { modelOfPlan, type Model } from '../core/models';
import {
  makeId,
  newPlan,
  planIdSchema,
  PLAN_NAME_LIMIT,
  type Plan,
  type PlanDetails,
  type PlanId,
} from '../core/plan';
import { cutText } from '../core/text';
import { documents, type Database } from '../db';
import { computeInThread } from './compute-thread';
import { reading, writing } from './database';
import { copyHeard } from './heard';
import { JsonText } from './json-text';
import { NOBODY, once, type Asker } from './once';
import { planNames } from './plan-list';
import { labelOf, planAt, salvagedPlan } from './plan-log';
import { newestPlan, planIn, wantDocument } from './plan-rows';
import { notFound, Problem } from './problem';
import { createDocument } from './documents/create';
import { viewOf } from './documents/uses';
import { wantModel } from './models';

/** A plan as its row keeps it. */
export interface KeptPlan {
  plan: Plan;
  revision: number;
  /** What undo and redo would do, in words; null where there is nothing. */
  undo: string | null;
  redo: string | null;
}

/** What is kept with a new plan, together with it or not at all. */
export type KeptBeside = (database: Database, id: PlanId) => Promise<void>;

/** Makes a plan; sent again with the same key it is the same plan. `request` is what was asked for, where it says more than this. */
export async function createPlan(
  details: PlanDetails,
  from: Partial<Omit<Plan, keyof PlanDetails | 'format' | 'id'>> = {},
  asker = NOBODY,
  request: unknown = { details, from },
  also?: KeptBeside,
): Promise<KeptPlan> {
  wantModel(details.modelId);
  const id = makeId('pl', crypto.getRandomValues(new Uint8Array(12)));
  const plan: Plan = { ...newPlan(id, details), ...from };
  return keepNew(plan, asker, request, also);
}

/** Keeps a plan that was just made, once; see `createDocument`. */
async function keepNew(plan: Plan, asker: Asker, request: unknown, also?: KeptBeside): Promise<KeptPlan> {
  const made = await createDocument(plan, asker, request, also && ((on, id) => also(on, id as PlanId)));
  return { plan: made, revision: 1, undo: null, redo: null };
}

/**
 * A new plan with all that another holds, or held at an earlier revision; its log begins anew. Channels keep their ids, so
 * that the two can be compared.
 */
export async function duplicatePlan(id: PlanId, revision?: number, asker = NOBODY): Promise<KeptPlan> {
  const database = await reading();
  const { row, document } = await wantDocument(database, id);
  if (revision !== undefined && revision > row.revision)
    throw new Problem(
      422,
      'unknown-revision',
      'No such revision',
      `The plan is at revision ${row.revision}; there is no ${revision} yet.`,
    );
  const plan = (await planIn(document)).ok
    ? await planAt(database, id, revision ?? row.revision)
    : await salvagedPlan(database, id, revision ?? row.revision);
  const base = plan.name.replace(/, copy( \d+)?$/, '');
  const named = (ending: string) => cutText(base, PLAN_NAME_LIMIT - ending.length) + ending;
  const taken = new Set((await planNames()).map(({ name }) => name));
  let name = named(', copy');
  for (let n = 2; taken.has(name); n++) name = named(`, copy ${n}`);
  const newId = makeId('pl', crypto.getRandomValues(new Uint8Array(12)));
  return keepNew(
    { ...plan, id: newId, name, lookedAt: {} },
    asker,
    { duplicate: id, revision },
    (transaction, copy) => copyHeard(transaction, id, copy),
  );
}

/** The id that a text is, or the problem that there is no such plan. */
export function wantPlanId(text: string): PlanId {
  const id = planIdSchema.safeParse(text);
  if (!id.success) throw notFound(`plan ${text.slice(0, 40)}`);
  return id.data;
}

/**
 * Puts a plan away, or brings it back. Nothing of it is deleted. Sent again with the same key it does nothing, though
 * somebody may have brought the plan back meanwhile.
 */
export async function setRemoved(
  id: PlanId,
  removed: boolean,
  asker = NOBODY,
): Promise<{ id: PlanId; name: string }> {
  const database = await writing();
  return database.transaction((transaction) =>
    once(
      transaction,
      asker,
      { id, removed },
      async () => {
        const [row] = await transaction
          .update(documents)
          // A plan that is away already has been so since it was put away first.
          .set({ removedAt: removed ? sql`coalesce(${documents.removedAt}, now())` : null })
          .where(eq(documents.id, id))
          .returning({ name: documents.name });
        if (!row) throw notFound(`plan ${id}`);
        const answer = { id, name: row.name };
        return { answer, receipt: answer };
      },
      async (receipt) => receipt,
    ),
  );
}

export async function getPlan(id: PlanId): Promise<KeptPlan> {
  const database = await reading();
  const { document: plan, revision, undoHead, redoHead } = await newestPlan(database, id);
  return {
    plan,
    revision,
    undo: await labelOf(database, id, undoHead),
    redo: await labelOf(database, id, redoHead),
  };
}

/** The newest revision of a plan with all that it uses, to be fitted, checked and written. */
export async function getView(id: PlanId): Promise<{ plan: Plan; revision: number }> {
  const database = await reading();
  const { document, revision } = await newestPlan(database, id);
  return { plan: await viewOf(database, document), revision };
}

/** The model that is asked for; without one that of the plan, as the unit is that it is worked on for. */
const wantFor = (plan: Plan, modelId: string | undefined): Model =>
  modelId === undefined ? (modelOfPlan(plan) ?? wantModel(plan.modelId)) : wantModel(modelId);

export async function fitPlan(
  id: PlanId,
  modelId?: string,
): Promise<JsonText<{ revision: number; fit: Fit }>> {
  const { plan, revision } = await getView(id);
  wantFor(plan, modelId);
  return new JsonText(await computeInThread('fit', { revision, plan, modelId }));
}

/** Which findings are told of, and whether with the ways out of each. */
export interface FindingsPart {
  from: number;
  count: number;
  mends: boolean;
}

/** What Check says of a plan; `neighbours` are the repeaters that a directory knows where it is used. */
export async function checkPlan(
  id: PlanId,
  modelId?: string,
  neighbours: readonly Neighbour[] = [],
  { from, count, mends }: FindingsPart = { from: 0, count: 500, mends: true },
) {
  const { plan, revision } = await getView(id);
  wantFor(plan, modelId);
  return { revision, ...(await computeInThread('check', { plan, modelId, neighbours, from, count, mends })) };
}

/** True where no plan has been made yet. */
export async function hasNoPlans(): Promise<boolean> {
  const database = await reading();
  const [row] = await database.select({ n: count() }).from(documents);
  return row!.n === 0;
}
