import { join } from 'node:path';
import { decodeImage } from '../core/image';
import { kestrelC1 } from '../core/models/kestrel-c1';
import { ternP2 } from '../core/models/tern-p2';
import type { RadioId } from '../core/plan';
import { placing } from '../core/samples.test.kit';
import { startSim } from '../sim/server';
import { UNITS } from '../sim/bench/units';
import { lookAtBench } from './bench';
import { getCopy, newestCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { compareCopy } from './compare-copies';
import { ownIdIn } from './own-ids';
import { createPlan, getPlan } from './plans';
import { editPlan } from './revisions';
import { getSeveral, startSeveral } from './several';

/** One plan to several radios of the bench, one of which fails. */

let bench: Awaited<ReturnType<typeof startSim>>;
dataFolder('several', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 200 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const hand = (path: string, body: object) =>
  fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${path}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify(body),
  });
const ids: RadioId[] = [];
let planId: Awaited<ReturnType<typeof createPlan>>['plan']['id'];
const over = async (id: string) => {
  for (;;) {
    const batch = await getSeveral(id);
    if (!batch.running) return batch;
    await new Promise((done) => setTimeout(done, 20));
  }
};

beforeAll(async () => {
  for (const id of ['tern-1', 'tern-2', 'gannet-1', 'curlew-1']) {
    await hand(id, { plugged: true });
    const { serial } = UNITS.find((unit) => unit.id === id)!;
    const radio = (await lookAtBench()).radios.find((one) => one.serial === serial)!;
    ids.push(radio.id);
    const read = await startJob({ kind: 'read', radioId: radio.id });
    while ((await getJob(read.id)).state === 'running') await new Promise((done) => setTimeout(done, 10));
  }
  planId = (await createPlan({ name: 'All of us', modelId: 'tern-p2', owner })).plan.id;
  await editPlan(planId, 1, placing(1, 2, 3));
});
const greeting = async (radio: RadioId) => {
  const held = decodeImage((await getCopy((await newestCopy(radio))!.id)).image, ternP2);
  return held.ok && [held.value.settings.greeting, held.value.channels.length];
};

test.each([true, false])(
  'each gets the plan and its own greeting; the one that fails stops no other (at once: %s)',
  async (together) => {
    const mark = together ? 'A' : 'B';
    await hand('gannet-1/faults', { kind: 'refuse' });
    const started = await startSeveral({
      planId,
      planRevision: 2,
      together,
      radios: ids.map((radioId, at) => ({
        radioId,
        own: (at < 2 ? { greeting: `${mark} ${at}` } : {}) as Record<string, string>,
      })),
    });
    expect(started.rows.map(({ state }) => state)).toEqual(['waiting', 'waiting', 'waiting', 'waiting']);
    const { rows, planName } = await over(started.id);
    expect(planName).toBe('All of us');
    expect(rows.map(({ state }) => state)).toEqual(['done', 'done', 'failed', 'done']);
    expect(rows[2]!.message).toContain('refuses to be written');
    // 8,192 bytes less the 16 of its counters.
    expect(rows[0]!.proved).toBe(8176);
    expect(await greeting(ids[0]!)).toEqual([`${mark} 0`, 3]);
    expect(await greeting(ids[1]!)).toEqual([`${mark} 1`, 3]);
    expect((await lookAtBench()).radios.find(({ id }) => id === ids[1])!.own).toEqual({
      greeting: `${mark} 1`,
    });
  },
);

test('sent again with its key it is the one that was begun', async () => {
  const request = {
    planId,
    planRevision: 2,
    together: true,
    radios: [{ radioId: ids[0]!, own: { greeting: 'ONCE' } }],
  };
  const [first, again] = [
    await startSeveral(request, { key: 'page1234.1' }),
    await startSeveral(request, { key: 'page1234.1' }),
  ];
  expect(again.id).toBe(first.id);
  expect((await over(first.id)).rows).toMatchObject([{ state: 'done' }]);
});

test('copies are held against each other and against a plan: channel by channel, beside them in words, and the bytes below', async () => {
  const [first, second, gannet] = await Promise.all(ids.map(async (id) => (await newestCopy(id))!));
  const units = await compareCopy(first!.id, { copy: second!.id });
  expect(units.called).toMatch(/^LK204533, 20/);
  expect(units.change).toMatchObject({ added: [], changed: [], removed: [], same: 3 });
  // The first shows names and the other frequencies (sim/bench/units), and each has a power-on text of its own, written above.
  expect(units.besides).toEqual([
    { mark: 'changed', title: 'Side A shows', text: 'frequency, was name' },
    { mark: 'changed', title: 'Power-on text', text: 'B 1, was ONCE', unitOwn: true },
  ]);
  // 8,192 bytes; the serial is the unit's own, LK204417 and LK204533: three figures differ.
  expect(units.bytes).toMatchObject({ of: 8192 });
  expect(units.bytes!.areas.reduce((sum, { different }) => sum + different, 0)).toBe(units.bytes!.different);
  expect(
    first!.image.subarray(0x08, 0x10).filter((byte, at) => byte !== second!.image[0x08 + at]).length,
  ).toBe(3);
  const { plan } = await getPlan(planId);
  await editPlan(planId, 2, {
    name: 'change',
    changes: [{ id: plan.channels[0]!.id, set: { name: 'Otherwise' } }],
  });
  const against = await compareCopy(first!.id, { plan: planId });
  // As it was before its channels were put there.
  expect(await compareCopy(first!.id, { plan: planId, revision: 1 })).toMatchObject({
    called: expect.stringMatching(/, revision 1$/) as string,
    change: { added: [], changed: [], same: 0 },
  });
  await expect(compareCopy(first!.id, { plan: planId, revision: 9999 })).rejects.toMatchObject({
    kind: 'unknown-revision',
  });
  expect(against).toMatchObject({ called: 'the plan “All of us”', bytes: null });
  expect(against.change.changed.map(({ after }) => after.slot)).toEqual([plan.channels[0]!.slot]);
  await expect(compareCopy(first!.id, { copy: gannet!.id })).rejects.toMatchObject({ kind: 'other-unit' });
});

test('a plan that has changed since is not written to any of them', async () => {
  await expect(
    startSeveral({ planId, planRevision: 1, together: true, radios: [{ radioId: ids[0]!, own: {} }] }),
  ).rejects.toMatchObject({ kind: 'plan-changed' });
  await expect(getSeveral('bt_nothing')).rejects.toMatchObject({ kind: 'not-found' });
});

test('a radio that goes from module to module, and one who looks at the bench meanwhile, keep no other radio from being begun', async () => {
  const [first, second, third, curlew] = ids as [RadioId, RadioId, RadioId, RadioId];
  let begun = 0;
  let looking = true;
  const looks = (async () => {
    while (looking) await lookAtBench();
  })();
  const reads = async (radioId: RadioId, until: () => boolean) => {
    while (!until()) {
      const { id } = await startJob({ kind: 'read', radioId });
      begun++;
      while ((await getJob(id)).state === 'running') await new Promise((done) => setTimeout(done, 5));
      expect(await getJob(id)).toMatchObject({ state: 'done' });
    }
  };
  let times = 0;
  let over = false;
  const through = reads(curlew, () => times++ === 4).finally(() => {
    over = true;
  });
  const all = await Promise.allSettled([
    through,
    ...[first, second, third].map((id) => reads(id, () => over)),
  ]);
  looking = false;
  await looks;
  expect(all.filter(({ status }) => status === 'rejected')).toEqual([]);
  expect(begun).toBeGreaterThan(12);
});

test('two digital radios are not given one own ID; each gets its own', async () => {
  const kestrels: RadioId[] = [];
  for (const id of ['kestrel-1', 'kestrel-2']) {
    await hand(id, { plugged: true });
    const { serial } = UNITS.find((unit) => unit.id === id)!;
    const radioId = (await lookAtBench()).radios.find((one) => one.serial === serial)!.id;
    kestrels.push(radioId);
    const read = await startJob({ kind: 'read', radioId });
    while ((await getJob(read.id)).state === 'running') await new Promise((done) => setTimeout(done, 10));
  }
  const { plan } = await createPlan({ name: 'Rescue', modelId: 'kestrel-c1', owner });
  await editPlan(plan.id, 1, placing(1));
  const { revision } = await editPlan(plan.id, 2, {
    name: 'describe',
    set: { settings: { 'kestrel-c1': { radioId: 1_160_073 } } },
  });
  const write = (own: Record<string, number>) =>
    startSeveral({
      ...{ planId: plan.id, planRevision: revision, together: true },
      radios: [
        { radioId: kestrels[0]!, own: {} },
        { radioId: kestrels[1]!, own },
      ],
    });
  await expect(write({})).rejects.toMatchObject({
    status: 422,
    kind: 'own-id-twice',
    detail: expect.stringContaining('CV110073 and CV110091 would both have the own ID 1160073') as string,
  });
  const batch = await over((await write({ radioId: 1_160_091 })).id);
  expect(batch.rows.map(({ state }) => state)).toEqual(['done', 'done']);
  const idIn = async (radio: RadioId) =>
    ownIdIn((await getCopy((await newestCopy(radio))!.id)).image, kestrelC1);
  expect(await Promise.all(kestrels.map(idIn))).toEqual([1_160_073, 1_160_091]);
});
