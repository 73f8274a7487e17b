import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { WorkInput, WorkName, WorkOutput } from '../workers/server-work';

/**
 * Has plans worked out in a thread beside the server's own, which goes on answering meanwhile (workers/server-work.ts). The thread is kept; where it
 * breaks down what it was asked fails, and the next begins another.
 */

interface Asked {
  done: (value: unknown) => void;
  failed: (error: Error) => void;
}

// One for the process, however often modules are loaded again.
const kept = globalThis as { veridonBeside?: { worker: Worker; asked: Map<number, Asked> } };
let numbers = 0;

function started() {
  if (kept.veridonBeside) return kept.veridonBeside;
  const file = join(process.cwd(), '.build', 'reader', 'server-worker.js');
  // Said in this way the build leaves the file alone, which is made already.
  const worker = Reflect.construct(Worker, [file]) as Worker;
  const asked = new Map<number, Asked>();
  const mine = (kept.veridonBeside = { worker, asked });
  worker.on('message', ({ number, ...said }: { number: number; done?: unknown; mistake?: string }) => {
    const one = asked.get(number);
    asked.delete(number);
    // Where nobody waits for it the process may end.
    if (asked.size === 0) worker.unref();
    if (said.mistake === undefined) one?.done(said.done);
    else one?.failed(new Error(said.mistake));
  });
  const broke = (error: unknown) => {
    if (kept.veridonBeside === mine) delete kept.veridonBeside;
    for (const { failed } of asked.values())
      failed(error instanceof Error ? error : new Error('The thread that works plans out has ended.'));
    asked.clear();
  };
  worker.on('error', broke);
  worker.on('exit', broke);
  return mine;
}

/** Works something out beside this thread. */
export function beside<N extends WorkName>(name: N, input: WorkInput<N>): Promise<WorkOutput<N>> {
  const { worker, asked } = started();
  const number = ++numbers;
  return new Promise<WorkOutput<N>>((done, failed) => {
    asked.set(number, { done: done as (value: unknown) => void, failed });
    worker.ref();
    worker.postMessage({ number, name, input });
  });
}
