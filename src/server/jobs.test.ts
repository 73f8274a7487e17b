import { eq } from 'drizzle-orm';
import { join } from 'node:path';
import { IDENT, placing, renaming } from '../core/samples.test.kit';
import { decodeImage } from '../core/image';
import { ternP2 } from '../core/models/tern-p2';
import type { RadioId } from '../core/plan';
import { jobs, openDatabase } from '../db';
import { startSim } from '../sim/server';
import { UNITS } from '../sim/bench/units';
import { dataFolder } from './data-folder.test.kit';
import { closeLostJobs, getJob, listJobs, startJob, stopJob } from './jobs';
import { listPlans } from './plan-list';
import { createPlan, setRemoved } from './plans';
import { seeRadio } from './radios';
import { editPlan } from './revisions';
import { lookAtBench, previewWrite } from './bench';
import { doneByHand } from './by-hand';
import { getCopy, listCopies, noteCopy, planFromCopy } from './copies';

/** Reads, writes and restores against the real bench, in this process; the database in a directory of its own. */

const SERIAL = UNITS[0]!.serial;
let bench: Awaited<ReturnType<typeof startSim>>;
/** Our id of the unit with SERIAL. */
let radioId: RadioId;
const idOf = async (serial: string) =>
  (await lookAtBench()).radios.find((radio) => radio.serial === serial)!.id;
dataFolder('jobs', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 40 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});
beforeAll(async () => {
  await atBench(`radios/${UNITS[0]!.id}`, { plugged: true });
  radioId = await idOf(SERIAL);
});

const atBench = async (path: string, body: object) =>
  (
    await fetch(`${process.env.VERIDON_BENCH_URL}/bench/${path}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${bench.key}` },
      body: JSON.stringify(body),
    })
  ).json();
const ended = async (id: string) => {
  for (;;) {
    const job = await getJob(id);
    if (job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const threeChannels = async () => {
  const { plan } = await createPlan({ name: 'Three', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(0, 1, 2));
  return plan.id;
};
const newestContent = async () => {
  const [copy] = await listCopies(radioId);
  const content = decodeImage((await getCopy(copy!.id)).image, ternP2);
  return content.ok ? content.value.channels.map(({ slot, name }) => `${slot} ${name}`) : content.reason;
};

test('a radio that is plugged in is seen, and read; what it held is the first sealed copy', async () => {
  expect((await lookAtBench()).reachable).toBe(true);
  const bench = await lookAtBench();
  expect(bench.radios).toMatchObject([{ id: radioId, serial: SERIAL, state: 'whole', copies: [] }]);
  const started = await startJob({ kind: 'read', radioId });
  expect(started).toMatchObject({ state: 'running', of: 8192 });
  expect((await listJobs())[0]).toMatchObject({ id: started.id, state: 'running', called: SERIAL });
  const job = await ended(started.id);
  expect(job).toMatchObject({ state: 'done', bytes: 8192 });
  expect(await listCopies(radioId)).toMatchObject([
    { id: job.result.copyId, reason: 'first read', bytes: 8192 },
  ]);
  const { plan } = await planFromCopy(job.result.copyId!);
  // Nobody has said whose licence holds for it.
  expect(plan.owner).toMatchObject({ callSign: '', grade: 'not stated' });
  expect(plan.channels.map(({ slot }) => slot)).toEqual(UNITS[0]!.content.channels.map(({ slot }) => slot));
});

test('a write puts in the plan that was agreed to, whatever is typed, or removed, meanwhile', async () => {
  const planId = await threeChannels();
  expect(await previewWrite(radioId, planId)).toMatchObject({ planRevision: 2, channels: 3, heldBack: [] });
  const { id } = await startJob({ kind: 'write', radioId, planId, planRevision: 2 });
  await editPlan(planId, 2, renaming(0, 'Late'));
  await setRemoved(planId, true);
  const job = await ended(id);
  expect(job).toMatchObject({ state: 'done', result: { channels: 3, heldBack: 0 } });
  expect(job.message).toContain('all 8,176 bytes read back as they were sent');
  // “Station 0” in six capitals; STN is the usual short form
  expect(await newestContent()).toEqual(['0 STN 0', '1 STN 1', '2 STN 2']);
  await setRemoved(planId, false);
  // revision 2 is in the radio; the late name made revision 3
  expect((await listPlans()).find((row) => row.id === planId)).toMatchObject({
    revision: 3,
    written: { called: SERIAL, revision: 2 },
  });
  await expect(startJob({ kind: 'write', radioId, planId, planRevision: 2 })).rejects.toMatchObject({
    status: 409,
    kind: 'plan-changed',
  });
});

test('a port is kept to one job', async () => {
  const { id } = await startJob({ kind: 'read', radioId });
  await expect(startJob({ kind: 'read', radioId })).rejects.toMatchObject({ status: 409 });
  expect(await ended(id)).toMatchObject({ state: 'done' });
  await expect(stopJob(id)).rejects.toMatchObject({ status: 409, kind: 'not-running' });
});

test('a read that is stopped leaves the radio as it was; a write that is stopped is said to be half done, and restored', async () => {
  const read = await startJob({ kind: 'read', radioId });
  await stopJob(read.id);
  expect(await ended(read.id)).toMatchObject({
    state: 'stopped',
    message: 'Stopped. The radio is as it was.',
  });
  // Sent again, since the answer was lost: the same job, and no refusal.
  expect(await stopJob(read.id)).toEqual(await getJob(read.id));
  await expect(stopJob('job_nothing')).rejects.toMatchObject({ status: 404 });

  const before = await newestContent();
  const planId = await threeChannels();
  await editPlan(planId, 2, renaming(2, 'Other'));
  const write = await startJob({ kind: 'write', radioId, planId, planRevision: 3 });
  for (;;) {
    const now = await getJob(write.id);
    expect(now.state).toBe('running');
    // reading first is a third of the three passes
    if (now.bytes > 8192 + 1024) break;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  await stopJob(write.id);
  const stopped = await ended(write.id);
  expect(stopped).toMatchObject({ state: 'stopped', result: { radio: 'half written' } });
  expect((await lookAtBench()).radios[0]).toMatchObject({ state: 'half written' });

  const read2 = await ended((await startJob({ kind: 'read', radioId })).id);
  expect(read2).toMatchObject({ state: 'done', message: expect.stringContaining('nothing of it was kept') });
  const [copy] = await listCopies(radioId);
  const restored = await ended((await startJob({ kind: 'restore', radioId, copyId: copy!.id })).id);
  expect(restored).toMatchObject({ state: 'done' });
  expect(await newestContent()).toEqual(before);
  expect((await lookAtBench()).radios[0]).toMatchObject({ state: 'whole' });
});

test('with two radios plugged in, the one that was named is read and written, whichever port it is on', async () => {
  await atBench(`radios/${UNITS[1]!.id}`, { plugged: true });
  const other = await idOf(UNITS[1]!.serial);
  for (const [id, serial] of [
    [other, UNITS[1]!.serial],
    [radioId, SERIAL],
    [other, UNITS[1]!.serial],
  ] as const) {
    const job = await ended((await startJob({ kind: 'read', radioId: id })).id);
    expect(job).toMatchObject({ state: 'done', radioId: id, called: serial });
    const copy = await getCopy(job.result.copyId!);
    expect(copy.radioId).toBe(id);
    // the serial stands in the unit's own bytes, at 0x08
    expect(Buffer.from(copy.image.subarray(0x08, 0x10)).toString('ascii')).toBe(serial);
  }
  const planId = await threeChannels();
  const { id } = await startJob({ kind: 'write', radioId: other, planId, planRevision: 2 });
  expect(await ended(id)).toMatchObject({ state: 'done' });
  const [copy] = await listCopies(other);
  const content = decodeImage((await getCopy(copy!.id)).image, ternP2);
  expect(content.ok && content.value.channels.map(({ slot }) => slot)).toEqual([0, 1, 2]);
});

test('the image of one unit is restored to no other; a restore seals first what is there', async () => {
  const [theirs] = await listCopies(await idOf(UNITS[1]!.serial));
  await expect(startJob({ kind: 'restore', radioId, copyId: theirs!.id })).rejects.toMatchObject({
    status: 422,
    kind: 'other-unit',
  });
  // What is not that unit's own can be: its channels, and of this one the serial, the calibration and the greeting.
  const ours = (await getCopy((await listCopies(radioId))[0]!.id)).image;
  const taken = await ended(
    (await startJob({ kind: 'restore', radioId, copyId: theirs!.id, ofAnother: true })).id,
  );
  expect(taken.message).toContain('what is its own is as it was');
  const now = (await getCopy((await listCopies(radioId))[0]!.id)).image;
  const [is, was, wanted] = [now, ours, (await getCopy(theirs!.id)).image].map((image) => {
    const read = decodeImage(image, ternP2);
    if (!read.ok) throw new Error(read.reason);
    return read.value;
  });
  expect(is!.channels).toEqual(wanted!.channels);
  expect(is!.settings.greeting).toBe(was!.settings.greeting);
  // The unit's own serial stands at 0x08 (docs/models/tern-p2.md).
  expect(Buffer.from(now.subarray(0x08, 0x10)).toString()).toBe(SERIAL);
  const before = await listCopies(radioId);
  const planId = await threeChannels();
  await editPlan(planId, 2, renaming(1, 'Sealed'));
  await ended((await startJob({ kind: 'write', radioId, planId, planRevision: 3 })).id);
  // somebody turns it on: its counters are others than in any copy
  await atBench(`radios/${UNITS[0]!.id}`, { on: false });
  await atBench(`radios/${UNITS[0]!.id}`, { on: true });
  const first = before.at(-1)!;
  const job = await ended((await startJob({ kind: 'restore', radioId, copyId: first.id })).id);
  expect(job).toMatchObject({ state: 'done', bytes: 3 * 8192, of: 3 * 8192 });
  const sealed = await listCopies(radioId);
  expect(sealed[1]).toMatchObject({ reason: 'before restore' });
  const held = decodeImage((await getCopy(sealed[1]!.id)).image, ternP2);
  expect(held.ok && held.value.channels.map(({ name }) => name)).toContain('SEALED');
  await atBench(`radios/${UNITS[1]!.id}`, { plugged: false });
});

test('a job that is asked for again with its key is the same job', async () => {
  const asker = { key: 'test.read1' };
  const [one, two] = await Promise.all([1, 2].map(() => startJob({ kind: 'read', radioId }, asker)));
  expect(two!.id).toBe(one!.id);
  await ended(one!.id);
  expect((await startJob({ kind: 'read', radioId }, asker)).id).toBe(one!.id);
  // also when the process knows it from its row alone, as after a restart
  (globalThis as { veridonJobs?: Map<string, unknown> }).veridonJobs!.clear();
  expect((await startJob({ kind: 'read', radioId }, asker)).id).toBe(one!.id);
  await expect(
    startJob({ kind: 'read', radioId: await idOf(UNITS[1]!.serial) }, asker),
  ).rejects.toMatchObject({
    status: 422,
    kind: 'key-used',
  });
});

test('jobs that were under way when the application went down are closed, and say what is known', async () => {
  const { database } = await openDatabase();
  const lost = { modelId: 'tern-p2', state: 'running' as const, message: 'Under way.' };
  const another = await seeRadio({ ...IDENT, serial: 'OR777001' }, ternP2);
  await database.insert(jobs).values([
    { id: 'jb_lostread', kind: 'read', radioId, ...lost },
    { id: 'jb_lostwrite', kind: 'write', radioId: another, ...lost },
  ]);
  await closeLostJobs();
  expect(await getJob('jb_lostread')).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('The radio is as it was'),
  });
  expect(await getJob('jb_lostwrite')).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('may be half written'),
  });
  const listed = await listJobs();
  expect(listed.every(({ state }) => state !== 'running')).toBe(true);
  expect(listed.length).toBeGreaterThan(2);
  expect(listed).toEqual(await Promise.all(listed.map((job) => getJob(job.id))));
  expect((await listJobs(2)).map(({ id }) => id)).toEqual(listed.slice(0, 2).map(({ id }) => id));
  await expect(getJob('jb_nothing')).rejects.toMatchObject({ status: 404 });
});

test('a radio that is pulled is away, and is called by its serial', async () => {
  await atBench(`radios/${UNITS[0]!.id}`, { plugged: false });
  await expect(startJob({ kind: 'read', radioId })).rejects.toMatchObject({
    status: 409,
    detail: expect.stringContaining(`No port has ${SERIAL} on it`),
  });
  const { radios } = await lookAtBench();
  expect(radios.find(({ id }) => id === radioId)).toMatchObject({ serial: SERIAL, port: null });
});

describe('a radio on a block link, with two modules', () => {
  const CURLEW = UNITS.find(({ model }) => model.link?.kind === 'block')!;
  let curlew: RadioId;
  const plan = async () => {
    const made = await createPlan({ name: 'Field', modelId: CURLEW.model.id, owner });
    await editPlan(made.plan.id, 1, placing(0, 1, 2));
    return made.plan.id;
  };
  const run = async (request: Parameters<typeof startJob>[0]) => ended((await startJob(request)).id);
  const hand = (body: object) => atBench(`radios/${CURLEW.id}`, body);
  const fault = (body: object) => atBench(`radios/${CURLEW.id}/faults`, body);
  beforeAll(async () => {
    await hand({ plugged: true });
    curlew = await idOf(CURLEW.serial);
  });

  test('is not written before it has been read, and is read over a line that drops between its modules', async () => {
    const planId = await plan();
    await expect(startJob({ kind: 'write', radioId: curlew, planId, planRevision: 2 })).rejects.toMatchObject(
      { kind: 'never-read', detail: expect.stringContaining('Read it first') as string },
    );
    const read = await run({ kind: 'read', radioId: curlew });
    expect(read).toMatchObject({ state: 'done', bytes: 0x6000 });
    expect((await lookAtBench()).radios.find(({ id }) => id === curlew)).toMatchObject({
      battery: 80,
      newerThan: null,
    });
  });

  test('a write that is pulled in the second module goes on there, on another socket, by the same bytes', async () => {
    const planId = await plan();
    await fault({ kind: 'pull', atByte: 0x4400 + 3000 });
    const broken = await run({ kind: 'write', radioId: curlew, planId, planRevision: 2 });
    expect(broken).toMatchObject({ state: 'failed', result: { radio: 'half written' } });
    expect(broken.message).toContain('go on with the write');
    await hand({ plugged: true, cable: 3 });
    expect((await lookAtBench()).radios.find(({ id }) => id === curlew)).toMatchObject({
      state: 'half written',
      canResume: true,
      port: `bench/${CURLEW.id}-3`,
    });
    const done = await run({ kind: 'resume', radioId: curlew });
    expect(done).toMatchObject({ state: 'done' });
    // All of the first module was in, and some of the second.
    expect(done.result.resumedAt).toBeGreaterThan(0x4400);
    expect(done.message).toMatch(/^The write went on at byte/);
    expect((await lookAtBench()).radios.find(({ id }) => id === curlew)).toMatchObject({
      state: 'whole',
      canResume: false,
    });
    await expect(startJob({ kind: 'resume', radioId: curlew })).rejects.toMatchObject({
      kind: 'nothing-to-resume',
    });
  });

  test('a firmware that is newer than the model’s data, and a low battery, keep it from being written and not from being read', async () => {
    const planId = await plan();
    const write = () => startJob({ kind: 'write', radioId: curlew, planId, planRevision: 2 });
    await fault({ kind: 'newer firmware', version: '3.10' });
    await hand({ plugged: false });
    await hand({ plugged: true });
    await expect(write()).rejects.toMatchObject({
      kind: 'firmware-newer',
      detail: expect.stringContaining('3.10') as string,
    });
    expect(await run({ kind: 'read', radioId: curlew })).toMatchObject({ state: 'done' });
    await fault({ kind: 'none' });
    await hand({ plugged: false, battery: 12 });
    await hand({ plugged: true });
    await expect(write()).rejects.toMatchObject({
      kind: 'battery-low',
      detail: expect.stringContaining('12 percent') as string,
    });
    await hand({ plugged: false, battery: 80 });
    await hand({ plugged: true });
  });

  test('what was done on its keys since a write is offered as edits, and a write that was agreed to before it is not made', async () => {
    const planId = await plan();
    const written = await run({ kind: 'write', radioId: curlew, planId, planRevision: 2 });
    expect(written).toMatchObject({ state: 'done' });
    expect(await doneByHand(curlew, planId)).toMatchObject({ since: null, changes: [] });
    await hand({ key: { slot: 1, name: 'Harbour', rx: 145_350_000 } });
    await hand({ key: { slot: 2, clear: true } });
    const refused = await run({
      kind: 'write',
      radioId: curlew,
      planId,
      planRevision: 2,
      seenCopyId: written.result.writtenCopyId!,
    });
    expect(refused).toMatchObject({ state: 'failed', result: { radio: 'untouched' } });
    expect(refused.message).toContain('Nothing was written');
    const { since, changes, all } = await doneByHand(curlew, planId);
    expect(since).toMatchObject({ revision: 2 });
    expect(changes.map(({ place, what }) => `${place} ${what}`)).toEqual(['001 changed', '002 removed']);
    await editPlan(planId, 2, all!);
    expect(await doneByHand(curlew, planId)).toMatchObject({ changes: [] });
    expect((await previewWrite(curlew, planId)).change).toMatchObject({
      added: [],
      changed: [],
      removed: [],
    });
  });

  test('killed while it writes, the same write goes on once Veridon is there again', async () => {
    const planId = await plan();
    await editPlan(planId, 2, renaming(0, 'Killed'));
    const started = await startJob({ kind: 'write', radioId: curlew, planId, planRevision: 3 });
    while ((await getJob(started.id)).phase !== 'writing') await new Promise((done) => setTimeout(done, 5));
    while (((await getJob(started.id)).result.bytesIn ?? 0) < 4000)
      await new Promise((done) => setTimeout(done, 5));
    // As it is found after the process was killed: a row that is under way, and a radio half written.
    await stopJob(started.id);
    await ended(started.id);
    const { database } = await openDatabase();
    await database.update(jobs).set({ state: 'running', instance: 'in_dead' }).where(eq(jobs.id, started.id));
    await closeLostJobs();
    const resumed = await run({ kind: 'resume', radioId: curlew });
    expect(resumed).toMatchObject({ state: 'done' });
    expect(resumed.result.resumedAt).toBeGreaterThanOrEqual(4000);
  });
});

test('a sealed copy is said something of, and stays what it is', async () => {
  const [copy] = await listCopies(radioId);
  expect(copy!.note).toBe('');
  expect(await noteCopy(copy!.id, 'before the regatta')).toEqual({ ...copy, note: 'before the regatta' });
  expect((await getCopy(copy!.id)).sha256).toBe(copy!.sha256);
  expect(await noteCopy(copy!.id, '')).toEqual(copy);
  await expect(noteCopy('cp_nothingthere', 'x')).rejects.toMatchObject({ kind: 'not-found' });
});
