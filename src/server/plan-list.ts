import { and, count, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { PLANS_AT_ONCE } from '../api/plans';
import type { FindingCount, Neighbour } from '../core/check';
import { modelById, modelOfPlan, sidesOf } from '../core/models';
import type { Plan, PlanId, RadioId } from '../core/plan';
import { USUAL_REGION, type Region } from '../core/radio';
import { ok } from '../core/result';
import { jobs, plans, radios, summaries, type Database } from '../db';
import { computeInThread } from './compute-thread';
import { problemOf, reading } from './database';
import { heldNewest } from './documents/held';
import { areaOf, knownNeighbours, type Area } from './neighbours';
import { lastReadable } from './plan-log';
import { planIn, wantDocument } from './plan-rows';
import { Problem } from './problem';
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
  const held = heldNewest<Plan>(id);
  const read = held?.revision === row.revision ? ok(held.document) : await planIn(document);
  const area = read.ok ? areaOf(read.value) : null;
  const neighbours = knownNeighbours(area);
  const summary = read.ok
    ? await summaryOf(read.value, neighbours.list)
    : { ...NO_SUMMARY, trouble: read.reason, readable: await lastReadable(database, id) };
  areas.set(id, area);
  if (areas.size > MOST_AREAS) areas.delete(areas.keys().next().value!);
  const values = { planId: id, revision: row.revision, heardAt: neighbours.at, summary };
  await database
    .insert(summaries)
    .values(values)
    .onConflictDoUpdate({ target: summaries.planId, set: values });
  return summary;
}

async function summaryOf(plan: Plan, neighbours: readonly Neighbour[]): Promise<Summary> {
  const model = modelOfPlan(plan);
  return {
    format: SUMMARY_FORMAT,
    region: plan.owner.region,
    slots: model ? model.slots.count * sidesOf(model).length : 0,
    channels: plan.channels.length,
    receive: plan.channels.map((channel) => channel.rx),
    findings: model ? await computeInThread('count', { plan, neighbours }) : [],
    trouble: model ? null : unknownModel(plan.modelId),
    readable: null,
  };
}

/** True where a summary is of this revision, and of all that is known nearby. */
const holds = (kept: typeof summaries.$inferSelect | null, id: PlanId, revision: number) =>
  kept?.revision === revision &&
  (kept.summary as Partial<Summary>).format === SUMMARY_FORMAT &&
  knownNeighbours(areas.get(id) ?? null).at <= kept.heardAt;

/** Which plans are listed: those that are there or those that were removed, and which of them. */
interface Wanted {
  removed?: boolean;
  from?: number;
  count?: number;
}

const away = (removed: boolean) => (removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt));

/** The rows of the list, from saved summaries; `work` says when missing summaries are computed. */
async function rowsWanted({ removed = false, from = 0, count = 1_000_000 }: Wanted, work: 'first' | 'later') {
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
    .where(away(removed))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt), plans.id)
    .limit(count)
    .offset(from);
  const written = await lastWrites(database);
  const listed = [];
  for (const { kept, ...row } of rows) {
    const { id, revision } = row;
    const pending = !holds(kept, id, revision);
    if (pending && work === 'later') workOut(id);
    const { format: _, ...summary } =
      pending && work === 'first'
        ? await summarise(database, id)
        : ((kept?.summary as Summary | undefined) ?? NO_SUMMARY);
    const model = modelById(row.modelId);
    listed.push({
      ...row,
      ...summary,
      pending: pending && work === 'later',
      model: model ? `${model.maker} ${model.name}` : row.modelId,
      updatedAt: row.updatedAt.toISOString(),
      written: written.get(row.id) ?? null,
    });
  }
  return listed;
}

/** All plans, the last changed first, or those that were removed, the last removed first; each worked out at its newest revision. */
export const listPlans = (wanted: Wanted = {}) => rowsWanted(wanted, 'first');

/** Most plans that one page shows. */
const MOST_SHOWN = 1000;

/** How many plans a page shows that was asked for so many. */
export const plansToShow = (asked: string | undefined): number =>
  Math.min(MOST_SHOWN, Math.max(PLANS_AT_ONCE, Math.floor(Number(asked)) || 0));

/** How long a list waits for summaries that are being computed, ms; small plans take some milliseconds each. */
const PATIENCE_MS = 500;

/** One page of the list, from saved summaries. Missing summaries are computed in the background; the list waits a moment for them. */
export async function pageOfPlans(wanted: Wanted) {
  const database = await reading();
  const [all] = await database
    .select({ n: count() })
    .from(plans)
    .where(away(wanted.removed ?? false));
  const total = all!.n;
  const listed = await rowsWanted(wanted, 'later');
  if (!listed.some(({ pending }) => pending)) return { plans: listed, total };
  const patience = new Promise<void>((over) => setTimeout(over, PATIENCE_MS).unref());
  await Promise.race([summaryQueue.ended, patience]);
  return { plans: await rowsWanted(wanted, 'later'), total };
}

// One for the process, however often modules are loaded again.
const shared = globalThis as {
  veridonSummaries?: { waiting: Set<PlanId>; running: boolean; ended: Promise<void> };
};
const summaryQueue = (shared.veridonSummaries ??= {
  waiting: new Set(),
  running: false,
  ended: Promise.resolve(),
});

/** Computes the summary of a plan in the background, after those that wait already. */
function workOut(id: PlanId): void {
  summaryQueue.waiting.add(id);
  if (!summaryQueue.running) summaryQueue.ended = workAllOut();
}

async function workAllOut(): Promise<void> {
  summaryQueue.running = true;
  for (const id of summaryQueue.waiting) {
    summaryQueue.waiting.delete(id);
    try {
      await summarise(await reading(), id);
    } catch (error) {
      // If the data is not available, the next list asks again.
      if (!(error instanceof Problem) && problemOf(error) === undefined) console.error(error);
    }
  }
  summaryQueue.running = false;
}

/** The plans by name, the last changed first, with what is known to be wrong with them. */
export async function plansByName() {
  const database = await reading();
  const rows = await database
    .select({
      id: plans.id,
      name: plans.name,
      modelId: plans.modelId,
      trouble: sql<string | null>`${summaries.summary} ->> 'trouble'`,
    })
    .from(plans)
    .leftJoin(summaries, eq(summaries.planId, plans.id))
    .where(away(false))
    .orderBy(desc(plans.updatedAt), plans.id);
  return rows.map((row) => {
    const model = modelById(row.modelId);
    return { ...row, model: model ? `${model.maker} ${model.name}` : row.modelId };
  });
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
    .where(away(removed))
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
