import { and, desc, eq, inArray } from 'drizzle-orm';
import type { JobResult } from '../core/bench';
import { decodeImage, modelOfImage } from '../core/image';
import { modelById } from '../core/models';
import { changedByHand, type ByHandChanges } from '../core/organise';
import type { ChannelId, PlanId, RadioId } from '../core/plan';
import { jobs, type Database } from '../db';
import { getCopy, newestCopy } from './copies';
import { reading } from './database';
import { planAt } from './plan-log';
import { getPlan } from './plans';
import { radioOf } from './radios';

/** What was done on the keys of a radio since a plan was put into it, by the newest copy of it that is sealed. */

export interface ByHandAnswer extends ByHandChanges {
  /** The write that it is compared with; null where something else was put into the radio last, or nothing else has been read since. */
  since: { at: string; revision: number } | null;
}

const NOTHING: ByHandAnswer = { since: null, changes: [], all: null, besides: [] };

/** What Veridon put into a radio last, as far as it was a plan: which, when, and the copy that was sealed after it. */
async function lastPutIn(database: Database, radioId: RadioId) {
  const rows = await database
    .select()
    .from(jobs)
    .where(and(eq(jobs.radioId, radioId), inArray(jobs.kind, ['write', 'restore', 'resume'])))
    .orderBy(desc(jobs.startedAt));
  const written = (row: Row | undefined) => (row?.result as JobResult | null)?.writtenCopyId;
  // What was begun after the last that was proved may be in the radio, or not: nothing is known then.
  const newest = rows.find((row) => !leftAsItWas(row));
  const copyId = written(newest);
  if (!newest || newest.state !== 'done' || copyId === undefined) return undefined;
  // A restore of a copy that was sealed after a write puts in what that write did.
  const source =
    newest.copyId === null
      ? newest
      : rows.find((row) => row.planId !== null && row.state === 'done' && written(row) === newest.copyId);
  if (!source?.planId || source.planRevision === null) return undefined;
  return { planId: source.planId, revision: source.planRevision, at: newest.startedAt, copyId };
}

type Row = typeof jobs.$inferSelect;

/** True of a job that ended before its first byte was sent. */
function leftAsItWas({ state, result, image }: Row): boolean {
  if (state === 'done' || state === 'running') return false;
  if (image === null) return true;
  const { radio, bytesIn = 0 } = (result ?? {}) as JobResult;
  return radio === 'untouched' && bytesIn === 0;
}

export async function doneByHand(radioId: RadioId, planId: PlanId): Promise<ByHandAnswer> {
  const radio = await radioOf(radioId);
  const model = modelById(radio.modelId)!;
  const { plan } = await getPlan(planId);
  const database = await reading();
  const last = await lastPutIn(database, radioId);
  const newest = await newestCopy(radioId);
  if (last?.planId !== planId || !newest || newest.id === last.copyId) return NOTHING;
  const [before, now] = [(await getCopy(last.copyId)).image, newest.image].map((image) =>
    decodeImage(image, model),
  );
  if (!before!.ok || !now!.ok) return NOTHING;
  const written = await planAt(database, planId, last.revision);
  return {
    since: { at: last.at.toISOString(), revision: last.revision },
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
