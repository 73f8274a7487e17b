import {
  askAnybody,
  linkRun,
  type Ident,
  type LinkEvent,
  type LinkInput,
  type LinkTask,
  type RadioState,
  type Run,
  type Said,
} from '../core/link';
import { bytesOf } from '../core/image';
import { linkOf, type Model } from '../core/models';
import { runCard, type Card } from './card-reader';
import { tcpCarrier, type Carrier } from './carrier';
import { afterSilence } from './silence';

/** A silence on the line, ms, after which the host says its last thing again. */
const quietMs = () => Number(process.env.VERIDON_LINK_QUIET_MS ?? 2000);

export type LinkOutcome = Extract<LinkEvent, { kind: 'finished' | 'failed' }>;
type End = LinkOutcome | Extract<LinkEvent, { kind: 'moved' }>;

/** What a port leads to: a line, by its TCP port, or a card in the reader. */
export type Place = number | Card;

/** Where a radio is, and how it is found again after its line dropped: its port may have another number then; null where it does not come back. */
export interface Where {
  place: Place;
  again(): Promise<Place | null>;
}

/** A radio that goes from one module to another more often than this is lost on the way. */
const MOST_MOVES = 3;

/**
 * Carries a link task over a TCP port of this machine until it has finished or failed; with `model` null whoever is there is
 * asked who it is. `onEvent` hears everything on the way; `signal` stops it as if the cable were pulled, at the next byte.
 */
export async function runLink(
  where: Place | Where,
  model: Model | null,
  task: LinkTask,
  onEvent: (event: LinkEvent) => void = () => {},
  signal?: AbortSignal,
): Promise<LinkOutcome> {
  const first = typeof where === 'object' && 'place' in where ? where.place : where;
  const again =
    typeof where === 'object' && 'again' in where ? () => where.again() : () => Promise.resolve(null);
  if (typeof first === 'object') return runCard(first, model, task, onEvent, signal);
  let at = first;
  const modules = model && task.kind !== 'identify' ? modulesOf(model) : [0];
  const of = modules.reduce((sum, bytes) => sum + bytes, 0);
  const parts: Uint8Array[] = [];
  let before = 0;
  let ident: Ident | undefined;
  /** What is known of the radio by what went before, where a line that has only just come up, or does not, tells nothing. */
  let known: RadioState = 'untouched';
  const failed = (end: Omit<Extract<LinkOutcome, { kind: 'failed' }>, 'kind'>): LinkOutcome => ({
    ...end,
    kind: 'failed',
    radio: end.radio === 'untouched' ? known : end.radio,
  });
  for (const [module, bytes] of modules.entries()) {
    const hear = (event: LinkEvent) => {
      if (event.kind === 'progress') onEvent({ kind: 'progress', bytes: before + event.bytes, of });
      else if (event.kind === 'resumed') onEvent({ kind: 'resumed', bytes: before + event.bytes });
      // The whole ends with its last module.
      else if (event.kind !== 'finished' || modules.length === 1) onEvent(event);
    };
    const named = modules.length > 1 ? { ...task, module } : task;
    let end = await one(at, model, named, hear, signal);
    for (let moves = 0; end.kind === 'moved'; moves++) {
      known = end.radio;
      const next = moves >= MOST_MOVES ? null : await again();
      if (typeof next !== 'number')
        return failed({
          reason: 'The radio went to another of its modules and did not come back.',
          radio: known,
        });
      at = next;
      end = await one(at, model, named, hear, signal);
    }
    if (end.kind === 'failed') return failed(end);
    if (modules.length === 1) return end;
    if (task.kind === 'write') known = 'half written';
    if (end.image) parts.push(end.image);
    before += bytes;
    ident = end.ident;
  }
  return {
    kind: 'finished',
    ident: ident!,
    image: parts.length > 0 ? Uint8Array.from(Buffer.concat(parts)) : null,
  };
}

/** The lengths of the stretches of a model's image that are carried each for itself. */
function modulesOf(model: Model): number[] {
  const link = linkOf(model);
  return link.kind === 'block' ? link.modules.map(({ bytes }) => bytes) : [bytesOf(model)];
}

const one = (
  port: number,
  model: Model | null,
  task: LinkTask,
  onEvent: (event: LinkEvent) => void,
  signal?: AbortSignal,
): Promise<End> => carry(tcpCarrier(port), model ? linkRun(model, task) : askAnybody(), onEvent, signal);

/** Brings a link under way and a carrier together. */
function carry(
  carrier: Carrier,
  run: Run,
  onEvent: (event: LinkEvent) => void,
  signal?: AbortSignal,
): Promise<End> {
  return new Promise((resolve) => {
    let begun = false;
    let endQuiet = () => {};

    const advance = (step: Said) => {
      if (step.send.length > 0) line.send(Buffer.concat(step.send));
      let outcome: End | undefined;
      for (const event of step.events) {
        onEvent(event);
        if (event.kind === 'finished' || event.kind === 'failed' || event.kind === 'moved') outcome = event;
      }
      endQuiet();
      // The port is free for the next pass only when the other end has let go of it too.
      if (outcome) void line.end().then(() => resolve(outcome));
      else endQuiet = afterSilence(quietMs(), () => input({ kind: 'quiet' }));
    };
    const input = (what: LinkInput) => {
      if (begun && run.isOpen()) advance(run.step(what));
    };

    const line = carrier.open({
      opened: () => {
        begun = true;
        advance(run.begin());
      },
      heard: (bytes) => input({ kind: 'bytes', bytes }),
      closed: () => {
        endQuiet();
        if (begun) input({ kind: 'closed' });
        else resolve({ kind: 'failed', reason: 'The port is not there any more.', radio: 'untouched' });
      },
    });
    signal?.addEventListener('abort', () => line.cut(), { once: true });
  });
}
