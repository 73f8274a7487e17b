import { eq } from 'drizzle-orm';
import type { Batch, BatchRow, SeveralRequest } from '../core/bench';
import { modelById } from '../core/models';
import { batches, plans } from '../db';
import { reading, writing } from './database';
import { instanceId, living } from './instance';
import { getJob, startJob } from './jobs';
import { NOBODY, once } from './once';
import { ownIdTwice } from './own-ids';
import { getView } from './plans';
import { notFound, Problem } from './problem';
import { calledOf, radioOf } from './radios';
import { saveUnitValues, wantUnitValues } from './unit-values';

/** One plan to several radios, in a row or at once: one that fails does not stop the rest, and what came of each is kept. */

/** How often a job is looked at, ms. */
const LOOK_MS = 150;

const shared = globalThis as { veridonBatches?: Map<string, BatchRow[]> };
const running: Map<string, BatchRow[]> = (shared.veridonBatches ??= new Map<string, BatchRow[]>());

/** Begins, and answers at once; what is each unit's own is kept for the next time too. */
export async function startSeveral(request: SeveralRequest, asker = NOBODY): Promise<Batch> {
  const { plan, revision } = await getView(request.planId);
  if (revision !== request.planRevision)
    throw new Problem(
      409,
      'plan-changed',
      'The plan has changed',
      `You agreed to revision ${request.planRevision}; the plan is at ${revision}. Look at what will change and write again.`,
    );
  for (const { radioId, own } of request.radios) await wantUnitValues(radioId, own);
  const twice = await ownIdTwice(plan, request.radios);
  if (twice)
    throw new Problem(
      422,
      'own-id-twice',
      'Two radios would have one own ID',
      `${twice.called.join(' and ')} would both have the own ID ${twice.ownId}: nobody could tell the two apart, and a network takes them for one. Give each one of its own. Nothing was written.`,
    );
  const database = await writing();
  const rows = await Promise.all(
    request.radios.map(async ({ radioId }): Promise<BatchRow> => {
      const radio = await radioOf(radioId);
      const model = modelById(radio.modelId);
      return {
        radioId,
        called: calledOf(radio),
        model: model ? `${model.maker} ${model.name}` : radio.modelId,
        ...{ state: 'waiting', message: 'Waits for its turn.', jobId: null, proved: 0 },
      };
    }),
  );
  const id = `bt_${Date.now().toString(36)}${Math.floor(Math.random() * 1e6).toString(36)}`;
  const batch = {
    id,
    planName: plan.name,
    planRevision: revision,
    at: new Date().toISOString(),
    running: true,
    rows,
  };
  const before = await database.transaction((transaction) =>
    once<string | null, { id: string }>(
      transaction,
      asker,
      request,
      async () => {
        for (const { radioId, own } of request.radios) await saveUnitValues(transaction, radioId, own);
        await transaction
          .insert(batches)
          .values({ id, planId: plan.id, planRevision: revision, rows, instance: instanceId });
        return { answer: null, receipt: { id } };
      },
      (receipt) => Promise.resolve(receipt.id),
    ),
  );
  // Sent again: it is the one that was begun.
  if (before !== null) return getSeveral(before);
  running.set(id, rows);
  carryOut(id, request, rows)
    .catch((error: unknown) => console.error(error))
    .finally(() => running.delete(id));
  return { ...batch, rows: rows.map((row) => ({ ...row })) };
}

async function carryOut(id: string, request: SeveralRequest, rows: BatchRow[]): Promise<void> {
  const keep = async () => {
    const database = await writing();
    await database.update(batches).set({ rows }).where(eq(batches.id, id));
  };
  const one = async (at: number) => {
    const row = rows[at]!;
    const { own } = request.radios[at]!;
    const { planId, planRevision } = request;
    try {
      const started = await startJob({ kind: 'write', radioId: row.radioId, planId, planRevision, own });
      Object.assign(row, { state: 'running', jobId: started.id, message: started.message });
      for (;;) {
        const job = await getJob(started.id);
        row.message = job.message;
        if (job.state !== 'running') {
          row.state = job.state === 'done' ? 'done' : 'failed';
          row.proved = job.state === 'done' ? (job.result.comparison?.compared ?? 0) : 0;
          break;
        }
        await new Promise((done) => setTimeout(done, LOOK_MS));
      }
    } catch (error) {
      // Its own affair: whatever keeps this one from being written, the rest go on.
      Object.assign(row, {
        state: 'failed',
        message: error instanceof Problem ? error.detail : 'Veridon made a mistake here; it was not written.',
      });
      if (!(error instanceof Problem)) console.error(error);
    }
    await keep();
  };
  if (request.together) await Promise.all(rows.map((_, at) => one(at)));
  else for (const at of rows.keys()) await one(at);
}

/** What came of each so far, of a plan that was put away too. Those that were waiting or under way when their Veridon was stopped say so. */
export async function getSeveral(id: string): Promise<Batch> {
  const database = await reading();
  const [found] = await database
    .select({ batch: batches, name: plans.name })
    .from(batches)
    .innerJoin(plans, eq(plans.id, batches.planId))
    .where(eq(batches.id, id));
  if (!found) throw notFound(`report ${id}`);
  const { batch, name } = found;
  const rows = running.get(id) ?? batch.rows;
  const open = rows.some(({ state }) => state === 'waiting' || state === 'running');
  // Another process beside this one on a database server may be at it.
  const atIt =
    running.has(id) ||
    (open && batch.instance !== instanceId && (await living(database)).includes(batch.instance ?? ''));
  const stopped = (row: BatchRow): BatchRow =>
    atIt || row.state === 'done' || row.state === 'failed'
      ? { ...row }
      : {
          ...row,
          state: 'failed',
          message:
            'Veridon was stopped before it was its turn, or while it was written. Look at it on the Bench.',
        };
  return {
    ...{ id, planName: name, planRevision: batch.planRevision },
    ...{ at: batch.at.toISOString(), running: atIt, rows: rows.map(stopped) },
  };
}
