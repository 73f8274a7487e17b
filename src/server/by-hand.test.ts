import { join } from 'node:path';
import type { JobRequest } from '../core/bench';
import type { PlanId, RadioId } from '../core/plan';
import { placing, renaming } from '../core/samples.test.kit';
import { startSim } from '../sim/server';
import { UNITS } from '../sim/bench/units';
import { lookAtBench } from './bench';
import { doneByHand } from './by-hand';
import { listCopies } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { listPlans } from './plan-list';
import { createPlan, getPlan } from './plans';
import { editPlan } from './revisions';

/** What was done on a radio's keys is compared with what was put into it last, on the real bench: a plan, or a sealed copy. */

const UNIT = UNITS.find(({ model }) => model.link?.kind === 'block')!;
let bench: Awaited<ReturnType<typeof startSim>>;
let radioId: RadioId;
dataFolder('by-hand', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 60 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});

const hand = (body: object, path = '') =>
  fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${UNIT.id}${path}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify(body),
  });
const run = async (request: JobRequest) => {
  const { id } = await startJob(request);
  for (;;) {
    const job = await getJob(id);
    if (job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const plans = new Map<string, PlanId>();
/** Whose change on the keys is seen: the plan that was put in last, or none. */
const seen = async () => {
  const names: string[] = [];
  for (const [name, id] of plans)
    if ((await doneByHand(radioId, id)).changes.some(({ place }) => place === '001')) names.push(name);
  return names;
};
let turns = 0;
/** Somebody turns memory 1 to a frequency that it never had, and the radio is read. */
const turnAndRead = async () => {
  await hand({ key: { slot: 1, rx: 146_000_000 + 12_500 * ++turns } });
  expect(await run({ kind: 'read', radioId })).toMatchObject({ state: 'done' });
};
const write = async (name: string) => {
  const planId = plans.get(name)!;
  return run({ kind: 'write', radioId, planId, planRevision: (await getPlan(planId)).revision });
};
const restore = async (copyId: string) => run({ kind: 'restore', radioId, copyId });
/** Breaks off what is begun next in its second module, and goes on with it. */
const brokenAndResumed = async (job: () => ReturnType<typeof run>) => {
  await hand({ kind: 'pull', atByte: 0x4400 + 3000 }, '/faults');
  expect(await job()).toMatchObject({ state: 'failed', result: { radio: 'half written' } });
  await hand({ plugged: true });
  return run({ kind: 'resume', radioId });
};

beforeAll(async () => {
  await hand({ plugged: true });
  radioId = (await lookAtBench()).radios.find(({ serial }) => serial === UNIT.serial)!.id;
  for (const name of ['Coast', 'Hills']) {
    const { plan } = await createPlan({ name, modelId: UNIT.model.id, owner });
    await editPlan(plan.id, 1, placing(0, 1, 2));
    plans.set(name, plan.id);
  }
});

test('it is compared with the plan that was put in last, and with none after a copy of something else', async () => {
  const first = (await run({ kind: 'read', radioId })).result.copyId!;
  const after = new Map<string, string>();
  const steps: [what: string, job: () => ReturnType<typeof run>, then: string[]][] = [
    ['Coast is written', () => write('Coast'), ['Coast']],
    ['Hills is written', () => write('Hills'), ['Hills']],
    ['what it held first is restored', () => restore(first), []],
    ['what was sealed after Coast is restored', () => restore(after.get('Coast is written')!), ['Coast']],
    [
      'Hills is changed, breaks off and goes on',
      async () => {
        await editPlan(plans.get('Hills')!, 2, renaming(2, 'Later'));
        return brokenAndResumed(() => write('Hills'));
      },
      ['Hills'],
    ],
    ['the first breaks off and goes on', () => brokenAndResumed(() => restore(first)), []],
    [
      'what was sealed after Hills breaks off and goes on',
      () => brokenAndResumed(() => restore(after.get('Hills is written')!)),
      ['Hills'],
    ],
  ];
  for (const [what, job, then] of steps) {
    const done = await job();
    expect([what, done.state]).toEqual([what, 'done']);
    after.set(what, done.result.writtenCopyId!);
    expect([what, await seen()]).toEqual([what, []]);
    await turnAndRead();
    expect([what, await seen()]).toEqual([what, then]);
  }
  // Each copy says what it is of; newest first, of the same content once.
  const copies = await listCopies(radioId);
  expect(
    copies.map(({ reason, plan }) => (plan ? `${reason} ${plan.name} ${plan.revision}` : reason)).reverse(),
  ).toEqual([
    'first read',
    'after write Coast 2',
    'read',
    'after write Hills 2',
    'read',
    'after restore',
    'read',
    'after restore',
    'read',
    'after write Hills 3',
    'read',
    'after restore',
    'read',
    'after restore',
    'read',
  ]);
  // A write that went on is one of its plan.
  expect((await listPlans()).map(({ name, written }) => [name, written?.revision])).toEqual([
    ['Hills', 3],
    ['Coast', 2],
  ]);
});

test('after a write that may be in the radio or not, nothing is said of its keys', async () => {
  expect(await write('Coast')).toMatchObject({ state: 'done' });
  await turnAndRead();
  expect(await seen()).toEqual(['Coast']);
  // Pulled while it is read back: all of Hills is in the radio, and nothing has proved it.
  const { bytes } = (await listCopies(radioId))[0]!;
  await hand({ kind: 'pull', towards: 'host', atByte: Math.floor(1.5 * bytes) }, '/faults');
  expect(await write('Hills')).toMatchObject({ state: 'failed' });
  await hand({ plugged: true });
  await turnAndRead();
  expect(await seen()).toEqual([]);
});

test('a write that ends before its first byte changes nothing of that', async () => {
  const { result } = await write('Coast');
  await turnAndRead();
  // Agreed to by what the radio held before it was turned.
  const planId = plans.get('Hills')!;
  const { revision } = await getPlan(planId);
  const seenCopyId = result.writtenCopyId!;
  expect(await run({ kind: 'write', radioId, planId, planRevision: revision, seenCopyId })).toMatchObject({
    state: 'failed',
  });
  expect(await seen()).toEqual(['Coast']);
  await hand({ kind: 'refuse' }, '/faults');
  expect(await write('Hills')).toMatchObject({ state: 'failed', result: { radio: 'untouched' } });
  await hand({ kind: 'none' }, '/faults');
  expect(await seen()).toEqual(['Coast']);
});
