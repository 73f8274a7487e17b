import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { check, countFindings, type FindingCount } from '../core/check';
import { modelById } from '../core/models';
import { jobs, plans, type Database } from '../db';
import { reading } from './database';
import { areaOf, knownNeighbours, type Area } from './neighbours';
import { asPlan, lastReadable, type Row } from './plan-rows';

/** What the list says of a plan that is worked out of its document. */
interface Summary {
  slots: number;
  channels: number;
  receive: number[];
  findings: FindingCount[];
  /** Why it cannot be opened, in a sentence; null where it can. */
  trouble: string | null;
  /** The newest revision that can be read, where this one cannot. */
  readable: number | null;
}

/** A summary as it is kept: of a revision, and of the repeaters nearby that were known then. */
interface Kept {
  revision: number;
  area: Area | null;
  neighboursAt: number;
  summary: Summary;
}

const MOST_SUMMARIES = 2000;
const summaries = new Map<string, Kept>();

/** Worked out once a revision: a list of plans reads and checks none of those that have not changed. */
async function summaryOf(database: Database, id: string, revision: number): Promise<Summary> {
  const known = summaries.get(id);
  if (known?.revision === revision && knownNeighbours(known.area).at === known.neighboursAt)
    return known.summary;
  const [row] = await database.select().from(plans).where(eq(plans.id, id));
  const kept = row ? await summarise(database, row) : { ...NOTHING, revision };
  const { summary } = kept;
  summaries.delete(id);
  summaries.set(id, kept);
  if (summaries.size > MOST_SUMMARIES) summaries.delete(summaries.keys().next().value!);
  // The list may have many to work out: others are served in between.
  await new Promise((resolve) => setImmediate(resolve));
  return summary;
}

const NO_SUMMARY: Summary = {
  slots: 0,
  channels: 0,
  receive: [],
  findings: [],
  trouble: null,
  readable: null,
};

const NOTHING = { area: null, neighboursAt: 0, summary: NO_SUMMARY };

async function summarise(database: Database, row: Row): Promise<Kept> {
  const { revision } = row;
  const read = asPlan(row.document);
  if (!read.ok) {
    const readable = await lastReadable(database, row);
    return { ...NOTHING, revision, summary: { ...NO_SUMMARY, trouble: read.reason, readable } };
  }
  const plan = read.value;
  const model = modelById(plan.modelId);
  const area = areaOf(plan);
  const neighbours = knownNeighbours(area);
  const summary = {
    slots: model?.slots.count ?? 0,
    channels: plan.channels.length,
    receive: plan.channels.map((channel) => channel.rx),
    findings: model ? countFindings(check(plan, model, undefined, neighbours.list)) : [],
    trouble: model ? null : unknownModel(plan.modelId),
    readable: null,
  };
  return { revision, area, neighboursAt: neighbours.at, summary };
}

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
    })
    .from(plans)
    .where(removed ? isNotNull(plans.removedAt) : isNull(plans.removedAt))
    .orderBy(desc(removed ? plans.removedAt : plans.updatedAt));
  const written = await lastWrites(database);
  const listed = [];
  for (const row of rows) {
    const model = modelById(row.modelId);
    listed.push({
      ...row,
      ...(await summaryOf(database, row.id, row.revision)),
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
