import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { work, type WorkName } from './server-work';

/** The compute thread of the server; runs one piece of work after another. */

try {
  // On Linux this lowers the priority of this thread only.
  setPriority(0, 5);
} catch {
  // The system has no priorities.
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
