import { setImmediate as whatWaits } from 'node:timers/promises';
import type { Stepwise } from '../core/stepwise';

/** Longest that the server's thread works on one thing before others have their turn, ms. */
const LONGEST_MS = 8;

/** Lets all that waits have its turn. */
export const letOthers = (): Promise<void> => whatWaits();

/** Runs a long computation on the server's thread; between its steps others have their turn. */
export async function inSteps<T>(steps: Stepwise<T>): Promise<T> {
  for (let began = performance.now(); ;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (performance.now() - began < LONGEST_MS) continue;
    await letOthers();
    began = performance.now();
  }
}
