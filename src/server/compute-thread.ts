import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { WorkInput, WorkName, WorkOutput } from '../workers/server-work';

/**
 * Runs heavy work on plans in a worker thread (workers/server-work.ts), so that the server's thread keeps answering. The thread is reused. If it fails, its
 * pending calls fail, and the next call starts another thread.
 */

interface Pending {
  done: (value: unknown) => void;
  failed: (error: Error) => void;
}

// One for the process, however often modules are loaded again.
const kept = globalThis as { veridonComputeThread?: { worker: Worker; pending: Map<number, Pending> } };
let numbers = 0;

function started() {
  if (kept.veridonComputeThread) return kept.veridonComputeThread;
  const file = join(process.cwd(), '.build', 'reader', 'server-worker.js');
  // Reflect.construct keeps the bundler from processing the file, which is bundled already.
  const worker = Reflect.construct(Worker, [file]) as Worker;
  const pending = new Map<number, Pending>();
  const mine = (kept.veridonComputeThread = { worker, pending });
  worker.on('message', ({ number, ...said }: { number: number; done?: unknown; mistake?: string }) => {
    const one = pending.get(number);
    pending.delete(number);
    // An idle thread must not keep the process alive.
    if (pending.size === 0) worker.unref();
    if (said.mistake === undefined) one?.done(said.done);
    else one?.failed(new Error(said.mistake));
  });
  const broke = (error: unknown) => {
    if (kept.veridonComputeThread === mine) delete kept.veridonComputeThread;
    for (const { failed } of pending.values())
      failed(error instanceof Error ? error : new Error('The compute thread has ended.'));
    pending.clear();
  };
  worker.on('error', broke);
  worker.on('exit', broke);
  return mine;
}

/** Runs one piece of work in the thread, after those that were asked for before it. */
export function computeInThread<N extends WorkName>(name: N, input: WorkInput<N>): Promise<WorkOutput<N>> {
  const { worker, pending } = started();
  const number = ++numbers;
  return new Promise<WorkOutput<N>>((done, failed) => {
    pending.set(number, { done: done as (value: unknown) => void, failed });
    worker.ref();
    worker.postMessage({ number, name, input });
  });
}
