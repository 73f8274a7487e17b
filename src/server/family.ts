import { isNull, sql } from 'drizzle-orm';
import { moveToModel, offersOf, ownDifferences, type BandSides, type Offers } from '../core/organise';
import { makeId, type Plan, type PlanId } from '../core/plan';
import { plans } from '../db';
import { reading } from './database';
import { copyHeard } from './heard';
import { NOBODY } from './once';
import { planAt } from './plan-log';
import { wantModel } from './models';
import { createPlan, getPlan, type KeptPlan } from './plans';
import { Problem } from './problem';

/** Plans that were made of one another: the same channels in several radios, each with its own differences. */

/** Plans made of one that are looked into for one answer. */
const MOST_MADE = 60;

/** Makes a plan for another model of one that there is. Channels keep their ids, so that the two can be compared ever after. */
export async function movePlan(
  id: PlanId,
  wish: { modelId: string; name: string; sides: BandSides; from?: number; bank?: string },
  asker = NOBODY,
): Promise<KeptPlan> {
  const { modelId, name, sides, from, bank } = wish;
  const model = wantModel(modelId);
  for (const [band, list] of Object.entries(sides))
    if (!model.bands.some((one) => one.name === band) || model.lists[list]?.holds !== 'channels')
      throw new Problem(
        422,
        'unknown-side',
        'No such side',
        `The ${model.name} has no list ${list} for a band “${band}”. Nothing was made.`,
      );
  const { plan, revision } = await getPlan(id);
  const { plan: made } = moveToModel(plan, model, sides, {
    ...(from !== undefined && { from }),
    ...(bank && { bank: { id: makeId('zn', crypto.getRandomValues(new Uint8Array(12))), name: bank } }),
  });
  const { format: _format, id: _id, name: _name, modelId: _model, owner, ...rest } = made;
  return createPlan(
    { name, modelId, owner },
    { ...rest, origin: { plan: id, revision }, lookedAt: {} },
    asker,
    {
      move: id,
      ...wish,
    },
    (transaction, made) => copyHeard(transaction, id, made),
  );
}

/** A plan that may have been removed or be unreadable meanwhile; undefined then. */
async function perhaps(id: PlanId): Promise<KeptPlan | undefined> {
  try {
    return await getPlan(id);
  } catch (error) {
    if (error instanceof Problem) return undefined;
    throw error;
  }
}

/** What changed where a plan came from, its own differences, and the plans that were made of it. */
export async function familyOf(id: PlanId) {
  const { plan } = await getPlan(id);
  const database = await reading();
  const rows = await database
    .select({ id: plans.id })
    .from(plans)
    .where(sql`${plans.head} -> 'origin' ->> 'plan' = ${id} and ${isNull(plans.removedAt)}`)
    .limit(MOST_MADE);
  const made = [];
  for (const row of rows) {
    const kept = await perhaps(row.id);
    if (kept)
      made.push({
        ...{ id: row.id, name: kept.plan.name, modelId: kept.plan.modelId },
        differences: ownDifferences(plan, kept.plan).length,
        seen: seenOf(plan, row.id, kept.revision),
        revision: kept.revision,
      });
  }
  const source = plan.origin && (await perhaps(plan.origin.plan));
  if (!plan.origin || !source)
    return { source: null, offers: [], groups: [], all: null, more: 0, own: [], made };
  const seen = Math.min(plan.origin.revision, source.revision);
  return {
    source: {
      ...{ id: plan.origin.plan, name: source.plan.name, modelId: source.plan.modelId },
      ...{ seen, revision: source.revision },
    },
    ...offersOf(await planAt(database, plan.origin.plan, seen), source.plan, plan, wantModel(plan.modelId)),
    own: ownDifferences(source.plan, plan),
    made,
  };
}

/** The revision of a plan made of this one that has been looked at: the first, where none has been. */
const seenOf = ({ lookedAt }: Plan, made: PlanId, newest: number) => Math.min(lookedAt[made] ?? 1, newest);

/** What changed in a plan that was made of this one, offered to this one. */
export async function offersFrom(id: PlanId, from: PlanId): Promise<Offers & { revision: number }> {
  const { plan } = await getPlan(id);
  const { plan: made, revision } = await getPlan(from);
  if (made.origin?.plan !== id)
    throw new Problem(
      422,
      'not-related',
      'Not made of this plan',
      `“${made.name}” was not made of “${plan.name}”: there is nothing to offer.`,
    );
  const base = await planAt(await reading(), from, seenOf(plan, from, revision));
  return { ...offersOf(base, made, plan, wantModel(plan.modelId), { removals: false }), revision };
}
