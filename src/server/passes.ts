import { eq } from 'drizzle-orm';
import type { Job, PeopleChoice } from '../core/bench';
import { contentToWrite, type WriteContent } from '../core/check';
import { compareImages, encodeImage, imageForAnother, modelOfImage, restartFor } from '../core/image';
import { modelById, type Model } from '../core/models';
import type { LinkEvent } from '../core/link';
import type { Plan } from '../core/plan';
import { jobs } from '../db';
import { writing } from './database';
import { brokenOff } from './may-write';
import { Problem } from './problem';
import { peopleForRadio } from './chosen-people';
import { getCopy, newestSound, sealCopy } from './copies';
import { followPort, type Port } from './ports';
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
  if (job.kind === 'people') {
    job.message = `${reason} ${peopleLeft(job, end.radio)}`;
    return state;
  }
  if (end.radio === 'untouched') {
    const before =
      job.phase === 'reading back' ? 'It was written whole, but not read back.' : 'The radio is as it was.';
    job.message = `${reason} ${before}`;
    return state;
  }
  if (end.radio === 'perhaps begun') {
    job.message = `${reason} No part of the write was confirmed: ${job.called} is as it was, or has lost its content. Plug it in again and it says which; if it is half written, go on with the write, or restore its sealed copy.`;
    return state;
  }
  await setRadioState(job.radioId, 'half written');
  if (modelById(job.modelId)?.link?.kind === 'card') {
    job.message = `${reason} The card is copied in part: ${job.called} takes nothing of it, and is as it was. Put the card into the reader again, then go on with the write.`;
    return state;
  }
  job.message =
    end.radio === 'half written'
      ? `${reason} ${job.called} is half written: ${grouped(job.result.bytesIn ?? 0)} bytes were in. It hears and sends nothing until it is written whole. Plug it in again, then go on with the write, or restore its sealed copy.`
      : `${reason} All bytes of ${job.called} were sent, but it has not confirmed them. Read it, or restore its sealed copy.`;
  return state;
}

/** What a write of people that broke off left in the radio. */
function peopleLeft({ called, result, of }: Job, radio: PassEnd['radio']): string {
  const again = 'Write the same people again: it goes on where it was.';
  switch (radio) {
    case 'untouched':
      return `The people in ${called} are as they were.`;
    case 'written, not confirmed':
      return `All of them were sent to ${called}, but it has not confirmed them. ${again}`;
    default:
      return `${grouped(result.bytesIn ?? 0)} of ${grouped(of)} bytes of people are in ${called}. It shows numbers and no names until they are whole; its plan is as it was. ${again}`;
  }
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
    if (event.kind === 'resumed') job.result.resumedAt = event.bytes;
    if (event.kind !== 'progress') return;
    job.bytes = from + event.bytes;
    if (task.kind === 'write' || task.kind === 'people') job.result.bytesIn = event.bytes;
    const rate = event.bytes / (performance.now() - began);
    job.secondsLeft = Math.ceil((job.of - job.bytes) / rate / 1000);
  };
  // A radio with several modules drops its line between them, and comes back on a port of its own.
  const where = { place: port.place, again: () => followPort(port, job.radioId) };
  const end = await runLink(where, model, task, hear, signal);
  if (end.kind === 'failed') throw new PassFailed(end);
  await seeRadio(end.ident, model);
  return end;
}

export async function read(job: Job, port: Port, model: Model, signal: AbortSignal): Promise<void> {
  const end = await pass(job, port, model, { kind: 'read' }, 'reading', `Reading ${job.called}.`, signal);
  if (end.ident.halfWritten) {
    job.message =
      model.link?.kind === 'card'
        ? `The card of ${job.called} is copied in part: nothing of it was kept. Save to it in the radio again, or write it anew.`
        : `${job.called} was read, but it is half written: nothing of it was kept. Restore its sealed copy.`;
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
  what: 'write' | 'restore' = 'write',
): Promise<void> {
  // Before its first byte: whatever breaks it off, it is known what was to be in the radio.
  await toBeWritten(job, image);
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
  job.result.writtenCopyId = await sealCopy(job.radioId, model, back.image!, `after ${what}`);
  await toBeWritten(job, null);
}

/** Keeps what is to be in a radio; once that is proved, nothing of it broke off, nor of what was begun before. */
async function toBeWritten(job: Job, image: Uint8Array | null): Promise<void> {
  const database = await writing();
  await database.transaction(async (transaction) => {
    await transaction.update(jobs).set({ image: null }).where(eq(jobs.radioId, job.radioId));
    if (image) await transaction.update(jobs).set({ image }).where(eq(jobs.id, job.id));
  });
}

export async function write(
  plan: Plan,
  job: Job,
  port: Port,
  model: Model,
  signal: AbortSignal,
  seenCopyId?: string,
): Promise<void> {
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
  } else {
    job.result.copyId = await sealCopy(job.radioId, model, base, 'before write');
    if (seenCopyId !== undefined) await wantAsSeen(job, base, model, seenCopyId);
  }
  // Fitted for this very unit: it is what was just read.
  const content = contentToWrite(plan, modelOfImage(base, model, job.called));
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
  job.message = `“${plan.name}” was written to ${model.link?.kind === 'card' ? `the card of ${job.called}` : job.called}: ${channelsWritten(plan, content)}, and all ${grouped(job.result.comparison!.compared)} bytes read back as they were sent.${restarting(restartFor(base, image, model))}${afterwards(model)}`;
}

/** Refuses where a radio holds something else than the person looked at: it was changed on its own keys, or by another. */
async function wantAsSeen(job: Job, now: Uint8Array, model: Model, seenCopyId: string): Promise<void> {
  const { different } = compareImages((await getCopy(seenCopyId)).image, now, model);
  if (different.length === 0) return;
  job.result.radio = 'untouched';
  throw new Problem(
    409,
    'radio-changed',
    'The radio has changed',
    `${job.called} holds something else than you looked at: ${grouped(different.length)} bytes of it are other now. It is sealed as it is. Look at what was changed on its keys, and write again. Nothing was written.`,
  );
}

/** Goes on with what broke off: the same bytes, to the same unit, read back and held against what was sent. */
export async function resume(job: Job, port: Port, model: Model, signal: AbortSignal): Promise<void> {
  const broken = (await brokenOff(job.radioId))!;
  const asked = await runLink(port.place, model, { kind: 'identify' }, undefined, signal);
  if (asked.kind === 'failed') throw new PassFailed(asked);
  await writeAndReadBack(
    job,
    port,
    model,
    { image: broken.image, serial: asked.ident.serial },
    signal,
    broken.copyId === null ? 'write' : 'restore',
  );
  const { resumedAt = 0 } = job.result;
  const went =
    resumedAt > 0 ? `The write went on at byte ${grouped(resumedAt)}. ` : 'The write was made anew. ';
  job.message = `${went}${whereOf(job, model)} holds what was to be written: all ${grouped(job.result.comparison!.compared)} bytes read back as they were sent.${afterwards(model)}`;
}

/** How many of a plan's channels were written, and how many a stop held back. */
function channelsWritten({ channels: all }: Plan, { channels, heldBack }: WriteContent): string {
  const n = channels.length;
  const words =
    n < all.length ? `${n} of its ${all.length} channels` : n === 1 ? '1 channel' : `${n} channels`;
  return heldBack.length === 0 ? words : `${words} (a stop in Check held back ${heldBack.length})`;
}

/** What a write came to be in: the radio, or its card, which the radio has still to load. */
const whereOf = ({ called }: Job, { link }: Model) =>
  link?.kind === 'card' ? `The card of ${called}` : called;
const afterwards = ({ link }: Model) => (link?.kind === 'card' ? ' Now load it in the radio.' : '');

/** What is said of settings that want a restart; nothing where there are none. */
const restarting = (labels: readonly string[]) =>
  labels.length === 0 ? '' : ` Switch it off and on: ${labels.join(', ')} changed.`;

/** Writes people into the memory that the radio has for them: gathered, sent, and proved by the radio's own sum of what it holds then. */
export async function writePeople(
  choice: PeopleChoice,
  plan: Plan,
  job: Job,
  port: Port,
  model: Model,
  signal: AbortSignal,
): Promise<void> {
  const asked = await runLink(port.place, model, { kind: 'identify' }, undefined, signal);
  if (asked.kind === 'failed') throw new PassFailed(asked);
  const stopped = () => new PassFailed({ kind: 'failed', reason: 'Stopped.', radio: 'untouched' });
  job.message = 'Gathering the people.';
  const { bytes, people, over } = await peopleForRadio(choice, plan, model, signal, (so) => {
    job.message = `Gathering the people: ${grouped(so)} so far.`;
  }).catch((error: unknown) => {
    throw signal.aborted ? stopped() : error;
  });
  job.of = bytes.length;
  await pass(
    job,
    port,
    model,
    { kind: 'people', people: bytes, serial: asked.ident.serial },
    'writing',
    `Writing ${grouped(people)} people into ${job.called}.`,
    signal,
  );
  job.result.people = people;
  if (over > 0) job.result.peopleOver = over;
  const { resumedAt = 0 } = job.result;
  const went =
    resumedAt === bytes.length
      ? `${job.called} held these ${grouped(people)} people already: nothing was written.`
      : `${resumedAt > 0 ? `The write went on at byte ${grouped(resumedAt)}. ` : ''}${job.called} holds ${grouped(people)} people, and its sum of all ${grouped(bytes.length)} bytes is that of what was sent.`;
  job.message = `${went}${over > 0 ? ` ${grouped(over)} found no room.` : ''}`;
}

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
  if (!before.ident.halfWritten)
    job.result.copyId = await sealCopy(job.radioId, model, before.image!, 'before restore');
  const { serial } = before.ident;
  if (copy.radioId !== job.radioId) {
    const base = before.ident.halfWritten ? (await newestSound(job.radioId, model))?.image : before.image!;
    const image = base && imageForAnother(copy.image, base, model);
    if (!image?.ok)
      throw new Problem(
        422,
        'no-copy',
        'It cannot be built',
        image
          ? `The copy of ${copy.called} cannot be read: ${image.reason}`
          : `${job.called} is half written and there is no sealed copy of it to build on.`,
      );
    await writeAndReadBack(job, port, model, { image: image.value, serial }, signal, 'restore');
    job.message = `${whereOf(job, model)} holds what the copy of ${copy.called} holds, and what is its own is as it was: all ${grouped(job.result.comparison!.compared)} bytes read back as they were sent.${afterwards(model)}`;
    return;
  }
  await writeAndReadBack(job, port, model, { image: copy.image, serial }, signal, 'restore');
  job.message = `${whereOf(job, model)} is as it was when the sealed copy was taken: all ${grouped(job.result.comparison!.compared)} bytes agree.${afterwards(model)}`;
}
