import { startBlock, stepBlock, type BlockModel, type BlockState } from './block';
import { blockFrame, giveUpBlockFrame, numberIn, readBlockFrames, type BlockFrame } from './block-frame';
import { crc32 } from './frame';
import { called, PATIENCE, refusal, type LinkEvent, type LinkInput } from './host';
import type { Ident } from './ident';
import {
  applyStretches,
  changeFrames,
  differing,
  nextPart,
  SUM_AT,
  SUM_BYTES,
  type Coming,
} from './live-stretch';
import { NOTHING_PENDING, type Pending } from './scan';

/**
 * The host's side of a live link: the radio is read once, and from then on each tells the other what changes, as it changes. A change is
 * made on an image that both have, is in the radio whole or not at all, and is refused where the radio has moved on. docs/live-link.md
 * has the protocol.
 */

/** What the radio answers to a change that was made on an image that it has not. */
export const MOVED_ON = 5;

const DAMAGED = 0;
/** Where nothing is stood at: no memory, or a dial. */
export const NOWHERE = 0xffff;

type Phase = 'reading' | 'entering' | 'live' | 'ended';

export type LiveInput =
  | LinkInput
  /** The radio is to hold this image. Only while no change is under way. */
  | { kind: 'want'; image: Uint8Array }
  /** Time to ask whether both still have the same. */
  | { kind: 'beat' };

export type LiveEvent =
  | Extract<LinkEvent, { kind: 'identified' | 'progress' }>
  /** The line is over; `refused` where the radio will not, and not where it is gone. */
  | (Extract<LinkEvent, { kind: 'failed' }> & { refused?: true })
  /** Both have this image from now on; `slot` is the place that the radio stands at, null where it is none. */
  | { kind: 'live'; ident: Ident; image: Uint8Array; slot: number | null }
  | { kind: 'turned'; slot: number | null }
  /** Something was done on the radio's own keys: it holds this image now. */
  | { kind: 'changed'; image: Uint8Array }
  /** What was wanted is in the radio. */
  | { kind: 'kept'; image: Uint8Array }
  /** What was wanted was made on an image that the radio has no more; it is to be worked out anew on this one. */
  | { kind: 'overtaken'; image: Uint8Array };

interface Change {
  number: number;
  /** What it was made on. */
  base: Uint8Array;
  image: Uint8Array;
  frames: Uint8Array[];
}

/** The host's side of a live link; a value, advanced by `stepLive`. */
export interface LiveState {
  model: BlockModel;
  /** The unit that is meant; null where any will do. */
  serial: string | null;
  phase: Phase;
  /** The read that is under way. */
  read: BlockState | null;
  pending: Pending;
  ident: Ident | null;
  /** What the radio holds, as far as it has said. */
  image: Uint8Array;
  slot: number | null;
  /** What is on its way into the radio. */
  change: Change | null;
  /** Numbers of changes go round from 1 to 255. */
  number: number;
  /** Parts of a change of the radio whose last has not come. */
  coming: Coming | null;
  /** True while an answer to a beat is awaited. */
  asked: boolean;
  /** Silences in a row. */
  silences: number;
}
export interface LiveStep {
  state: LiveState;
  send: Uint8Array[];
  events: LiveEvent[];
}

export function startLive(model: BlockModel, serial: string | null): LiveStep {
  const state: LiveState = {
    ...{ model, serial, phase: 'reading', read: null, pending: NOTHING_PENDING, ident: null },
    ...{
      image: new Uint8Array(),
      slot: null,
      change: null,
      number: 0,
      coming: null,
      asked: false,
      silences: 0,
    },
  };
  return beginRead({ state, send: [], events: [] });
}

export const isLive = ({ phase, change }: LiveState): boolean => phase === 'live' && change === null;
export const isLiveOpen = ({ phase }: LiveState): boolean => phase !== 'ended';
/** True while something is awaited of the radio: a silence means something then. */
export const isAwaited = ({ phase, change, asked }: LiveState): boolean =>
  phase !== 'live' || change !== null || asked;

/** Advances the link; pure, and the same for every way of splitting the bytes. */
export function stepLive(before: LiveState, input: LiveInput): LiveStep {
  const step: LiveStep = { state: before, send: [], events: [] };
  if (!isLiveOpen(before)) return step;
  switch (input.kind) {
    case 'want':
      if (!isLive(before)) throw new Error('A change is under way');
      return want(step, input.image);
    case 'beat':
      if (!isLive(before) || before.asked) return step;
      step.state = { ...before, asked: true };
      step.send.push(blockFrame('beat'));
      return step;
    case 'closed':
      return failed(step, 'The port vanished: the cable slipped or the radio was switched off.');
  }
  if (before.read) return readOn(step, before.read, input);
  const { frames, pending } =
    input.kind === 'quiet' ? giveUpBlockFrame(before.pending) : readBlockFrames(before.pending, input.bytes);
  step.state = { ...before, pending };
  if (frames.length === 0 && input.kind === 'quiet') return quiet(step);
  for (const frame of frames) {
    // What came behind belongs to nothing any more: the radio is read anew, or let go of.
    if (step.state.read || !isLiveOpen(step.state)) break;
    step.state = { ...step.state, silences: 0 };
    take(step, frame);
  }
  return step;
}

function failed(step: LiveStep, reason: string, refused = false): LiveStep {
  step.state = { ...step.state, phase: 'ended' };
  step.events.push({ kind: 'failed', reason, radio: 'untouched', ...(refused && { refused }) });
  return step;
}

/** Reads the whole radio: at the beginning, and where the two have lost each other. */
function beginRead(step: LiveStep): LiveStep {
  const { state, send } = startBlock(step.state.model, { kind: 'read' });
  step.state = {
    ...step.state,
    ...{ phase: 'reading', read: state, pending: NOTHING_PENDING, coming: null, change: null, asked: false },
  };
  step.send.push(...send);
  return step;
}

function readOn(step: LiveStep, read: BlockState, input: LinkInput): LiveStep {
  const on = stepBlock(read, input);
  step.state = { ...step.state, read: on.state };
  step.send.push(...on.send);
  for (const event of on.events) {
    if (event.kind === 'progress') step.events.push(event);
    if (event.kind === 'failed') return failed(step, event.reason);
    if (event.kind === 'identified') {
      const { serial } = step.state;
      if (serial !== null && event.ident.serial !== serial)
        return failed(step, `This is ${called(event.ident.serial)}, not ${called(serial)}.`);
      step.events.push(event);
    }
    if (event.kind === 'finished') {
      if (event.ident.halfWritten) return failed(step, 'The radio is half written.', true);
      step.state = {
        ...step.state,
        ...{ phase: 'entering', read: null, pending: on.state.pending },
        ...{ ident: event.ident, image: event.image!, silences: 0 },
      };
      step.send.push(blockFrame('live'));
    }
  }
  return step;
}

function quiet(step: LiveStep): LiveStep {
  const { state } = step;
  if (!isAwaited(state)) return step;
  if (state.silences + 1 >= PATIENCE) return failed(step, 'The radio stopped answering.');
  step.state = { ...state, silences: state.silences + 1 };
  if (state.phase === 'entering') step.send.push(blockFrame('live'));
  else if (state.change) step.send.push(...state.change.frames);
  else step.send.push(blockFrame('beat'));
  return step;
}

const slotIn = (payload: Uint8Array, at: number): number | null => {
  const slot = numberIn(payload, at, 2);
  return slot === NOWHERE ? null : slot;
};

function take(step: LiveStep, { command, payload }: BlockFrame): void {
  const { state } = step;
  const { change } = state;
  switch (command) {
    case 'lively':
      if (state.phase !== 'entering' || payload.length !== 6) return;
      // Something was done on it after it was read.
      if (numberIn(payload, 0, 4) !== crc32(state.image)) return void beginRead(step);
      step.state = { ...state, phase: 'live', slot: slotIn(payload, 4) };
      step.events.push({ kind: 'live', ident: state.ident!, image: state.image, slot: slotIn(payload, 4) });
      return;
    case 'beats':
      if (!state.asked || payload.length !== 6) return;
      step.state = { ...state, asked: false };
      turnedTo(step, slotIn(payload, 4));
      // What it said of a change was lost: it is read again.
      if (!change && numberIn(payload, 0, 4) !== crc32(state.image)) beginRead(step);
      return;
    case 'turned':
      if (state.phase === 'live' && payload.length === 2) turnedTo(step, slotIn(payload, 0));
      return;
    case 'changed':
      if (state.phase === 'live') changed(step, payload);
      return;
    case 'isSet':
      if (!change || payload[0] !== change.number) return;
      step.state = { ...state, change: null, image: change.image };
      step.events.push({ kind: 'kept', image: change.image });
      return;
    case 'no': {
      if (!change) return;
      if (payload[0] === DAMAGED) return void step.send.push(...change.frames);
      if (payload[0] !== MOVED_ON) return void failed(step, refusal(payload[0]), true);
      // It has said what was done on it before it refused, unless that was lost.
      if (change.base === state.image) return void beginRead(step);
      step.state = { ...state, change: null };
      step.events.push({ kind: 'overtaken', image: state.image });
    }
  }
}

function turnedTo(step: LiveStep, slot: number | null): void {
  if (slot === step.state.slot) return;
  step.state = { ...step.state, slot };
  step.events.push({ kind: 'turned', slot });
}

function changed(step: LiveStep, payload: Uint8Array): void {
  const { state } = step;
  // It was done on an image that is not ours: what was said before it was lost.
  if (payload.length < SUM_AT + SUM_BYTES || numberIn(payload, SUM_AT, SUM_BYTES) !== crc32(state.image))
    return void beginRead(step);
  const coming = nextPart(state.coming, payload, state.image.length) ?? null;
  step.state = { ...state, coming };
  // Where a part of it was lost the next beat finds it out.
  if (coming?.parts !== coming?.of || !coming) return;
  const image = applyStretches(state.image, coming.stretches);
  step.state = { ...state, coming: null, image };
  step.events.push({ kind: 'changed', image });
}

function want(step: LiveStep, image: Uint8Array): LiveStep {
  const { state } = step;
  const stretches = differing(state.image, image);
  if (stretches.length === 0) {
    step.events.push({ kind: 'kept', image: state.image });
    return step;
  }
  const number = (state.number % 255) + 1;
  const frames = changeFrames('set', number, state.image, stretches);
  step.state = { ...state, number, change: { number, base: state.image, image, frames }, silences: 0 };
  step.send.push(...frames);
  return step;
}
