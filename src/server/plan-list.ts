import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { check, checkBesides, countFindings, type FindingCount, type Neighbour } from '../core/check';
import { fit } from '../core/fit';
import { modelById, modelOfPlan, sidesOf, type Model } from '../core/models';
import { readDocument, type Plan, type PlanId, type RadioId } from '../core/plan';
import { USUAL_REGION, type Region } from '../core/radio';
import { ok } from '../core/result';
import { jobs, plans, radios, summaries, type Database } from '../db';
import { reading } from './database';
import { heldPlan } from './held-plans';
import { areaOf, knownNeighbours, type Area } from './neighbours';
import { lastReadable } from './plan-log';
import { wantDocument } from './plan-rows';
import { calledOf } from './radios';

/** Raise this when summaries are computed differently: saved summaries of an older format are computed again. */
const SUMMARY_FORMAT = 3;

/** What the list says of a plan that is worked out of its document. */
interface Summary {
  format: number;
  region: Region;
  slots: number;
  channels: number;
  receive: number[];
  findings: FindingCount[];
  /** Why it cannot be opened, in a sentence; null where it can. */
  trouble: string | null;
  /** The newest revision that can be read, where this one cannot. */
  readable: number | null;
}

const NO_SUMMARY: Summary = {
  format: SUMMARY_FORMAT,
  region: USUAL_REGION,
  slots: 0,
  channels: 0,
  receive: [],
  findings: [],
  trouble: null,
  readable: null,
};

/** Where each plan is used, as far as it was looked at in this process: what a directory says of it may have come since. */
const areas = new Map<string, Area | null>();
const MOST_AREAS = 2000;

/** Works a plan's summary out at its newest revision, and keeps it. */
async function summarise(database: Database, id: PlanId): Promise<Summary> {
  const { row, document } = await wantDocument(database, id, { removed: true });
  const held = heldPlan(id);
  const read = held?.revision === row.revision ? ok(held.plan) : readDocument(document);
  const area = read.ok ? areaOf(read.value) : null;
  const neighbours = knownNeighbours(area);
  const summary = read.ok
    ? summaryOf(read.value, neighbours.list)
    : { ...NO_SUMMARY, trouble: read.reason, readable: await lastReadable(database, id) };
  areas.set(id, area);
  if (areas.size > MOST_AREAS) areas.delete(areas.keys().next().value!);
  const values = { planId: id, revision: row.revision, heardAt: neighbours.at, summary };
  await database
    .insert(summaries)
    .values(values)
    .onConflictDoUpdate({ target: summaries.planId, set: values });
  // The list may have many to work out: others are served in between.
  await new Promise((resolve) => setImmediate(resolve));
  return summary;
}

/** All that Check says of a plan, of its channels and beside them. */
function allFindings(plan: Plan, model: Model, neighbours: readonly Neighbour[]) {
  const fitted = fit(plan, model);
  return [...check(plan, model, fitted, neighbours), ...checkBesides(plan, model, fitted, neighbours)];
}

function summaryOf(plan: Plan, neighbours: readonly Neighbour[]): Summary {
  const model = modelOfPlan(plan);
  return {
    format: SUMMARY_FORMAT,
    region: plan.owner.region,
    slots: model ? model.slots.count * sidesOf(model).length : 0,
    channels: plan.channels.length,
    receive: plan.channels.map((channel) => channel.rx),
    findings: model ? countFindings(allFindings(plan, model, neighbours)) : [],
    trouble: model ? null : unknownModel(plan.modelId),
    readable: null,
  };
}

/** True where a summary is of this revision, and of all that is known nearby. */
const holds = (kept: typeof summaries.$inferSelect | null, id: PlanId, revision: number) =>
  kept?.revision === revision &&
  (kept.summary as Partial<Summary>).format === SUMMARY_FORMAT &&
  knownNeighbours(areas.get(id) ?? null).at <= kept.heardAt;

/** The plans, the last changed first; with `removed` those that were removed, the last removed first. */
export async function listPlans({ removed = false } = {}) {
  const database = await reading();
  const rows = await database
    .select({
      id: plans.id,
      name: plans.name,
      modelId: plans.modelId,
      revision: plans.revision,
      updatedAt: plans.updatedAt,
      kept: summaries,
    })
    .from(plans)
    .leftJoin(summaries, eq(summaries.planId, plans.id))
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
  const written = await lastWrites(database);
  const listed = [];
  for (const { kept, ...row } of rows) {
    const { id, revision } = row;
    const { format: _, ...summary } = holds(kept, id, revision)
      ? (kept!.summary as Summary)
      : await summarise(database, id);
    const model = modelById(row.modelId);
    listed.push({
      ...row,
      ...summary,
      model: model ? `${model.maker} ${model.name}` : row.modelId,
      updatedAt: row.updatedAt.toISOString(),
      written: written.get(row.id) ?? null,
    });
  }
  return listed;
}

const unknownModel = (id: string) => `It is made for the model “${id}”, which this Veridon does not know.`;

/** The plans by name alone, the last changed first, or those that were removed. */
export async function planNames({ removed = false } = {}): Promise<
  { id: PlanId; name: string; modelId: string; unit: RadioId | null }[]
> {
  const database = await reading();
  return database
    .select({
      id: plans.id,
      name: plans.name,
      modelId: plans.modelId,
      unit: sql<RadioId | null>`${plans.head} -> 'unit' ->> 'radio'`,
    })
    .from(plans)
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
}

/** By plan: into which radio it was last written whole, when, and at which revision. */
async function lastWrites(database: Database) {
  const rows = await database
    .selectDistinctOn([jobs.planId], {
      planId: jobs.planId,
      serial: radios.serial,
      modelId: jobs.modelId,
      at: jobs.endedAt,
      revision: jobs.planRevision,
    })
    .from(jobs)
    .innerJoin(radios, eq(jobs.radioId, radios.id))
    // A write that broke off and went on is one too; a restore has no plan.
    .where(and(isNotNull(jobs.planId), eq(jobs.state, 'done')))
    .orderBy(jobs.planId, desc(jobs.startedAt));
  return new Map(
    rows.map(({ planId, at, revision, ...radio }) => [
      planId!,
      { called: calledOf(radio), at: at!.toISOString(), revision },
    ]),
  );
}
