import {
  isAwaited,
  isLive,
  isLiveOpen,
  startLive,
  stepLive,
  type LiveEvent,
  type LiveInput,
  type LiveStep,
} from '../core/link';
import type { Model } from '../core/models';
import { tcpCarrier } from './carrier';
import { afterSilence } from './silence';

/** A silence on a line on which something is awaited, ms, after which it is said again. */
const QUIET_MS = 700;
/** How often it is asked whether both still have the same, ms. */
const BEAT_MS = 1000;

/** A live link over a line that is open or being opened. */
export interface LiveLine {
  /** The radio's image as far as it has said; undefined while it cannot be told to change, since a change is under way. */
  ready(): Uint8Array | undefined;
  /** The radio is to hold this image. Only while it is ready. */
  want(image: Uint8Array): void;
  /** Lets go of the line in good order. */
  end(): Promise<void>;
}

/** Brings a live link and a TCP port of this machine together. `failed` is the last of its events. */
export function openLive(
  port: number,
  model: Model,
  serial: string | null,
  hear: (event: LiveEvent) => void,
): LiveLine {
  let state = startLive(model, serial);
  let begun = false;
  let over = false;
  let endQuiet = () => {};
  let beat: NodeJS.Timeout | undefined;
  const rest = () => {
    endQuiet();
    clearInterval(beat);
  };
  const advance = (step: LiveStep) => {
    state = step;
    if (step.send.length > 0) line.send(Buffer.concat(step.send));
    endQuiet();
    if (!isLiveOpen(state.state)) {
      rest();
      line.cut();
    } else if (isAwaited(state.state)) endQuiet = afterSilence(QUIET_MS, () => input({ kind: 'quiet' }));
    for (const event of step.events) hear(event);
  };
  const input = (what: LiveInput) => {
    if (begun && isLiveOpen(state.state)) advance(stepLive(state.state, what));
  };
  const line = tcpCarrier(port).open({
    opened() {
      begun = true;
      beat = setInterval(() => input({ kind: 'beat' }), BEAT_MS).unref();
      advance(state);
    },
    heard: (bytes) => input({ kind: 'bytes', bytes }),
    closed() {
      if (begun) input({ kind: 'closed' });
      else if (!over) hear({ kind: 'failed', reason: 'The port is not there any more.', radio: 'untouched' });
      rest();
    },
  });
  return {
    ready: () => (isLive(state.state) ? state.state.image : undefined),
    want: (image) => input({ kind: 'want', image }),
    end() {
      rest();
      [begun, over] = [false, true];
      return line.end();
    },
  };
}
