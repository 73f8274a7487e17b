import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { tasks, type Asked, type Said } from './tasks';

/**
 * A process that reads one file for the server and ends. Nothing that a file does to it, a loop without an end or a memory that is full, keeps
 * anybody waiting who did not send that file.
 */

const say = (said: Said) => process.send!(said);

// A thread of its own ends this process where reading takes too much, or where nobody waits any more.
new Worker(join(__dirname, 'watch.js')).unref();

let taken: (() => void) | undefined;

async function work({ task, input }: Extract<Asked, { task: unknown }>): Promise<void> {
  const run = tasks[task] as (input: unknown, part: (part: unknown) => Promise<void>) => Promise<unknown>;
  try {
    const done = await run(input, (part) => {
      say({ part });
      return new Promise<void>((goOn) => (taken = goOn));
    });
    say({ done });
  } catch (error) {
    say({ mistake: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
}

process.on('message', (asked: Asked) => {
  if ('taken' in asked) taken?.();
  else void work(asked);
});
process.once('disconnect', () => process.exit());
