import { and, desc, eq } from 'drizzle-orm';
import type { JobResult } from '../core/bench';
import { decodeImage, modelOfImage } from '../core/image';
import { modelById } from '../core/models';
import { changedByHand, type ByHandChanges } from '../core/organise';
import type { ChannelId, PlanId, RadioId } from '../core/plan';
import { jobs } from '../db';
import { getCopy, newestCopy } from './copies';
import { reading } from './database';
import { planAt } from './plan-log';
import { getPlan } from './plans';
import { radioOf } from './radios';

/** What was done on the keys of a radio since a plan was written to it, by the newest copy of it that is sealed. */

export interface ByHandAnswer extends ByHandChanges {
  /** The write that it is held against; null where this plan was never written to this radio, or nothing else has been read since. */
  since: { at: string; revision: number } | null;
}

const NOTHING: ByHandAnswer = { since: null, changes: [], all: null, besides: [] };

export async function doneByHand(radioId: RadioId, planId: PlanId): Promise<ByHandAnswer> {
  const radio = await radioOf(radioId);
  const model = modelById(radio.modelId)!;
  const { plan } = await getPlan(planId);
  const database = await reading();
  const [last] = await database
    .select()
    .from(jobs)
    .where(
      and(eq(jobs.radioId, radioId), eq(jobs.planId, planId), eq(jobs.kind, 'write'), eq(jobs.state, 'done')),
    )
    .orderBy(desc(jobs.startedAt))
    .limit(1);
  const writtenCopy = (last?.result as JobResult | null)?.writtenCopyId;
  const newest = await newestCopy(radioId);
  if (!last?.planRevision || !writtenCopy || !newest || newest.id === writtenCopy) return NOTHING;
  const [before, now] = [(await getCopy(writtenCopy)).image, newest.image].map((image) =>
    decodeImage(image, model),
  );
  if (!before!.ok || !now!.ok) return NOTHING;
  const written = await planAt(database, planId, last.planRevision);
  return {
    since: { at: last.startedAt.toISOString(), revision: last.planRevision },
    ...changedByHand(
      written,
      { before: before!.value, radio: now!.value },
      plan,
      modelOfImage(newest.image, model, newest.called),
      ({ list, slot }) =>
        // The same for the same copy and place, so that what is taken twice is there once.
        `ch_${newest.id.slice(3)}l${list}s${slot}` as ChannelId,
    ),
  };
}
