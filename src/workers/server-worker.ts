import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { work, type WorkName } from './server-work';

/** The thread in which the server has plans worked out: one thing after the other. */

try {
  // Of this thread alone, as Linux has it: behind whoever waits for an answer.
  setPriority(0, 5);
} catch {
  // Without priorities they share alike.
}

parentPort!.on(
  'message',
  async ({ number, name, input }: { number: number; name: WorkName; input: unknown }) => {
    try {
      const run = work[name] as (input: unknown) => unknown;
      parentPort!.postMessage({ number, done: await run(input) });
    } catch (error) {
      parentPort!.postMessage({ number, mistake: error instanceof Error ? error.message : String(error) });
    }
  },
);
