import { join } from 'node:path';
import { digital, groupId } from '../core/digital.test.kit';
import { startSim } from '../sim/server';
import { lookAtBench, previewWrite } from './bench';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { createPlan } from './plans';
import { editPlan } from './revisions';

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
    expect.stringContaining('the radio’s own ID is not set'),
  );
});
