import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Job, PeopleChoice } from '../core/bench';
import { decodePeople, type ShownName } from '../core/image';
import { ospreyD7 } from '../core/models/osprey-d7';
import type { PlanId, RadioId } from '../core/plan';
import { people } from '../db';
import { startSim } from '../sim/server';
import { lookAtBench } from './bench';
import { reading } from './database';
import { dataFolder } from './data-folder.test.kit';
import { boardEnded, rankPeople, startBoard } from './heard-board';
import { getJob, startJob, stopJob } from './jobs';
import { markPerson } from './people';
import { loadEnded, startLoad } from './people-load';
import { createPlan } from './plans';

/** People of the roll into a radio on the bench: who is in it then, by the bench's own file. */

const PEOPLE = 6000;
const SERIAL = 'HR700412';
let bench: Awaited<ReturnType<typeof startSim>>;
let benchFolder: string;
let radioId: RadioId;
let planId: PlanId;
dataFolder('chosen-people', {
  async before(folder) {
    benchFolder = join(folder, 'bench');
    bench = await startSim({ port: 0, folder: benchFolder, speed: 40, people: PEOPLE, keyUps: 20_000 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = benchFolder;
  },
  after: () => bench.close(),
});
const atBench = async (path: string, body: object) =>
  fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${path}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify(body),
  });
beforeAll(async () => {
  await startLoad();
  await startBoard();
  await Promise.all([loadEnded(), boardEnded()]);
  await atBench('osprey-1', { plugged: true });
  radioId = (await lookAtBench()).radios.find(({ serial }) => serial === SERIAL)!.id;
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  planId = (await createPlan({ name: 'Isles', modelId: 'osprey-d7', owner })).plan.id;
});

const inRadio = (): ShownName[] => {
  const { bytes } = JSON.parse(readFileSync(join(benchFolder, `${SERIAL}.people`), 'utf8')) as {
    bytes: string;
  };
  const read = decodePeople(new Uint8Array(Buffer.from(bytes, 'base64')), ospreyD7);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};
const choice = (more: Partial<PeopleChoice> = {}): PeopleChoice => ({
  ...{ planId, template: '{call} {first}', heard: 50, groups: [], who: 'in the roll', rest: true },
  ...more,
});
const ended = async (id: string): Promise<Job> => {
  for (;;) {
    const job = await getJob(id);
    if (job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
};
const write = async (more: Partial<PeopleChoice> = {}) =>
  ended((await startJob({ kind: 'people', radioId, choice: choice(more) })).id);

test('the whole roll goes into the radio, each number with its own name', async () => {
  const job = await write();
  expect(job).toMatchObject({ kind: 'people', state: 'done', result: { people: PEOPLE } });
  // 16 bytes and 20 a person
  expect(job.message).toBe(
    'HR700412 holds 6,000 people, and its sum of all 120,016 bytes is that of what was sent.',
  );
  const rows = await (await reading()).select().from(people);
  expect(rows).toHaveLength(PEOPLE);
  const shown = new Map(inRadio().map(({ id, name }) => [id, name]));
  expect(shown.size).toBe(PEOPLE);
  expect(rows.filter(({ id, call }) => !shown.get(id)!.startsWith(call))).toEqual([]);
  // Letters of other scripts and accents come otherwise; what is plain and fits comes as it is.
  const plain = rows
    .map(({ id, call, first }) => ({ id, wanted: `${call} ${first}` }))
    .filter(({ wanted }) => wanted.length <= 16 && /^[A-Za-z0-9 ]*$/.test(wanted));
  expect(plain.length).toBeGreaterThan(100);
  expect(plain.filter(({ id, wanted }) => shown.get(id) !== wanted)).toEqual([]);
  expect((await lookAtBench()).radios[0]).toMatchObject({ serial: SERIAL, state: 'whole', canResume: false });
});

test('the same people again are not written again', async () =>
  expect((await write()).message).toBe('HR700412 held these 6,000 people already: nothing was written.'));

test('cut to fifty it is those who are heard most, and who is pinned before them', async () => {
  const ranked = await rankPeople({ groups: [], who: 'in the roll', most: 50 });
  expect((await write({ rest: false })).result.people).toBe(50);
  const ids = ranked.ranked.map(({ id }) => id).sort((a, b) => a - b);
  expect(inRadio().map(({ id }) => id)).toEqual(ids);
  const [quiet] = (await (await reading()).select({ id: people.id }).from(people)).filter(
    ({ id }) => !ids.includes(id),
  );
  await markPerson(quiet!.id, { pinned: true, note: '' });
  await write({ rest: false });
  const now = inRadio().map(({ id }) => id);
  expect(now).toHaveLength(50);
  expect(now).toContain(quiet!.id);
  expect(now.filter((id) => ids.includes(id))).toHaveLength(49);
});

test('pulled in the middle it says what is in, and the same write goes on there', async () => {
  const before = inRadio();
  await atBench('osprey-1/faults', { kind: 'pull', towards: 'radio', atByte: 60_000 });
  const job = await write();
  expect(job.state).toBe('failed');
  expect(job.message).toMatch(
    /The port vanished.* [\d,]+ of 120,016 bytes of people are in HR700412\. It shows numbers and no names until they are whole; its plan is as it was\. Write the same people again: it goes on where it was\.$/,
  );
  // Its plan is whole: nothing keeps it from being written.
  expect((await lookAtBench()).radios[0]).toMatchObject({ state: 'whole', canResume: false });
  // What was whole is in the file still, for whoever wants to look; the radio does not use it.
  expect(inRadio()).toEqual(before);
  await atBench('osprey-1', { plugged: true });
  await lookAtBench();
  const again = await write();
  expect(again.state).toBe('done');
  expect(again.result.resumedAt).toBeGreaterThan(40_000);
  expect(again.message).toContain('The write went on at byte ');
  expect(inRadio()).toHaveLength(PEOPLE);
});

test('stopped it says so, and who is in the radio is whole or known to be in part', async () => {
  const { id } = await startJob({ kind: 'people', radioId, choice: choice({ template: '{first} {call}' }) });
  await stopJob(id);
  const job = await ended(id);
  expect(job.state).toBe('stopped');
  expect(job.message).toMatch(/^Stopped\. (The people in HR700412 are as they were|[\d,]+ of [\d,]+ bytes)/);
});

test('what is no template, and a choice of nobody, are refused with a word, and nothing is written', async () => {
  const before = inRadio();
  expect(await write({ template: '{calls}' })).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('There is no field {calls}. Known are {call}, {first}') as string,
  });
  expect(await write({ heard: 0, rest: false })).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('Nobody is chosen') as string,
  });
  expect(inRadio()).toEqual(before);
});

test('a radio that has no such memory, and one that may go out in the middle, are refused before anything is sent', async () => {
  await atBench('kestrel-1', { plugged: true });
  const kestrel = (await lookAtBench()).radios.find(({ modelId }) => modelId === 'kestrel-c1')!.id;
  await expect(startJob({ kind: 'people', radioId: kestrel, choice: choice() })).rejects.toMatchObject({
    status: 422,
    kind: 'no-people-memory',
  });
  await atBench('osprey-1', { battery: 9, plugged: false });
  await lookAtBench();
  await atBench('osprey-1', { plugged: true });
  await lookAtBench();
  await expect(startJob({ kind: 'people', radioId, choice: choice() })).rejects.toMatchObject({
    status: 409,
    kind: 'battery-low',
  });
});
