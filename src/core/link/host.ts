import { bytesOf } from '../image';
import { cableOf, linkOf, type Model } from '../models';
import { frameBytes, giveUpFrame, imageSum, readFrames, sumHolds, type Frame } from './frame';
import { readIdent, type Ident } from './ident';
import { NOTHING_PENDING, type Pending } from './scan';

/**
 * What the host wants of a radio, or of one of its modules: a read gives the module's stretch of the image, a write sends it. A write
 * names the unit that it is meant for, and has the whole image.
 */
export type LinkTask = { module?: number } & (
  | { kind: 'identify' }
  | { kind: 'read' }
  | { kind: 'write'; image: Uint8Array; serial: string | null }
  /** The memory that some radios have for people alone, whole. */
  | { kind: 'people'; people: Uint8Array; serial: string | null }
);

/**
 * What is known of the radio's memory when a link fails. `perhaps begun`: a first block was sent and never answered, so
 * that the radio is whole or half written; it says which when it is asked again.
 */
export const RADIO_STATES = ['untouched', 'perhaps begun', 'half written', 'written, not confirmed'] as const;
export type RadioState = (typeof RADIO_STATES)[number];

export type LinkEvent =
  | { kind: 'identified'; ident: Ident }
  | { kind: 'progress'; bytes: number; of: number }
  | { kind: 'repeated'; block: number }
  /** A write goes on where it broke off: so much was in. */
  | { kind: 'resumed'; bytes: number }
  /** The radio goes to another module, for which its line drops and returns. */
  | { kind: 'moved'; module: number; radio: RadioState }
  | { kind: 'finished'; ident: Ident; image: Uint8Array | null }
  | { kind: 'failed'; reason: string; radio: RadioState };

/** What happens to the link: bytes come, none come for a while, or the port is gone. */
export type LinkInput = { kind: 'bytes'; bytes: Uint8Array } | { kind: 'quiet' } | { kind: 'closed' };

type Phase = 'identifying' | 'reading' | 'opening' | 'writing' | 'closing' | 'finished' | 'failed';

/** What a link has to know of a model. */
export type LinkModel = Pick<Model, 'id' | 'name' | 'link'>;

/** The host's side of a stream link; a value, advanced by `stepLink`. */
export interface LinkState {
  model: LinkModel;
  task: LinkTask;
  phase: Phase;
  pending: Pending;
  ident: Ident | null;
  /** Blocks that are there: read, or taken by the radio. */
  done: readonly boolean[];
  image: Uint8Array;
  /** Blocks sent and not answered, oldest first. */
  underWay: readonly number[];
  /** Silences in a row. */
  silences: number;
}

export interface LinkStep<S = LinkState> {
  state: S;
  /** Bytes for the radio, in order. */
  send: Uint8Array[];
  events: LinkEvent[];
}

/** Silences in a row after which the radio counts as gone. */
export const PATIENCE = 3;

/** The reasons that a radio gives when it refuses, by the first byte of the payload. */
export const REFUSALS: Record<number, string> = {
  0: 'a block arrived damaged',
  1: 'its battery is too low for writing',
  2: 'it refuses to be written',
  3: 'the whole did not add up',
  4: 'it expects another length',
};

const DAMAGED = 0;
/** The sequence number that answers the end of a write. */
export const WHOLE = 0xff;

/** Begins: the first bytes ask the radio who it is. */
export function startLink(model: LinkModel, task: LinkTask): LinkStep {
  const bytes = bytesOf(model);
  const blocks = Math.ceil(bytes / cableOf(model).blockBytes);
  const state: LinkState = {
    model,
    task,
    phase: 'identifying',
    pending: NOTHING_PENDING,
    ident: null,
    done: Array.from({ length: blocks }, () => false),
    image: new Uint8Array(bytes),
    underWay: [],
    silences: 0,
  };
  return { state, send: [frameBytes('identify')], events: [] };
}

/** True while the link still waits for the radio. */
export function isOpen(state: LinkState): boolean {
  return state.phase !== 'finished' && state.phase !== 'failed';
}

/** Advances the link; pure, and the same for every way of splitting the bytes. */
export function stepLink(before: LinkState, input: LinkInput): LinkStep {
  if (!isOpen(before)) return { state: before, send: [], events: [] };
  const step: LinkStep = { state: before, send: [], events: [] };
  if (input.kind === 'closed')
    return failed(step, 'The port vanished: the cable slipped or the radio was switched off.');
  const { frames, pending } =
    input.kind === 'quiet' ? giveUpFrame(before.pending) : readFrames(before.pending, input.bytes);
  step.state = { ...before, pending };
  if (frames.length === 0 && input.kind === 'quiet') return quiet(step);
  for (const frame of frames) {
    if (!isOpen(step.state)) break;
    step.state = { ...step.state, silences: 0 };
    takeFrame(step, frame);
  }
  return step;
}

function failed(step: LinkStep, reason: string): LinkStep {
  const { phase, done } = step.state;
  const begun = done.some(Boolean) ? 'half written' : 'perhaps begun';
  const radio: RadioState =
    phase === 'writing' ? begun : phase === 'closing' ? 'written, not confirmed' : 'untouched';
  step.state = { ...step.state, phase: 'failed' };
  step.events.push({ kind: 'failed', reason, radio });
  return step;
}

function finish(step: LinkStep, image: Uint8Array | null): void {
  step.state = { ...step.state, phase: 'finished' };
  step.events.push({ kind: 'finished', ident: step.state.ident!, image });
}

function quiet(step: LinkStep): LinkStep {
  const { state } = step;
  if (state.silences + 1 >= PATIENCE)
    return failed(
      step,
      state.phase === 'identifying'
        ? 'The radio does not answer. Is it switched on?'
        : 'The radio stopped answering.',
    );
  step.state = { ...state, silences: state.silences + 1 };
  switch (state.phase) {
    case 'identifying':
      step.send.push(frameBytes('identify'));
      break;
    case 'reading':
      askAgain(step);
      break;
    case 'opening':
      step.send.push(openWrite(state));
      break;
    case 'writing':
      for (const block of state.underWay) sendBlock(step, block);
      break;
    case 'closing':
      step.send.push(endFrame(state.image));
      break;
  }
  return step;
}

function takeFrame(step: LinkStep, frame: Frame): void {
  switch (step.state.phase) {
    case 'identifying':
      if (frame.type === 'ident') identified(step, frame.payload);
      return;
    case 'reading':
      if (frame.type === 'block') takeBlock(step, frame);
      else if (frame.type === 'end') endOfRead(step, frame);
      return;
    case 'opening':
      if (frame.type === 'ready') {
        step.state = { ...step.state, phase: 'writing' };
        fillWindow(step);
      } else if (frame.type === 'no') failed(step, refusal(frame.payload[0]));
      return;
    case 'writing':
      if (frame.type === 'ack') blockTaken(step, frame.sequence);
      else if (
        frame.type === 'no' &&
        frame.payload[0] === DAMAGED &&
        step.state.underWay.includes(frame.sequence)
      )
        sendBlock(step, frame.sequence);
      else if (frame.type === 'no' && frame.payload[0] !== DAMAGED) failed(step, refusal(frame.payload[0]));
      return;
    case 'closing':
      if (frame.type === 'ack' && frame.sequence === WHOLE) finish(step, null);
      else if (frame.type === 'no') failed(step, refusal(frame.payload[0]));
  }
}

export const refusal = (reason: number | undefined): string =>
  `The radio says no: ${REFUSALS[reason ?? -1] ?? 'it gives no reason'}.`;

function identified(step: LinkStep, payload: Uint8Array): void {
  const { model, task } = step.state;
  const ident = readIdent(payload);
  if (!ident) return void failed(step, 'What answers on this port is not a radio that Veridon knows.');
  if (ident.model !== linkOf(model).ident || ident.imageBytes !== bytesOf(model))
    return void failed(step, `This is no ${model.name}: it calls itself ${ident.model.trim()}.`);
  step.state = { ...step.state, ident };
  step.events.push({ kind: 'identified', ident });
  if (task.kind === 'identify') return finish(step, null);
  if (task.kind === 'read') {
    step.state = { ...step.state, phase: 'reading' };
    step.send.push(frameBytes('read'));
    return;
  }
  if (task.kind === 'people') throw new Error(`A ${model.name} has no memory for people`);
  if (ident.serial !== task.serial)
    return void failed(
      step,
      `This is ${called(ident.serial)}, not ${called(task.serial)}: nothing was written.`,
    );
  step.state = { ...step.state, phase: 'opening', image: task.image };
  step.send.push(openWrite(step.state));
}

export const called = (serial: string | null) =>
  serial === null ? 'a unit without a serial' : `unit ${serial}`;

function openWrite({ image }: LinkState): Uint8Array {
  return frameBytes('write', 0, Uint8Array.of(image.length >> 8, image.length & 0xff));
}

function endFrame(image: Uint8Array): Uint8Array {
  return frameBytes('end', 0, imageSum(image));
}

const blockBytes = ({ model }: LinkState) => cableOf(model).blockBytes;
const bytesDone = (state: LinkState) =>
  Math.min(state.image.length, state.done.filter(Boolean).length * blockBytes(state));

function progress(step: LinkStep): void {
  step.events.push({ kind: 'progress', bytes: bytesDone(step.state), of: step.state.image.length });
}

function takeBlock(step: LinkStep, { sequence, payload }: Frame): void {
  const { state } = step;
  const size = blockBytes(state);
  const from = sequence * size;
  if (sequence >= state.done.length || payload.length !== Math.min(size, state.image.length - from)) return;
  if (state.done[sequence]) return;
  const image = state.image.slice();
  image.set(payload, from);
  step.state = { ...state, image, done: state.done.with(sequence, true) };
  progress(step);
}

const missing = ({ done }: LinkState) => done.flatMap((there, block) => (there ? [] : [block]));

function askAgain(step: LinkStep): void {
  const blocks = missing(step.state);
  for (const block of blocks) step.events.push({ kind: 'repeated', block });
  step.send.push(frameBytes('again', 0, Uint8Array.from(blocks)));
}

function endOfRead(step: LinkStep, { payload }: Frame): void {
  if (missing(step.state).length > 0) return askAgain(step);
  const { image } = step.state;
  if (!sumHolds(image, payload)) {
    failed(step, 'What was read does not add up. Read it again.');
    return;
  }
  step.send.push(frameBytes('ack', WHOLE));
  finish(step, image);
}

function sendBlock(step: LinkStep, block: number): void {
  const { image } = step.state;
  const size = blockBytes(step.state);
  const from = block * size;
  if (step.state.underWay.includes(block)) step.events.push({ kind: 'repeated', block });
  else step.state = { ...step.state, underWay: [...step.state.underWay, block] };
  step.send.push(frameBytes('block', block, image.slice(from, from + size)));
}

function fillWindow(step: LinkStep): void {
  while (step.state.underWay.length < cableOf(step.state.model).window) {
    const { done, underWay } = step.state;
    const next = done.findIndex((there, block) => !there && !underWay.includes(block));
    if (next < 0) return;
    sendBlock(step, next);
  }
}

function blockTaken(step: LinkStep, block: number): void {
  const { state } = step;
  if (!state.underWay.includes(block)) return;
  step.state = {
    ...state,
    done: state.done.with(block, true),
    underWay: state.underWay.filter((b) => b !== block),
  };
  progress(step);
  if (step.state.done.every(Boolean)) {
    step.state = { ...step.state, phase: 'closing' };
    step.send.push(endFrame(step.state.image));
  } else fillWindow(step);
}
