import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { tasks, type Asked, type Said } from './tasks';

/** The reader process: reads one file for the server, then ends. A file that loops for ever or fills the memory stops this process only. */

const say = (said: Said) => process.send!(said);

// Its own thread ends this process if a limit is reached or the server is gone.
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
