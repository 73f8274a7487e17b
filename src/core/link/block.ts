import { bytesOf } from '../image';
import { linkOf, type Model } from '../models';
import {
  bigEndian,
  blockFrame,
  giveUpBlockFrame,
  numberIn,
  openPayload,
  readBlockFrames,
  type BlockFrame,
} from './block-frame';
import { crc32 } from './frame';
import {
  called,
  PATIENCE,
  refusal,
  type LinkEvent,
  type LinkInput,
  type LinkStep,
  type LinkTask,
  type RadioState,
} from './host';
import { readBlockIdent, type Ident } from './ident';
import { NOTHING_PENDING, type Pending } from './scan';

/**
 * The host's side of a block link: a handshake, then blocks by their address, each answered for itself. A write says first what it is a
 * write of; a radio in which that very write broke off says how much of it is in, and it goes on there. docs/block-link.md has the protocol.
 */

type Phase =
  | 'greeting'
  | 'moving'
  | 'reading'
  | 'summing'
  /** People: what is there is asked for before anything is written, and again once all is. */
  | 'asking'
  | 'opening'
  | 'writing'
  | 'closing'
  | 'proving'
  | 'finished'
  | 'failed';

export type BlockModel = Pick<Model, 'id' | 'name' | 'link'>;

/** The host's side of a block link; a value, advanced by `stepBlock`. */
export interface BlockState {
  model: BlockModel;
  task: LinkTask;
  phase: Phase;
  pending: Pending;
  ident: Ident | null;
  /** Blocks of the module that are there: read, or taken by the radio. */
  done: readonly boolean[];
  /** The module's stretch of the image: what is to be written, or as long as what is read. */
  image: Uint8Array;
  /** What was read of it, by block. */
  parts: readonly Uint8Array[];
  /** Blocks asked for or sent, and not answered, oldest first. */
  underWay: readonly number[];
  /** The blocks before this one are there, or were asked for or sent. */
  next: number;
  /** Silences in a row. */
  silences: number;
}
type Step = LinkStep<BlockState>;

/** The block link of a model: that of a live link is one too, of a single module. */
export function blockLinkOf(model: Pick<Model, 'id' | 'link' | 'name'>) {
  const link = linkOf(model);
  if (link.kind === 'block') return link;
  if (link.kind !== 'live') throw new Error(`A ${model.name} has no block link`);
  return { ...link, modules: [{ name: 'Memory', bytes: bytesOf(model) }] };
}

/** Where a module lies in the image. */
export function moduleStretch(
  model: Pick<Model, 'id' | 'link' | 'name'>,
  module: number,
): { from: number; bytes: number } {
  const { modules } = blockLinkOf(model);
  return {
    from: modules.slice(0, module).reduce((sum, { bytes }) => sum + bytes, 0),
    bytes: modules[module]!.bytes,
  };
}

const moduleOf = ({ task }: Pick<BlockState, 'task'>) => task.module ?? 0;

/** What goes over the line: the module's stretch of what is written, all people, or as much as is read. */
function stretchOf(model: BlockModel, task: LinkTask): Uint8Array {
  if (task.kind === 'people') return task.people;
  const { from, bytes } = moduleStretch(model, task.module ?? 0);
  return task.kind === 'write' ? task.image.slice(from, from + bytes) : new Uint8Array(bytes);
}

export function startBlock(model: BlockModel, task: LinkTask): Step {
  const image = stretchOf(model, task);
  const blocks = Math.ceil(image.length / blockLinkOf(model).blockBytes);
  const state: BlockState = {
    ...{ model, task, image, parts: Array.from({ length: blocks }, () => NOTHING_PENDING) },
    phase: 'greeting',
    pending: NOTHING_PENDING,
    ident: null,
    done: Array.from({ length: blocks }, () => false),
    underWay: [],
    next: 0,
    silences: 0,
  };
  return { state, send: [blockFrame('hello')], events: [] };
}

export const isBlockOpen = ({ phase }: BlockState): boolean => phase !== 'finished' && phase !== 'failed';

/** Advances the link; pure, and the same for every way of splitting the bytes. */
export function stepBlock(before: BlockState, input: LinkInput): Step {
  const step: Step = { state: before, send: [], events: [] };
  if (!isBlockOpen(before)) return step;
  if (input.kind === 'closed') {
    // A module is left by dropping the line; it comes back as another.
    if (before.phase === 'moving')
      return ended(step, { kind: 'moved', module: moduleOf(before), radio: radioState(before) });
    return failed(step, 'The port vanished: the cable slipped or the radio was switched off.');
  }
  const { frames, pending } =
    input.kind === 'quiet' ? giveUpBlockFrame(before.pending) : readBlockFrames(before.pending, input.bytes);
  step.state = { ...before, pending };
  if (frames.length === 0 && input.kind === 'quiet') return quiet(step);
  for (const frame of frames) {
    if (!isBlockOpen(step.state)) break;
    step.state = { ...step.state, silences: 0 };
    takeFrame(step, frame);
  }
  return step;
}

function ended(step: Step, event: LinkEvent): Step {
  step.state = { ...step.state, phase: event.kind === 'failed' ? 'failed' : 'finished' };
  step.events.push(event);
  return step;
}

/** What is known of the radio: a module before this one has been written, or a block of this one is in. */
function radioState({ phase, done, task, ident }: BlockState): RadioState {
  if (task.kind !== 'write' && task.kind !== 'people') return 'untouched';
  const begun = done.some(Boolean) || (task.module ?? 0) > 0 || ident?.halfWritten === true;
  if (phase === 'closing' || phase === 'proving') return 'written, not confirmed';
  if (phase === 'writing') return begun ? 'half written' : 'perhaps begun';
  return (task.module ?? 0) > 0 ? 'half written' : 'untouched';
}

const failed = (step: Step, reason: string): Step =>
  ended(step, { kind: 'failed', reason, radio: radioState(step.state) });

const finish = (step: Step, image: Uint8Array | null) =>
  ended(step, { kind: 'finished', ident: step.state.ident!, image });

function quiet(step: Step): Step {
  const { state } = step;
  if (state.silences + 1 >= PATIENCE)
    return failed(
      step,
      state.phase === 'greeting'
        ? 'The radio does not answer. Is it switched on?'
        : 'The radio stopped answering.',
    );
  step.state = { ...state, silences: state.silences + 1 };
  switch (state.phase) {
    case 'greeting':
      step.send.push(blockFrame('hello'));
      break;
    case 'moving':
      step.send.push(blockFrame('module', moduleOf(state)));
      break;
    case 'reading':
    case 'writing':
      for (const block of state.underWay) sendBlock(step, block);
      break;
    case 'summing':
      step.send.push(sumFrame(state));
      break;
    case 'opening':
      step.send.push(openFrame(state));
      break;
    case 'asking':
    case 'proving':
      step.send.push(blockFrame('people'));
      break;
    case 'closing':
      step.send.push(blockFrame('close'));
      break;
  }
  return step;
}

function takeFrame(step: Step, frame: BlockFrame): void {
  const { phase, underWay } = step.state;
  const { command } = frame;
  if (phase === 'greeting') return void (command === 'here' && identified(step, frame.payload));
  if (command === 'no') return refusedBy(step, frame);
  const block = frame.address / blockLinkOf(step.state.model).blockBytes;
  switch (phase) {
    case 'reading':
      if (command === 'given' && underWay.includes(block)) blockGiven(step, block, frame.payload);
      return;
    case 'summing':
      if (command === 'summed') summed(step, frame.payload);
      return;
    case 'opening':
      if (command === 'opened') opened(step, frame.address);
      return;
    case 'writing':
      if (command === 'taken' && underWay.includes(block)) blockTaken(step, block);
      return;
    case 'closing':
      if (command === 'closed') closed(step);
      return;
    case 'asking':
    case 'proving':
      if (command === 'counted') counted(step, frame.payload);
  }
}

const DAMAGED = 0;

/** A block that arrived damaged is said again; every other refusal ends the link. */
function refusedBy(step: Step, { address, payload }: BlockFrame): void {
  const { phase, underWay, model } = step.state;
  if ((payload[0] ?? -1) !== DAMAGED) return void failed(step, refusal(payload[0]));
  const block = Math.floor(address / blockLinkOf(model).blockBytes);
  if ((phase === 'writing' || phase === 'reading') && underWay.includes(block)) sendBlock(step, block);
}

function identified(step: Step, payload: Uint8Array): void {
  const { model, task } = step.state;
  const ident = readBlockIdent(payload);
  if (!ident) return void failed(step, 'What answers on this port is not a radio that Veridon knows.');
  if (ident.model !== linkOf(model).ident || ident.imageBytes !== bytesOf(model))
    return void failed(step, `This is no ${model.name}: it calls itself ${ident.model.trim()}.`);
  step.state = { ...step.state, ident };
  step.events.push({ kind: 'identified', ident });
  if (task.kind === 'identify') return void finish(step, null);
  if ((task.kind === 'write' || task.kind === 'people') && ident.serial !== task.serial)
    return void failed(
      step,
      `This is ${called(ident.serial)}, not ${called(task.serial)}: nothing was written.`,
    );
  if (task.kind === 'people') {
    step.state = { ...step.state, phase: 'asking' };
    step.send.push(blockFrame('people'));
  } else if (ident.module !== moduleOf(step.state)) {
    step.state = { ...step.state, phase: 'moving' };
    step.send.push(blockFrame('module', moduleOf(step.state)));
  } else if (task.kind === 'read') {
    step.state = { ...step.state, phase: 'reading' };
    fillWindow(step);
  } else {
    step.state = { ...step.state, phase: 'opening' };
    step.send.push(openFrame(step.state));
  }
}

const openFrame = ({ image, task }: BlockState) =>
  blockFrame(task.kind === 'people' ? 'openPeople' : 'open', 0, openPayload(image));

const sumFrame = ({ image }: BlockState) => blockFrame('sum', 0, bigEndian(image.length, 4));

function progress(step: Step): void {
  const { model, next, underWay, image } = step.state;
  const size = blockLinkOf(model).blockBytes;
  const bytes = Math.min(image.length, (next - underWay.length) * size);
  step.events.push({ kind: 'progress', bytes, of: image.length });
}

/** Asks for a block, or sends it. What is said a second time goes behind all that is under way. */
function sendBlock(step: Step, block: number): void {
  const { image, model, phase, underWay } = step.state;
  const size = blockLinkOf(model).blockBytes;
  const from = block * size;
  const bytes = image.subarray(from, from + size);
  if (underWay.includes(block)) step.events.push({ kind: 'repeated', block });
  step.state = { ...step.state, underWay: [...underWay.filter((one) => one !== block), block] };
  step.send.push(
    phase === 'reading'
      ? blockFrame('give', from, bigEndian(bytes.length, 2))
      : blockFrame('put', from, bytes),
  );
}

function fillWindow(step: Step): void {
  const { window } = blockLinkOf(step.state.model);
  while (step.state.underWay.length < window && step.state.next < step.state.done.length) {
    const { next } = step.state;
    step.state = { ...step.state, next: next + 1 };
    sendBlock(step, next);
  }
}

const isDone = ({ next, done, underWay }: BlockState) => next === done.length && underWay.length === 0;

/** A block is done. Answers come in the order of what was asked: one that was passed over was lost, and is said again. */
function blockDone(step: Step, block: number): void {
  const { done, underWay } = step.state;
  const lost = underWay.slice(0, underWay.indexOf(block));
  step.state = {
    ...step.state,
    done: done.with(block, true),
    underWay: underWay.filter((one) => one !== block),
  };
  progress(step);
  for (const one of lost) sendBlock(step, one);
  fillWindow(step);
}

function blockGiven(step: Step, block: number, payload: Uint8Array): void {
  const size = blockLinkOf(step.state.model).blockBytes;
  const { image } = step.state;
  if (payload.length !== Math.min(size, image.length - block * size)) return;
  step.state = { ...step.state, parts: step.state.parts.with(block, payload) };
  blockDone(step, block);
  if (!isDone(step.state)) return;
  const whole = new Uint8Array(image.length);
  for (const [at, part] of step.state.parts.entries()) whole.set(part, at * size);
  step.state = { ...step.state, phase: 'summing', image: whole };
  step.send.push(sumFrame(step.state));
}

function summed(step: Step, payload: Uint8Array): void {
  const { image } = step.state;
  if (payload.length === 4 && numberIn(payload, 0, 4) === crc32(image)) finish(step, image);
  else failed(step, 'What was read does not add up. Read it again.');
}

/** The radio says how much of this very write is in already. */
function opened(step: Step, address: number): void {
  const { model, done, image } = step.state;
  const size = blockLinkOf(model).blockBytes;
  // The last block may be shorter.
  const there = address >= image.length ? done.length : Math.floor(address / size);
  step.state = { ...step.state, phase: 'writing', next: there, done: done.map((_, block) => block < there) };
  if (there > 0) {
    step.events.push({ kind: 'resumed', bytes: Math.min(image.length, there * size) });
    progress(step);
  }
  if (there === done.length) close(step);
  else fillWindow(step);
}

function blockTaken(step: Step, block: number): void {
  blockDone(step, block);
  if (isDone(step.state)) close(step);
}

function close(step: Step): void {
  step.state = { ...step.state, phase: 'closing' };
  step.send.push(blockFrame('close'));
}

/** The radio has all of it. Of people it is asked what it holds then: they are not read back, which would take as long again. */
function closed(step: Step): void {
  if (step.state.task.kind !== 'people') return void finish(step, null);
  step.state = { ...step.state, phase: 'proving' };
  step.send.push(blockFrame('people'));
}

/** What a radio says of its memory for people: its room, how much of it is in use (bytes), the CRC-32 of that, and whether it is whole. */
function counted(step: Step, payload: Uint8Array): void {
  const { image, phase } = step.state;
  if (payload.length !== 13)
    return void failed(step, 'What the radio says of its memory for people makes no sense.');
  const [room, bytes, sum] = [0, 4, 8].map((at) => numberIn(payload, at, 4)) as [number, number, number];
  const same = bytes === image.length && sum === crc32(image) && payload[12] === 0;
  if (same) {
    // They were there before anything was written: it is as if a write went on at its end.
    if (phase === 'asking')
      step.events.push({ kind: 'resumed', bytes }, { kind: 'progress', bytes, of: bytes });
    return void finish(step, null);
  }
  if (phase === 'proving')
    return void failed(
      step,
      'The people in the radio do not add up to those that were sent. Write them again.',
    );
  if (room < image.length)
    return void failed(
      step,
      `There is room for ${room.toLocaleString('en')} bytes of people in this radio; these are ${image.length.toLocaleString('en')}.`,
    );
  step.state = { ...step.state, phase: 'opening' };
  step.send.push(openFrame(step.state));
}
