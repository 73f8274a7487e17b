import { and, desc, eq, isNull, notInArray, or } from 'drizzle-orm';
import type { Job, JobRequest, JobResult } from '../core/bench';
import { contentToWrite } from '../core/check';
import { bytesOf, peopleBytes, peopleMemoryOf, withUnitValues } from '../core/image';
import { modelById, type Model } from '../core/models';
import type { Plan, PlanId, RadioId } from '../core/plan';
import { jobs, openDatabase, radios, type Database } from '../db';
import { onAnnouncement, publish } from './bus';
import { reading, writing } from './database';
import { instanceId, living } from './instance';
import { NOBODY, once, type Asker } from './once';
import { isTaken, radioBusy, savingProgress, wantFree } from './job-instances';
import { getPlan, getView } from './plans';
import { notFound, Problem } from './problem';
import { brokenOff, wantFit, wantWritable } from './may-write';
import { PassFailed, passFailed, read, restore, resume, write, writePeople } from './passes';
import { getCopy } from './copies';
import { freePort, holdPort, portWith, type Port } from './ports';
import { calledOf, radioOf } from './radios';
import { wantUnitValues } from './unit-values';

interface Running {
  job: Job;
  stop: AbortController;
}

const kept = globalThis as { veridonJobs?: Map<string, Running> };
const running = (kept.veridonJobs ??= new Map<string, Running>());

onAnnouncement('stop job', ({ id }) => running.get(id)?.stop.abort());

/** Jobs that are being started, by the key of the change: one that is sent again meanwhile waits for the same. */
const starting = new Map<string, Promise<Job>>();

/** Starts a job and answers at once with its first state; sent again with the same key it is the same job. */
export async function startJob(request: JobRequest, asker = NOBODY): Promise<Job> {
  const { key } = asker;
  if (key === null) return begin(request, asker);
  const under = starting.get(key) ?? begin(request, asker).finally(() => starting.delete(key));
  starting.set(key, under);
  return under;
}

/** Refuses a copy of another unit, unless it is asked for as that, and of another model. */
function wantForUnit(
  copy: { radioId: RadioId; modelId: string; called: string },
  request: Extract<JobRequest, { kind: 'restore' }>,
  model: Model,
): void {
  if (copy.radioId === request.radioId) return;
  if (copy.modelId !== model.id)
    throw new Problem(
      422,
      'other-unit',
      'This copy is of another model',
      `The copy was read from ${copy.called}, which is no ${model.name}. Make a plan of it and write that.`,
    );
  if (!request.ofAnother)
    throw new Problem(
      422,
      'other-unit',
      'This copy is of another radio',
      `The copy was read from ${copy.called}. It holds that unit's calibration and is written to no other as it is; what is not that unit's own can be.`,
    );
}

/** The job that a key started before, or undefined. */
async function begun(request: JobRequest, asker: Asker): Promise<Job | undefined> {
  const database = await reading();
  const id = await database
    .transaction((transaction) =>
      once<string | undefined, { id: string }>(
        transaction,
        asker,
        request,
        // Nothing is known of it: the key must not be kept before the job is.
        () => Promise.reject(new NotBegun()),
        async (receipt) => receipt.id,
      ),
    )
    .catch((error: unknown) => {
      if (error instanceof NotBegun) return undefined;
      throw error;
    });
  // Looked up outside: within, it would wait for the very transaction that waits for it.
  return id === undefined ? undefined : getJob(id);
}
class NotBegun extends Error {}

async function begin(request: JobRequest, asker: Asker): Promise<Job> {
  const database = await writing();
  const before = asker.key === null ? undefined : await begun(request, asker);
  if (before) return before;
  await wantFree(database, request.radioId);
  const found = await portWith(request.radioId);
  // A write takes the values of the unit; what the plan sets is for units that have none.
  const values = request.kind === 'write' ? { ...(await radioOf(request.radioId)).own, ...request.own } : {};
  await wantUnitValues(request.radioId, values);
  const plan =
    request.kind === 'write'
      ? await getView(request.planId)
      : request.kind === 'people'
        ? await getPlan(request.choice.planId)
        : undefined;
  if (plan && request.kind === 'write' && plan.revision !== request.planRevision)
    throw new Problem(
      409,
      'plan-changed',
      'The plan has changed',
      `You agreed to revision ${request.planRevision}; the plan is at ${plan.revision}. Look at what will change and write again.`,
    );
  if (
    plan &&
    request.kind === 'write' &&
    plan.plan.modelId !== found.model.id &&
    contentToWrite(plan.plan, found.model).channels.length === 0
  )
    throw new Problem(
      422,
      'nothing-to-write',
      'Nothing would be written',
      `No channel of this plan can be held by a ${found.model.name}.`,
    );
  const copy = request.kind === 'restore' ? await getCopy(request.copyId) : undefined;
  if (copy && request.kind === 'restore') wantForUnit(copy, request, found.model);
  if (request.kind === 'people') {
    wantFit(found);
    if (!peopleMemoryOf(found.model))
      throw new Problem(
        422,
        'no-people-memory',
        'It has no memory for people',
        `A ${found.model.name} has no memory of its own for people. Where it holds them among its talkgroups, put them into a plan and write that.`,
      );
  } else if (request.kind !== 'read') await wantWritable(found);
  const broken = request.kind === 'resume' ? await brokenOff(request.radioId) : undefined;
  if (request.kind === 'resume' && !broken)
    throw new Problem(
      409,
      'nothing-to-resume',
      'Nothing broke off',
      `No write to ${found.called} broke off. Write the plan, or restore a sealed copy.`,
    );
  if (!(await holdPort(found.port))) throw radioBusy(found.called);

  const id = `jb_${Date.now().toString(36)}${Math.floor(Math.random() * 1e6).toString(36)}`;
  const job: Job = {
    id,
    kind: request.kind,
    radioId: request.radioId,
    called: found.called,
    modelId: found.model.id,
    planId: request.kind === 'write' ? request.planId : ((broken?.planId ?? null) as PlanId | null),
    state: 'running',
    phase: 'getting ready',
    message: 'Getting ready.',
    bytes: 0,
    // Of people it is known once they are gathered.
    of: bytesOf(found.model) * { read: 1, write: 3, restore: 3, resume: 2, people: 0 }[request.kind],
    secondsLeft: null,
    startedAt: new Date().toISOString(),
    result: {},
  };
  const stop = new AbortController();
  running.set(id, { job, stop });
  try {
    await database.transaction((transaction) =>
      once<void, { id: string }>(
        transaction,
        asker,
        request,
        async () => {
          // A job of this process that has ended, and whose end could not be saved, must not keep the radio busy.
          const underWay = [...running.values()].flatMap(({ job: one }) =>
            one.state === 'running' ? [one.id] : [],
          );
          await transaction
            .update(jobs)
            .set({ state: 'failed', message: 'How this job ended could not be saved.', endedAt: new Date() })
            .where(
              and(
                eq(jobs.radioId, request.radioId),
                eq(jobs.state, 'running'),
                eq(jobs.instance, instanceId),
                notInArray(jobs.id, underWay),
              ),
            );
          await transaction.insert(jobs).values({
            id,
            kind: request.kind,
            radioId: request.radioId,
            modelId: found.model.id,
            planId: job.planId,
            // What goes on is still the write of that plan, or the restore of that copy.
            planRevision: request.kind === 'write' ? request.planRevision : (broken?.planRevision ?? null),
            copyId: copy?.id ?? broken?.copyId ?? null,
            state: 'running',
            message: job.message,
            instance: instanceId,
          });
          return { answer: undefined, receipt: { id } };
        },
        // Another process has started it in the meantime.
        () => Promise.reject(radioBusy(found.called)),
      ),
    );
  } catch (error) {
    running.delete(id);
    freePort(found.port);
    throw isTaken(error) ? radioBusy(found.called) : error;
  }
  carryOut(
    request,
    plan && withUnitValues(plan.plan, found.model, values),
    job,
    found.port,
    found.model,
    stop.signal,
  ).catch((error: unknown) => {
    // The end itself could not be written down: the port must be free all the same.
    console.error(error);
    freePort(found.port);
    job.state = 'failed';
  });
  return { ...job };
}

/** `plan` is the one that the person agreed to; what is typed meanwhile is for the next write. */
async function carryOut(
  request: JobRequest,
  plan: Plan | undefined,
  job: Job,
  port: Port,
  model: Model,
  signal: AbortSignal,
): Promise<void> {
  // The end is shown only when the port is free again and the row is written, so that what follows an end can rely on it.
  let state: Job['state'] = 'done';
  const endSaving = savingProgress(job);
  try {
    if (request.kind === 'read') await read(job, port, model, signal);
    else if (request.kind === 'write') await write(plan!, job, port, model, signal, request.seenCopyId);
    else if (request.kind === 'resume') await resume(job, port, model, signal);
    else if (request.kind === 'people') await writePeople(request.choice, plan!, job, port, model, signal);
    else await restore(request.copyId, job, port, model, signal);
  } catch (error) {
    if (error instanceof PassFailed) state = await passFailed(job, error.end, signal.aborted);
    else {
      state = 'failed';
      job.message =
        error instanceof Problem
          ? error.detail
          : 'Veridon made a mistake here; the radio was not written further.';
      if (!(error instanceof Problem)) console.error(error);
    }
  }
  endSaving();
  const database = await writing();
  await database
    .update(jobs)
    .set({ state, message: job.message, result: job.result, endedAt: new Date() })
    .where(eq(jobs.id, job.id));
  freePort(port);
  job.secondsLeft = null;
  job.phase = 'ended';
  job.state = state;
  setTimeout(() => running.delete(job.id), 60_000).unref();
}

/** A job under way, or as its row keeps it. */
export async function getJob(id: string): Promise<Job> {
  const live = running.get(id);
  if (live) return { ...live.job };
  const database = await reading();
  const [row] = await jobRows(database).where(eq(jobs.id, id));
  if (!row) throw notFound(`job ${id}`);
  return fromRow(row);
}

const jobRows = (database: Database) =>
  database
    .select({ job: jobs, serial: radios.serial })
    .from(jobs)
    .innerJoin(radios, eq(jobs.radioId, radios.id));

function fromRow({ job: row, serial }: { job: typeof jobs.$inferSelect; serial: string | null }): Job {
  const model = modelById(row.modelId);
  const { people } = (row.result ?? {}) as JobResult;
  const of = !model ? 0 : row.kind === 'people' ? (people ? peopleBytes(people, model) : 0) : bytesOf(model);
  const progress = row.state === 'running' ? row.progress : null;
  return {
    id: row.id,
    kind: row.kind,
    radioId: row.radioId,
    called: calledOf({ serial, modelId: row.modelId }),
    modelId: row.modelId,
    planId: row.planId,
    state: row.state,
    phase: row.state === 'running' ? (progress?.phase ?? 'getting ready') : 'ended',
    message: row.message,
    bytes: row.state === 'done' ? of : (progress?.bytes ?? 0),
    of: progress?.of ?? of,
    secondsLeft: progress?.secondsLeft ?? null,
    startedAt: row.startedAt.toISOString(),
    result: (row.result ?? {}) as JobResult,
  };
}

/** Jobs, newest first; those under way with their progress. */
export async function listJobs(limit = 20): Promise<Job[]> {
  const database = await reading();
  const rows = await jobRows(database).orderBy(desc(jobs.startedAt)).limit(limit);
  return rows.map((row) => ({ ...(running.get(row.job.id)?.job ?? fromRow(row)) }));
}

/**
 * Stops a job; what state that leaves the radio in is said when it has ended. Asked for again, of one that was stopped, it
 * answers the job as it stands.
 */
export async function stopJob(id: string): Promise<Job> {
  const live = running.get(id);
  const known = live?.job ?? (await getJob(id));
  if (known.state === 'stopped') return { ...known };
  if (!live && known.state === 'running') {
    // Another instance carries it out.
    await publish({ topic: 'stop job', id });
    return { ...known };
  }
  if (!live || live.job.state !== 'running')
    throw new Problem(409, 'not-running', 'This job is not running', 'It has already ended.');
  live.stop.abort();
  return { ...live.job };
}

/** Jobs under way whose process is dead: what is known of their radios is said. Those of living processes are left alone. */
/** What a write may have left that Veridon did not live to see the end of, and what to do. */
const stoppedOf = (called: string, model: Model | undefined) =>
  model?.link?.kind === 'card'
    ? `the card of ${called}. It may be copied in part: the radio takes nothing of it then. Put it into the reader; if so, go on with the write.`
    : `${called}. It may be half written: plug it in; if so, go on with the write, or restore its sealed copy.`;

export async function closeLostJobs(): Promise<void> {
  const database = await writing();
  // The lock of the data directory lets one process in at a time: every other one is dead, however lately it showed itself.
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const lost = await jobRows(database).where(
    and(eq(jobs.state, 'running'), or(isNull(jobs.instance), notInArray(jobs.instance, alive))),
  );
  for (const { job: row, serial } of lost) {
    const harmless = row.kind === 'read';
    const message =
      row.kind === 'people'
        ? `Veridon was stopped while writing people into ${calledOf({ serial, modelId: row.modelId })}. They may be there in part: it shows no names then, and its plan is as it was. Write them again: it goes on where it was.`
        : harmless
          ? 'Veridon was stopped while reading. The radio is as it was.'
          : `Veridon was stopped while writing ${stoppedOf(calledOf({ serial, modelId: row.modelId }), modelById(row.modelId))}`;
    await database
      .update(jobs)
      .set({ state: 'failed', message, endedAt: new Date() })
      .where(and(eq(jobs.id, row.id), eq(jobs.state, 'running')));
  }
}
