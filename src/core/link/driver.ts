import { linkOf } from '../models';
import { isBlockOpen, startBlock, stepBlock } from './block';
import { blockFrame, readBlockFrames } from './block-frame';
import { frameBytes, readFrames } from './frame';
import {
  isOpen,
  PATIENCE,
  startLink,
  stepLink,
  type LinkEvent,
  type LinkInput,
  type LinkModel,
  type LinkStep,
  type LinkTask,
} from './host';
import { readBlockIdent, readIdent } from './ident';
import { NOTHING_PENDING } from './scan';

/**
 * The host's side of a link, pure: what has come in goes in, bytes to send and events come out. Carriers bring it bytes; a
 * driver knows no socket, no file and no clock.
 */
export interface Driver<S> {
  start(model: LinkModel, task: LinkTask): LinkStep<S>;
  step(state: S, input: LinkInput): LinkStep<S>;
  isOpen(state: S): boolean;
}

/** What a step of a link says and sends. */
export type Said = Omit<LinkStep<unknown>, 'state'>;

/** A link under way, whatever its kind. */
export interface Run {
  begin(): Said;
  step(input: LinkInput): Said;
  isOpen(): boolean;
}

function run<S>(driver: Driver<S>, model: LinkModel, task: LinkTask): Run {
  let state: S;
  const take = ({ state: next, send, events }: LinkStep<S>): Said => {
    state = next;
    return { send, events };
  };
  return {
    begin: () => take(driver.start(model, task)),
    step: (input) => take(driver.step(state, input)),
    isOpen: () => driver.isOpen(state),
  };
}

/** A task over the link of a model. */
export function linkRun(model: LinkModel, task: LinkTask): Run {
  switch (linkOf(model).kind) {
    case 'stream':
      return run({ start: startLink, step: stepLink, isOpen }, model, task);
    case 'block':
    case 'live':
      return run({ start: startBlock, step: stepBlock, isOpen: isBlockOpen }, model, task);
    case 'card':
      throw new Error(`A ${model.name} has a card and no line`);
  }
}

/** Asks whoever is there who it is, in the words of every kind of link: who knows one of them answers. */
export function askAnybody(): Run {
  const greeting = [frameBytes('identify'), blockFrame('hello')];
  let [stream, block] = [NOTHING_PENDING, NOTHING_PENDING];
  let [silences, open] = [0, true];
  const end = (event: LinkEvent): Said => {
    open = false;
    return { send: [], events: [event] };
  };
  return {
    begin: () => ({ send: greeting, events: [] }),
    isOpen: () => open,
    step(input) {
      const failed = (reason: string) => end({ kind: 'failed', reason, radio: 'untouched' });
      if (input.kind === 'closed')
        return failed('The port vanished: the cable slipped or the radio was switched off.');
      if (input.kind === 'quiet') {
        [stream, block] = [NOTHING_PENDING, NOTHING_PENDING];
        if (++silences >= PATIENCE) return failed('The radio does not answer. Is it switched on?');
        return { send: greeting, events: [] };
      }
      const inStream = readFrames(stream, input.bytes);
      const inBlock = readBlockFrames(block, input.bytes);
      [stream, block] = [inStream.pending, inBlock.pending];
      const answer =
        inStream.frames.find(({ type }) => type === 'ident') ??
        inBlock.frames.find(({ command }) => command === 'here');
      if (!answer) return { send: [], events: [] };
      const ident = 'type' in answer ? readIdent(answer.payload) : readBlockIdent(answer.payload);
      return ident
        ? end({ kind: 'finished', ident, image: null })
        : failed('What answers on this port is not a radio that Veridon knows.');
    },
  };
}
