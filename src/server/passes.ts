import type { Job } from '../core/bench';
import { contentToWrite } from '../core/check';
import { compareImages, encodeImage, restartFor } from '../core/image';
import type { LinkEvent } from '../core/link';
import type { Model } from '../core/models';
import type { Plan } from '../core/plan';
import { Problem } from './problem';
import { getCopy, newestSound, sealCopy } from './copies';
import type { Port } from './ports';
import { seeRadio, setRadioState } from './radios';
import { runLink, type LinkOutcome } from './transport';

/** What a job does with its radio, pass by pass over the link; what is known of the radio when a pass breaks off. */

type PassEnd = Extract<LinkOutcome, { kind: 'failed' }>;
export class PassFailed extends Error {
  constructor(readonly end: PassEnd) {
    super(end.reason);
  }
}

const grouped = (n: number) => n.toLocaleString('en');

export async function passFailed(job: Job, end: PassEnd, stopped: boolean): Promise<Job['state']> {
  const state = stopped ? 'stopped' : 'failed';
  job.result.radio = end.radio;
  const reason = stopped ? 'Stopped.' : end.reason;
  if (end.radio === 'untouched') {
    const before =
      job.phase === 'reading back' ? 'It was written whole, but not read back.' : 'The radio is as it was.';
    job.message = `${reason} ${before}`;
    return state;
  }
  if (end.radio === 'perhaps begun') {
    job.message = `${reason} No part of the write was confirmed: ${job.called} is as it was, or has lost its content. Plug it in again and it says which; if it is half written, restore its sealed copy or write once more.`;
    return state;
  }
  await setRadioState(job.radioId, 'half written');
  job.message =
    end.radio === 'half written'
      ? `${reason} ${job.called} is half written: ${grouped(job.result.bytesIn ?? 0)} bytes were in. It hears and sends nothing until it is written whole. Plug it in again, then restore its sealed copy or write once more.`
      : `${reason} All bytes of ${job.called} were sent, but it has not confirmed them. Read it, or restore its sealed copy.`;
  return state;
}

/** One pass over the link, from `from` bytes of the job's progress on. */
async function pass(
  job: Job,
  port: Port,
  model: Model,
  task: Parameters<typeof runLink>[2],
  phase: Job['phase'],
  message: string,
  signal: AbortSignal,
) {
  job.phase = phase;
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

export async function read(job: Job, port: Port, model: Model, signal: AbortSignal): Promise<void> {
  const end = await pass(job, port, model, { kind: 'read' }, 'reading', `Reading ${job.called}.`, signal);
  if (end.ident.halfWritten) {
    job.message = `${job.called} was read, but it is half written: nothing of it was kept. Restore its sealed copy.`;
    return;
  }
  job.result.copyId = await sealCopy(job.radioId, model, end.image!, 'read');
  job.message = `${job.called} was read; its content is kept as a sealed copy.`;
}

async function writeAndReadBack(
  job: Job,
  port: Port,
  model: Model,
  { image, serial }: { image: Uint8Array; serial: string | null },
  signal: AbortSignal,
): Promise<void> {
  await pass(job, port, model, { kind: 'write', image, serial }, 'writing', `Writing ${job.called}.`, signal);
  await setRadioState(job.radioId, 'whole');
  const back = await pass(
    job,
    port,
    model,
    { kind: 'read' },
    'reading back',
    `Reading back ${job.called}.`,
    signal,
  );
  const comparison = compareImages(image, back.image!, model);
  job.result.comparison = comparison;
  // Judged before it is sealed: a copy that is not what was sent must never be the one that a radio is rebuilt from.
  if (comparison.different.length > 0)
    throw new Problem(
      500,
      'not-alike',
      'Read back otherwise',
      `${grouped(comparison.different.length)} bytes of ${job.called} were read back otherwise than they were sent, the first at ${comparison.different[0]}. Restore its sealed copy.`,
    );
  await sealCopy(job.radioId, model, back.image!, 'after write');
}

export async function write(
  plan: Plan,
  job: Job,
  port: Port,
  model: Model,
  signal: AbortSignal,
): Promise<void> {
  const content = contentToWrite(plan, model);
  const before = await pass(
    job,
    port,
    model,
    { kind: 'read' },
    'reading',
    `Reading ${job.called} first: its own bytes must survive.`,
    signal,
  );
  let base = before.image!;
  if (before.ident.halfWritten) {
    const copy = await newestSound(job.radioId, model);
    if (!copy)
      throw new Problem(
        422,
        'no-copy',
        'No sealed copy',
        `${job.called} is half written and there is no sealed copy of it to build on.`,
      );
    base = copy.image;
  } else job.result.copyId = await sealCopy(job.radioId, model, base, 'before write');
  const image = encodeImage(content, base, model);
  await writeAndReadBack(
    job,
    port,
    model,
    {
      image,
      serial: before.ident.serial,
    },
    signal,
  );
  job.result.channels = content.channels.length;
  job.result.heldBack = content.heldBack.length;
  job.message = `${job.called} holds “${plan.name}”: ${content.channels.length} channels, and all ${grouped(job.result.comparison!.compared)} bytes read back as they were sent.${restarting(restartFor(base, image, model))}`;
}

/** What is said of settings that want a restart; nothing where there are none. */
const restarting = (labels: readonly string[]) =>
  labels.length === 0 ? '' : ` Switch it off and on: ${labels.join(', ')} changed.`;

export async function restore(
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
    'reading',
    `Reading ${job.called} first: what it holds now is kept too.`,
    signal,
  );
  if (!before.ident.halfWritten) await sealCopy(job.radioId, model, before.image!, 'before write');
  await writeAndReadBack(job, port, model, { image: copy.image, serial: before.ident.serial }, signal);
  job.message = `${job.called} is as it was when the sealed copy was taken: all ${grouped(job.result.comparison!.compared)} bytes agree.`;
}
