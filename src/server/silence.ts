/**
 * Waits until a line has been silent for so long, in ms, then calls `then`; gives what cancels the wait. Links count silences with it, so that
 * a test can say when a line is silent instead of waiting.
 */
export type Silence = (ms: number, then: () => void) => () => void;

const byTimer: Silence = (ms, then) => {
  const timer = setTimeout(then, ms);
  return () => clearTimeout(timer);
};

let current = byTimer;

export const afterSilence: Silence = (ms, then) => current(ms, then);

/** For tests: what counts silences from now on; without an argument, the timer again. */
export function countSilencesBy(silence: Silence = byTimer): void {
  current = silence;
}
