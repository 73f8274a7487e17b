import { and, desc, eq, isNull, notInArray, or } from 'drizzle-orm';
import type { Job, JobRequest, JobResult } from '../core/bench';
import { contentToWrite } from '../core/check';
import { compareImages, encodeImage } from '../core/image';
import type { LinkEvent } from '../core/link';
import { modelById, type Model } from '../core/models';
import type { Plan } from '../core/plan';
import { jobs, openDatabase } from '../db';
import { reading, writing } from './database';
import { instanceId, living } from './instance';
import { NOBODY, once, type Asker } from './once';
import { getPlan } from './plans';
import { notFound, Problem } from './problem';
import {
  freePort,
  getCopy,
  newestSound,
  portWith,
  sealCopy,
  seeRadio,
  setRadioState,
  takePort,
  type Port,
} from './radios';
import { runLink, type LinkOutcome } from './transport';

interface Running {
  job: Job;
  stop: AbortController;
}

const kept = globalThis as { veridonJobs?: Map<string, Running> };
const running = (kept.veridonJobs ??= new Map());

type PassEnd = Extract<LinkOutcome, { kind: 'failed' }>;
class PassFailed extends Error {
  constructor(readonly end: PassEnd) {
    super(end.reason);
  }
}

const busy = (serial: string) =>
  new Problem(409, 'port-busy', 'The radio is busy', `A job is already under way with ${serial}.`);

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

/** The job that a key started before, or undefined. */
async function begun(request: JobRequest, asker: Asker): Promise<Job | undefined> {
  const database = await reading();
  return database
    .transaction((transaction) =>
      once<Job | undefined, { id: string }>(
        transaction,
        asker,
        request,
        // Nothing is known of it: the key must not be kept before the job is.
        () => Promise.reject(new NotBegun()),
        ({ id }) => getJob(id),
      ),
    )
    .catch((error: unknown) => {
      if (error instanceof NotBegun) return undefined;
      throw error;
    });
}
class NotBegun extends Error {}

async function begin(request: JobRequest, asker: Asker): Promise<Job> {
  const database = await writing();
  const before = asker.key === null ? undefined : await begun(request, asker);
  if (before) return before;
  const found = await portWith(request.serial);
  const plan = request.kind === 'write' ? await getPlan(request.planId) : undefined;
  if (plan && request.kind === 'write' && plan.revision !== request.planRevision)
    throw new Problem(
      409,
      'plan-changed',
      'The plan has changed',
      `You agreed to revision ${request.planRevision}; the plan is at ${plan.revision}. Look at what will change and write again.`,
    );
  if (
    plan &&
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
  if (copy && copy.serial !== request.serial)
    throw new Problem(
      422,
      'other-unit',
      'This copy is of another radio',
      `The copy was read from ${copy.serial}. It holds that unit's calibration and is written to no other.`,
    );
  if (!takePort(found.port)) throw busy(request.serial);

  const id = `jb_${Date.now().toString(36)}${Math.floor(Math.random() * 1e6).toString(36)}`;
  const job: Job = {
    id,
    kind: request.kind,
    serial: request.serial,
    modelId: found.model.id,
    planId: request.kind === 'write' ? request.planId : null,
    state: 'running',
    message: 'Getting ready.',
    bytes: 0,
    of: found.model.memory.bytes * { read: 1, write: 3, restore: 3 }[request.kind],
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
          await transaction.insert(jobs).values({
            id,
            kind: request.kind,
            serial: request.serial,
            modelId: found.model.id,
            planId: job.planId,
            planRevision: request.kind === 'write' ? request.planRevision : null,
            copyId: copy?.id ?? null,
            state: 'running',
            message: job.message,
            instance: instanceId,
          });
          return { answer: undefined, receipt: { id } };
        },
        // Another process has started it in the meantime.
        () => Promise.reject(busy(request.serial)),
      ),
    );
  } catch (error) {
    running.delete(id);
    freePort(found.port);
    throw error;
  }
  carryOut(request, plan?.plan, job, found.port, found.model, stop.signal).catch((error: unknown) => {
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
  try {
    if (request.kind === 'read') await read(job, port, model, signal);
    else if (request.kind === 'write') await write(plan!, job, port, model, signal);
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
  const database = await writing();
  await database
    .update(jobs)
    .set({ state, message: job.message, result: job.result, endedAt: new Date() })
    .where(eq(jobs.id, job.id));
  freePort(port);
  job.secondsLeft = null;
  job.state = state;
  setTimeout(() => running.delete(job.id), 60_000).unref();
}

const grouped = (n: number) => n.toLocaleString('en');

async function passFailed(job: Job, end: PassEnd, stopped: boolean): Promise<Job['state']> {
  const state = stopped ? 'stopped' : 'failed';
  job.result.radio = end.radio;
  const reason = stopped ? 'Stopped.' : end.reason;
  if (end.radio === 'untouched') {
    const before = job.message.startsWith('Reading back')
      ? 'It was written whole, but not read back.'
      : 'The radio is as it was.';
    job.message = `${reason} ${before}`;
    return state;
  }
  if (end.radio === 'perhaps begun') {
    job.message = `${reason} No part of the write was confirmed: ${job.serial} is as it was, or has lost its content. Plug it in again and it says which; if it is half written, restore its sealed copy or write once more.`;
    return state;
  }
  await setRadioState(job.serial, 'half written');
  job.message =
    end.radio === 'half written'
      ? `${reason} ${job.serial} is half written: ${grouped(job.result.bytesIn ?? 0)} bytes were in. It hears and sends nothing until it is written whole. Plug it in again, then restore its sealed copy or write once more.`
      : `${reason} All bytes of ${job.serial} were sent, but it has not confirmed them. Read it, or restore its sealed copy.`;
  return state;
}

/** One pass over the link, from `from` bytes of the job's progress on. */
async function pass(
  job: Job,
  port: Port,
  model: Model,
  task: Parameters<typeof runLink>[2],
  message: string,
  signal: AbortSignal,
) {
  job.message = message;
  const from = job.bytes;
  const began = performance.now();
  const hear = (event: LinkEvent) => {
    if (event.kind !== 'progress') return;
    job.bytes = from + event.bytes;
    if (task.kind === 'write') job.result.bytesIn = event.bytes;
    const rate = event.bytes / (performance.now() - began);
    job.secondsLeft = Math.ceil((job.of - job.bytes) / rate / 1000);
  };
  const end = await runLink(port.tcp, model, task, hear, signal);
  if (end.kind === 'failed') throw new PassFailed(end);
  await seeRadio(end.ident, model);
  return end;
}

async function read(job: Job, port: Port, model: Model, signal: AbortSignal): Promise<void> {
  const end = await pass(job, port, model, { kind: 'read' }, `Reading ${job.serial}.`, signal);
  if (end.ident.halfWritten) {
    job.message = `${job.serial} was read, but it is half written: nothing of it was kept. Restore its sealed copy.`;
    return;
  }
  job.result.copyId = await sealCopy(job.serial, model, end.image!, 'read');
  job.message = `${job.serial} was read; its content is kept as a sealed copy.`;
}

async function writeAndReadBack(
  job: Job,
  port: Port,
  model: Model,
  image: Uint8Array,
  signal: AbortSignal,
): Promise<void> {
  await pass(
    job,
    port,
    model,
    { kind: 'write', image, serial: job.serial },
    `Writing ${job.serial}.`,
    signal,
  );
  await setRadioState(job.serial, 'whole');
  const back = await pass(job, port, model, { kind: 'read' }, `Reading back ${job.serial}.`, signal);
  const comparison = compareImages(image, back.image!, model);
  job.result.comparison = comparison;
  // Judged before it is sealed: a copy that is not what was sent must never be the one that a radio is rebuilt from.
  if (comparison.different.length > 0)
    throw new Problem(
      500,
      'not-alike',
      'Read back otherwise',
      `${grouped(comparison.different.length)} bytes of ${job.serial} were read back otherwise than they were sent, the first at ${comparison.different[0]}. Restore its sealed copy.`,
    );
  await sealCopy(job.serial, model, back.image!, 'after write');
}

async function write(plan: Plan, job: Job, port: Port, model: Model, signal: AbortSignal): Promise<void> {
  const content = contentToWrite(plan, model);
  const before = await pass(
    job,
    port,
    model,
    { kind: 'read' },
    `Reading ${job.serial} first: its own bytes must survive.`,
    signal,
  );
  let base = before.image!;
  if (before.ident.halfWritten) {
    const copy = await newestSound(job.serial, model);
    if (!copy)
      throw new Problem(
        422,
        'no-copy',
        'No sealed copy',
        `${job.serial} is half written and there is no sealed copy of it to build on.`,
      );
    base = copy.image;
  } else job.result.copyId = await sealCopy(job.serial, model, base, 'before write');
  await writeAndReadBack(
    job,
    port,
    model,
    encodeImage({ channels: content.channels, settings: {} }, base, model),
    signal,
  );
  job.result.channels = content.channels.length;
  job.result.heldBack = content.heldBack.length;
  job.message = `${job.serial} holds “${plan.name}”: ${content.channels.length} channels, and all ${grouped(job.result.comparison!.compared)} bytes read back as they were sent.`;
}

async function restore(
  copyId: string,
  job: Job,
  port: Port,
  model: Model,
  signal: AbortSignal,
): Promise<void> {
  const copy = await getCopy(copyId);
  const before = await pass(
    job,
    port,
    model,
    { kind: 'read' },
    `Reading ${job.serial} first: what it holds now is kept too.`,
    signal,
  );
  if (!before.ident.halfWritten) await sealCopy(job.serial, model, before.image!, 'before write');
  await writeAndReadBack(job, port, model, copy.image, signal);
  job.message = `${job.serial} is as it was when the sealed copy was taken: all ${grouped(job.result.comparison!.compared)} bytes agree.`;
}

/** A job under way, or as its row keeps it. */
export async function getJob(id: string): Promise<Job> {
  const live = running.get(id);
  if (live) return { ...live.job };
  const database = await reading();
  const [row] = await database.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw notFound(`job ${id}`);
  return fromRow(row);
}

function fromRow(row: typeof jobs.$inferSelect): Job {
  const of = modelById(row.modelId)?.memory.bytes ?? 0;
  return {
    id: row.id,
    kind: row.kind,
    serial: row.serial,
    modelId: row.modelId,
    planId: row.planId,
    state: row.state,
    message: row.message,
    bytes: row.state === 'done' ? of : 0,
    of,
    secondsLeft: null,
    startedAt: row.startedAt.toISOString(),
    result: (row.result ?? {}) as JobResult,
  };
}

/** Jobs, newest first; those under way with their progress. */
export async function listJobs(limit = 20): Promise<Job[]> {
  const database = await reading();
  const rows = await database.select().from(jobs).orderBy(desc(jobs.startedAt)).limit(limit);
  return rows.map((row) => ({ ...(running.get(row.id)?.job ?? fromRow(row)) }));
}

/** Stops a job; what state that leaves the radio in is said when it has ended. */
export async function stopJob(id: string): Promise<Job> {
  const live = running.get(id);
  if (!live || live.job.state !== 'running')
    throw new Problem(409, 'not-running', 'This job is not running', 'It has already ended.');
  live.stop.abort();
  return { ...live.job };
}

/** Jobs under way whose process is dead: what is known of their radios is said. Those of living processes are left alone. */
export async function closeLostJobs(): Promise<void> {
  const database = await writing();
  // The lock of the data directory lets one process in at a time: every other one is dead, however lately it showed itself.
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const lost = await database
    .select()
    .from(jobs)
    .where(and(eq(jobs.state, 'running'), or(isNull(jobs.instance), notInArray(jobs.instance, alive))));
  for (const row of lost) {
    const harmless = row.kind === 'read';
    const message = harmless
      ? 'Veridon was stopped while reading. The radio is as it was.'
      : `Veridon was stopped while writing ${row.serial}. It may be half written: plug it in; if so, restore its sealed copy or write once more.`;
    await database
      .update(jobs)
      .set({ state: 'failed', message, endedAt: new Date() })
      .where(and(eq(jobs.id, row.id), eq(jobs.state, 'running')));
  }
}
