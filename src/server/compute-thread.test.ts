import type { Worker } from 'node:worker_threads';
import { fit } from '../core/fit';
import { ternP2 } from '../core/models/tern-p2';
import { NEW_OWNER, newPlan, type PlanId } from '../core/plan';
import { channel } from '../core/samples.test.kit';
import { computeInThread } from './compute-thread';

/** The thread that computes for the server: it gives what core gives, and a thread that fails is followed by another. */

const plan = {
  ...newPlan('pl_computed' as PlanId, { name: 'Computed', modelId: 'tern-p2', owner: NEW_OWNER }),
  channels: [channel(1, 145_500_000)],
};
const asked = { revision: 4, plan, modelId: undefined };
const thread = () =>
  (globalThis as { veridonComputeThread?: { worker: Worker } }).veridonComputeThread?.worker;

afterAll(() => thread()?.terminate());

test('gives what core gives, call by call', async () => {
  const [fitted, counts, file] = await Promise.all([
    computeInThread('fit', asked),
    computeInThread('count', { plan, neighbours: [] }),
    computeInThread('write', { format: 'csv', channels: [], name: 'Empty' }),
  ]);
  expect(JSON.parse(fitted)).toEqual({ revision: 4, fit: fit(plan, ternP2) });
  // The licence grade is not stated, which is the first thing that Check says.
  expect(counts.length).toBeGreaterThan(0);
  expect(Buffer.from(file).toString()).toContain('Name');
});

test('a call that fails says why, and the next one works', async () => {
  await expect(computeInThread('fit', { ...asked, modelId: 'no-such' })).rejects.toThrow(
    'no-such is no model',
  );
  expect(await computeInThread('fit', { ...asked, modelId: 'tern-p3' })).toContain('"modelId":"tern-p3"');
});

test('where the thread ends its calls fail, and the next call starts another', async () => {
  const first = thread()!;
  // So many that not all of them are answered before the thread ends.
  const many = Array.from({ length: 500 }, () => computeInThread('fit', asked));
  void first.terminate();
  const ends = await Promise.allSettled(many);
  const failed = ends.flatMap((end) => (end.status === 'rejected' ? [String(end.reason)] : []));
  expect(new Set(failed)).toEqual(new Set(['Error: The compute thread has ended.']));
  expect(await computeInThread('fit', asked)).toContain('"modelId":"tern-p2"');
  expect(thread()).not.toBe(first);
});
