import {
  DRIVERS,
  type Driver,
  type LinkEvent,
  type LinkInput,
  type LinkState,
  type LinkStep,
  type LinkTask,
} from '../core/link';
import { linkOf, type Model } from '../core/models';
import { tcpCarrier, type Carrier } from './carrier';

/** A silence on the line, ms, after which the host says its last thing again. */
const QUIET_MS = 2000;

export type LinkOutcome = Extract<LinkEvent, { kind: 'finished' | 'failed' }>;

/**
 * Carries a link task over a TCP port of this machine until it has finished or failed; with `model` null whoever is there is
 * asked who it is. `onEvent` hears everything on the way; `signal` stops it as if the cable were pulled, at the next byte.
 */
export const runLink = (
  port: number,
  model: Model | null,
  task: LinkTask,
  onEvent?: (event: LinkEvent) => void,
  signal?: AbortSignal,
): Promise<LinkOutcome> =>
  carry(tcpCarrier(port), DRIVERS[model ? linkOf(model).kind : 'stream'], model, task, onEvent, signal);

/** Brings a driver and a carrier together. */
function carry(
  carrier: Carrier,
  driver: Driver,
  model: Model | null,
  task: LinkTask,
  onEvent: (event: LinkEvent) => void = () => {},
  signal?: AbortSignal,
): Promise<LinkOutcome> {
  return new Promise((resolve) => {
    let state: LinkState | undefined;
    let quiet: NodeJS.Timeout | undefined;

    const advance = (step: LinkStep) => {
      state = step.state;
      if (step.send.length > 0) line.send(Buffer.concat(step.send));
      let outcome: LinkOutcome | undefined;
      for (const event of step.events) {
        onEvent(event);
        if (event.kind === 'finished' || event.kind === 'failed') outcome = event;
      }
      clearTimeout(quiet);
      // The port is free for the next pass only when the other end has let go of it too.
      if (outcome) void line.end().then(() => resolve(outcome));
      else quiet = setTimeout(() => input({ kind: 'quiet' }), QUIET_MS);
    };
    const input = (what: LinkInput) => {
      if (state && driver.isOpen(state)) advance(driver.step(state, what));
    };

    const line = carrier.open({
      opened: () => advance(driver.start(model, task)),
      heard: (bytes) => input({ kind: 'bytes', bytes }),
      closed: () => {
        clearTimeout(quiet);
        if (state) input({ kind: 'closed' });
        else resolve({ kind: 'failed', reason: 'The port is not there any more.', radio: 'untouched' });
      },
    });
    signal?.addEventListener('abort', () => line.cut(), { once: true });
  });
}
