import type { Silence } from './silence';

/** Turns of the event loop without a byte on any line after which all lines are silent. */
const IDLE_TURNS = 8;

/**
 * Time for links between this process and a bench in it. It stands still while bytes are on a line and moves on to the next silence when there
 * are none: a radio that says nothing costs a test no time, and a slow machine is never taken for a silent radio.
 */
export function silenceOf(isBusy: () => boolean): { silence: Silence; hold: () => void; goOn: () => void } {
  let now = 0;
  let idle = 0;
  let held = false;
  let timer: NodeJS.Timeout | undefined;
  const waiting = new Set<{ due: number; then: () => void }>();
  const turn = () => {
    timer = undefined;
    idle = isBusy() ? 0 : idle + 1;
    // What waited may have been cancelled since.
    if (idle >= IDLE_TURNS && waiting.size > 0) {
      idle = 0;
      const [next] = [...waiting].sort((a, b) => a.due - b.due);
      waiting.delete(next!);
      now = next!.due;
      next!.then();
    }
    goOn();
  };
  const goOn = () => {
    if (waiting.size > 0 && !timer && !held) timer = setTimeout(turn, 2);
  };
  const silence: Silence = (ms, then) => {
    const one = { due: now + ms, then };
    waiting.add(one);
    // Whoever waits anew has just sent or heard something.
    idle = 0;
    goOn();
    return () => void waiting.delete(one);
  };
  return {
    silence,
    /** From now on no silence ends, however long: what is under way stays as it is. */
    hold() {
      held = true;
      clearTimeout(timer);
      timer = undefined;
    },
    goOn() {
      held = false;
      idle = 0;
      goOn();
    },
  };
}
