import { join } from 'node:path';
import type { Fit } from '../core/fit';
import { decodeImage } from '../core/image';
import { ternP2 } from '../core/models/tern-p2';
import { channel } from '../core/samples.test.kit';
import { until } from '../core/until.test.kit';
import { UNITS } from '../sim/bench/units';
import { startSim } from '../sim/server';
import { lookAtBench, previewWrite } from './bench';
import { listCopies, getCopy, planFromCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { planNames } from './plan-list';
import { endLive, startLive } from './live';
import { checkPlan, createPlan, fitPlan, getPlan } from './plans';
import { editPlan } from './revisions';
import { setUnitValues } from './unit-values';

/** What only a unit can tell, on the real bench: the last of the club's Terns sends from 144 to 146 and from 430 to 440 MHz. */

let bench: Awaited<ReturnType<typeof startSim>>;
dataFolder('unit', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 60 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});

const fitIn = ({ text }: { text: string }) => (JSON.parse(text) as { fit: Fit }).fit;

const done = async (started: { id: string }) => {
  for (;;) {
    const job = await getJob(started.id);
    if (job.state !== 'running') return job;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
};
const theRadio = async () => (await lookAtBench()).radios.find(({ serial }) => serial === 'LK204613')!;

test('what a unit says of itself is kept when it is read, goes with the plan that is made of it, and is what it is written by', async () => {
  await fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/tern-6`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify({ plugged: true }),
  });
  const seen = await theRadio();
  expect(seen).toMatchObject({ region: 1, facts: null });
  await done(await startJob({ kind: 'read', radioId: seen.id }));
  const facts = {
    region: 1,
    sends: { '2 m': { from: 144_000_000, to: 146_000_000 }, '70 cm': { from: 430_000_000, to: 440_000_000 } },
    lacks: [],
  };
  expect((await theRadio()).facts).toEqual(facts);

  // The plan that is made of it is worked on for it: its fit and its findings are that unit's.
  const [copy] = await listCopies(seen.id);
  const { plan, revision } = await planFromCopy(copy!.id);
  expect(plan.unit).toEqual({ radio: seen.id, called: 'LK204613', facts });
  expect(await planNames()).toMatchObject([{ id: plan.id, unit: seen.id }]);
  expect(revision).toBe(1);
  expect(fitIn(await fitPlan(plan.id)).channels).toHaveLength(2);

  // A plan for any Tern is fitted for this one when it is written to it.
  const owner = { callSign: 'Q7ABC', region: 'itu3' as const, grade: 'full' as const, strict: false };
  const upper = [channel(20, 147_000_000, { name: 'UPPER' }), channel(21, 145_500_000, { name: 'CALL' })];
  const any = await createPlan({ name: 'Any Tern', modelId: 'tern-p2', owner }, { channels: upper });
  expect(fitIn(await fitPlan(any.plan.id)).channels.map(({ tx }) => tx)).toEqual([147_000_000, 145_500_000]);
  expect((await previewWrite(seen.id, any.plan.id)).change?.added.map(({ tx }) => tx)).toEqual([
    null,
    145_500_000,
  ]);
  // What is written all the same is said before, with the channel.
  expect((await previewWrite(seen.id, any.plan.id)).cautions).toContainEqual({
    ...{ slot: 20, name: 'UPPER' },
    text: 'Hears, but will not send: LK204613 does not transmit on 147.000 MHz.',
  });
  const job = await done(
    await startJob({ kind: 'write', radioId: seen.id, planId: any.plan.id, planRevision: any.revision }),
  );
  expect(job).toMatchObject({ state: 'done', result: { channels: 2 } });
  const [now] = await listCopies(seen.id);
  const held = decodeImage((await getCopy(now!.id)).image, ternP2);
  expect(held.ok && held.value.channels.map(({ slot, tx }) => [slot, tx])).toEqual([
    [20, null],
    [21, 145_500_000],
  ]);
  // What the unit says of itself is as it was.
  expect((await theRadio()).facts).toEqual(facts);

  // The same plan worked on for the unit says so at the channel.
  await editPlan(any.plan.id, any.revision, {
    name: 'describe',
    set: { unit: { radio: seen.id, called: 'LK204613', facts } },
  });
  const { findings } = await checkPlan(any.plan.id);
  expect(findings.map(({ text }) => text)).toContain(
    'Hears, but will not send: LK204613 does not transmit on 147.000 MHz.',
  );
  expect((await previewWrite(seen.id, any.plan.id)).workedOnFor).toBeNull();
});

test('a value of a unit that follows a plan goes into the radio at once, and does not go into the plan', async () => {
  const unit = UNITS.find(({ model }) => model.link?.kind === 'live')!;
  const hand = async (body: object) =>
    (await (
      await fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${unit.id}`, {
        method: 'POST',
        headers: { Authorization: `Bearer ${bench.key}` },
        body: JSON.stringify(body),
      })
    ).json()) as { settings: Record<string, unknown>; channel: { name: string } | null };
  await hand({ plugged: true, slot: 1 });
  const radio = (await lookAtBench()).radios.find(({ serial }) => serial === unit.serial)!;
  await done(await startJob({ kind: 'read', radioId: radio.id }));
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const club = { [unit.model.id]: { greeting: 'CLUB' } };
  const { plan, revision } = await createPlan(
    { name: 'Shack', modelId: unit.model.id, owner },
    { channels: [channel(1, 145_500_000, { name: 'Room 1' })], settings: club },
  );
  const greetingIs = (text: string) =>
    until(`the greeting ${text}`, async () => (await hand({})).settings.greeting === text);
  await startLive({ radioId: radio.id, planId: plan.id, planRevision: revision });
  await greetingIs('CLUB');
  await setUnitValues(radio.id, { greeting: 'UNIT 113' });
  await greetingIs('UNIT 113');
  // What is typed in the plan afterwards leaves it alone.
  await editPlan(plan.id, revision, {
    name: 'change',
    changes: [{ id: plan.channels[0]!.id, set: { name: 'After' } }],
  });
  await until('the new name', async () => (await hand({})).channel?.name === 'After');
  expect((await hand({})).settings.greeting).toBe('UNIT 113');
  expect((await getPlan(plan.id)).plan.settings).toEqual(club);
  await setUnitValues(radio.id, {});
  await greetingIs('CLUB');
  await endLive(radio.id);
});
