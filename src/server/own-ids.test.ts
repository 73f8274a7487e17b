import { join } from 'node:path';
import { digital, groupId } from '../core/digital.test.kit';
import { startSim } from '../sim/server';
import { kestrelC1 } from '../core/models/kestrel-c1';
import { lookAtBench, previewWrite } from './bench';
import { getCopy, newestCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { ownIdIn } from './own-ids';
import { createPlan } from './plans';
import { editPlan } from './revisions';
import { setUnitValues } from './unit-values';

/** Own IDs on the real bench: two Kestrels of one plan would both be the same radio to a network. */

let bench: Awaited<ReturnType<typeof startSim>>;
dataFolder('own-ids', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 60 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});

const plugged = async (unit: string, serial: string) => {
  await fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${unit}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify({ plugged: true }),
  });
  return (await lookAtBench()).radios.find((radio) => radio.serial === serial)!;
};
const done = async (started: { id: string }) => {
  for (;;) {
    const job = await getJob(started.id);
    if (job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};
const ids = async (radio: Parameters<typeof previewWrite>[0], plan: Parameters<typeof previewWrite>[1]) =>
  (await previewWrite(radio, plan)).cautions
    .map(({ text }) => text)
    .filter((text) => text.includes('own ID'));

test('before a write it is said that another radio has the same own ID', async () => {
  const one = await plugged('kestrel-1', 'CV110073');
  const two = await plugged('kestrel-2', 'CV110091');
  for (const { id } of [one, two])
    expect(await done(await startJob({ kind: 'read', radioId: id }))).toMatchObject({ state: 'done' });
  const owner = { callSign: 'Q7RS', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const { plan, revision } = await createPlan(
    { name: 'Team', modelId: 'kestrel-c1', owner },
    {
      channels: [digital(1, { talkgroup: groupId(1) })],
      talkgroups: [{ id: groupId(1), name: 'Rescue', number: 160, call: 'group' }],
      // what the first of them has
      settings: { 'kestrel-c1': { radioId: 1_160_073 } },
    },
  );
  expect(await ids(one.id, plan.id)).toEqual([]);
  expect(await ids(two.id, plan.id)).toEqual([
    'Its own ID 1160073 is that of CV110073 too: nobody can tell the two apart, and a network takes them for one.',
  ]);
  await editPlan(plan.id, revision, {
    name: 'describe',
    set: { settings: { 'kestrel-c1': { radioId: 1_160_091 } } },
  });
  expect(await ids(two.id, plan.id)).toEqual([]);
  // and where nothing is known of it, the radio’s own is what stays
  await editPlan(plan.id, revision + 1, { name: 'describe', set: { settings: {} } });
  expect((await previewWrite(two.id, plan.id)).cautions.map(({ text }) => text)).toContainEqual(
    expect.stringContaining('The radio’s own ID is not set'),
  );
  // The first radio has one, which stays.
  expect(await ids(one.id, plan.id)).toEqual([]);
});

test('a unit keeps its ID: it is written whatever the plan sets, named before, and no copy of another unit replaces it', async () => {
  const [one, two] = [await plugged('kestrel-1', 'CV110073'), await plugged('kestrel-2', 'CV110091')];
  const idOf = async (radio: typeof one) => {
    const copy = await getCopy((await newestCopy(radio.id))!.id);
    return ownIdIn(copy.image, kestrelC1);
  };
  const owner = { callSign: 'Q7RS', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const { plan } = await createPlan(
    { name: 'Two units', modelId: 'kestrel-c1', owner },
    { channels: [digital(1)], settings: { 'kestrel-c1': { radioId: 1_160_500 } } },
  );
  await setUnitValues(two.id, { radioId: 1_160_092 });
  const { besides, planRevision } = await previewWrite(two.id, plan.id);
  expect(besides).toContainEqual(
    expect.objectContaining({ title: 'Own ID', text: '1160092, was unknown (0x00000000)' }),
  );
  const written = await startJob({ kind: 'write', radioId: two.id, planId: plan.id, planRevision });
  expect(await done(written)).toMatchObject({ state: 'done' });
  expect([await idOf(one), await idOf(two)]).toEqual([1_160_073, 1_160_092]);
  const theirs = (await newestCopy(one.id))!.id;
  const restored = await startJob({ kind: 'restore', radioId: two.id, copyId: theirs, ofAnother: true });
  expect(await done(restored)).toMatchObject({ state: 'done' });
  expect([await idOf(one), await idOf(two)]).toEqual([1_160_073, 1_160_092]);
});
