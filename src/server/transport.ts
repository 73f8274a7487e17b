import { connect } from 'node:net';
import {
  startLink,
  stepLink,
  isOpen,
  type LinkEvent,
  type LinkInput,
  type LinkState,
  type LinkStep,
  type LinkTask,
} from '../core/link';
import type { Model } from '../core/models';

/** A silence on the line, ms, after which the host says its last thing again. */
const QUIET_MS = 2000;
/** A port that does not take the connection within this, ms, counts as vanished. */
const CONNECT_MS = 3000;
/** How long the other end may take to let go of the port, ms. */
const CLOSING_MS = 1000;

export type LinkOutcome = Extract<LinkEvent, { kind: 'finished' | 'failed' }>;

/**
 * Carries a link task over a TCP port of this machine until it has finished or failed. `onEvent` hears everything on
 * the way; `signal` stops it as if the cable were pulled, at the next byte.
 */
export function runLink(
  port: number,
  model: Model,
  task: LinkTask,
  onEvent: (event: LinkEvent) => void = () => {},
  signal?: AbortSignal,
): Promise<LinkOutcome> {
  return new Promise((resolve) => {
    const socket = connect({ port, host: '127.0.0.1', noDelay: true });
    let state: LinkState | undefined;
    let quiet: NodeJS.Timeout | undefined;

    const advance = (step: LinkStep) => {
      state = step.state;
      if (step.send.length > 0) socket.write(Buffer.concat(step.send));
      let outcome: LinkOutcome | undefined;
      for (const event of step.events) {
        onEvent(event);
        if (event.kind === 'finished' || event.kind === 'failed') outcome = event;
      }
      clearTimeout(quiet);
      if (outcome) {
        // The port is free for the next pass only when the other end has let go of it too.
        const done = outcome;
        if (socket.destroyed) return resolve(done);
        socket.once('close', () => resolve(done));
        socket.end();
        setTimeout(() => socket.destroy(), CLOSING_MS).unref();
      } else quiet = setTimeout(() => input({ kind: 'quiet' }), QUIET_MS);
    };
    const input = (what: LinkInput) => {
      if (state && isOpen(state)) advance(stepLink(state, what));
    };

    const opening = setTimeout(() => socket.destroy(), CONNECT_MS);
    socket.on('connect', () => {
      clearTimeout(opening);
      advance(startLink(model, task));
    });
    socket.on('data', (bytes) => input({ kind: 'bytes', bytes }));
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      clearTimeout(opening);
      clearTimeout(quiet);
      if (state) input({ kind: 'closed' });
      else resolve({ kind: 'failed', reason: 'The port is not there any more.', radio: 'untouched' });
    });
    signal?.addEventListener('abort', () => socket.destroy(), { once: true });
  });
}
