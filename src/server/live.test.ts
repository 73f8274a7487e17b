import { until as waitFor } from '../core/until.test.kit';
import { eq } from 'drizzle-orm';
import { join } from 'node:path';
import type { Live } from '../core/bench';
import { decodeImage } from '../core/image';
import { petrelHF9 } from '../core/models/petrel-hf9';
import {
  channelDefaults,
  type ChannelId,
  type ChannelSet,
  type Edit,
  type PlanId,
  type RadioId,
} from '../core/plan';
import { lives } from '../db';
import { startSim } from '../sim/server';
import { UNITS } from '../sim/bench/units';
import { lookAtBench } from './bench';
import { listCopies } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { reading, writing } from './database';
import { getJob, listJobs, startJob } from './jobs';
import { decideLive, endLive, listLives, resumeLives, startLive, watchLives } from './live';
import { createPlan, getPlan } from './plans';
import { editPlan, stepBack } from './revisions';
import { NOBODY } from './once';

/** A plan and a radio on the real bench that follow each other, over lines that go and come back. */

const UNIT = UNITS.find(({ model }) => model === petrelHF9)!;
let bench: Awaited<ReturnType<typeof startSim>>;
let radioId: RadioId;
dataFolder('live', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 20 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => bench.close(),
});

interface Seen {
  slot: number;
  channel: { slot: number; name: string; rx: number } | null;
  halfWritten: boolean;
}
const handle = async (body: object, path = `radios/${UNIT.id}`): Promise<Seen> =>
  (await (
    await fetch(`${process.env.VERIDON_BENCH_URL}/bench/${path}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${bench.key}` },
      body: JSON.stringify(body),
    })
  ).json()) as Seen;
/** What the radio has in a memory, as its own display would have it. */
const inRadio = async (slot: number) => (await handle({ slot })).channel;
const until = async <T>(look: () => Promise<T> | T, holds: (value: T) => boolean): Promise<T> => {
  let value = await look();
  await waitFor(`what is looked for: ${holds.toString()}`, async () => holds((value = await look()))).catch(
    (error: Error) => {
      throw new Error(`${error.message}: ${JSON.stringify(value)} ${JSON.stringify(listLives())}`);
    },
  );
  return value;
};
const live = () => listLives().find((one) => one.radioId === radioId);
const isLive = (one: Live | undefined) => one?.state === 'live';

const ids = ['a', 'b', 'c'].map((letter) => `ch_live0000000${letter}` as ChannelId);
let planId: PlanId;
const edit = async (what: Edit) => {
  const { revision } = await getPlan(planId);
  return editPlan(planId, revision, what);
};
const set = (n: number, fields: ChannelSet) =>
  edit({ name: 'change', changes: [{ id: ids[n]!, set: fields }] });
const inPlan = async (slot: number) => (await getPlan(planId)).plan.channels.find((one) => one.slot === slot);

beforeAll(async () => {
  await handle({ plugged: true });
  radioId = (await lookAtBench()).radios.find(({ serial }) => serial === UNIT.serial)!.id;
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  planId = (await createPlan({ name: 'Shack', modelId: 'petrel-hf9', owner })).plan.id;
  await edit({
    name: 'place',
    channels: ids.map((id, n) => ({
      ...channelDefaults(145_500_000 + n * 25_000),
      id,
      name: `Room ${n + 1}`,
      power: 50_000,
    })),
    placement: 'next-free',
    at: 1,
    range: { first: 1, count: 120 },
  });
});

const begin = async () => {
  const { revision } = await getPlan(planId);
  return startLive({ radioId, planId, planRevision: revision });
};

test('a radio that was never read follows nothing', async () => {
  await expect(begin()).rejects.toMatchObject({ kind: 'never-read' });
  const { id } = await startJob({ kind: 'read', radioId });
  await until(
    () => getJob(id),
    ({ state }) => state !== 'running',
  );
});

test('begun, it holds the plan; what is typed is in the radio, what is done on its keys in the plan, and its knob is seen', async () => {
  const begun = await begin();
  expect(begun).toMatchObject({ state: 'live', planName: 'Shack', revision: 2, apart: [] });
  expect(await inRadio(2)).toMatchObject({ name: 'Room 2', rx: 145_525_000 });
  // The transfer is in the log, its content sealed.
  expect((await listJobs())[0]).toMatchObject({
    kind: 'write',
    state: 'done',
    result: { channels: 3, heldBack: 0 },
  });
  expect((await listCopies(radioId))[0]).toMatchObject({ reason: 'after write' });

  await set(1, { name: 'Attic' });
  await until(
    () => inRadio(2),
    (one) => one?.name === 'Attic',
  );
  expect(await until(live, (one) => one!.revision === 3)).toMatchObject({
    tookMs: expect.any(Number) as number,
  });

  await handle({ key: { slot: 3, rx: 145_775_000 } });
  await until(
    () => inPlan(3),
    (one) => one?.rx === 145_775_000,
  );
  const { undo } = await getPlan(planId);
  expect(undo).toBe(`On the keys of ${UNIT.serial}: 003 Room 3: 145.775, sends where it receives`);
  expect(live()!.said[0]!.text).toBe('003 Room 3: 145.775, sends where it receives');

  await handle({ slot: 1 });
  await handle({ turn: 1 });
  await until(live, (one) => one!.slot === 2);

  // Undone in the plan it is undone in the radio.
  await stepBack(planId, 'undo', NOBODY);
  await until(
    () => inRadio(3),
    (one) => one?.rx === 145_550_000,
  );
});

test('while it follows, no job takes its port', async () => {
  await expect(startJob({ kind: 'read', radioId })).rejects.toMatchObject({
    kind: 'port-busy',
    detail: `${UNIT.serial} follows a plan. End that first.`,
  });
  await expect(begin()).rejects.toMatchObject({ kind: 'port-busy' });
});

test('a line that was gone is caught up in both directions; what both did at one place is left to be decided', async () => {
  await handle({ plugged: false });
  await until(live, (one) => one!.state === 'away');
  expect(live()!.reason).toMatch(/port vanished/);
  // The knob and the keys go on without us, and so does whoever types.
  await handle({ key: { slot: 7, rx: 146_100_000, name: 'KEPT' } });
  await handle({ key: { slot: 1, name: 'KITCHEN' } });
  await set(0, { name: 'Cellar' });
  await set(1, { rx: 145_600_000, tx: 145_600_000 });
  await handle({ cable: 3, plugged: true });
  await until(live, isLive);
  await until(
    () => inRadio(2),
    (one) => one?.rx === 145_600_000,
  );
  await until(
    () => inPlan(7),
    (one) => one?.rx === 146_100_000,
  );
  const { apart } = (await until(live, (one) => one!.apart.length > 0))!;
  expect(apart).toEqual([
    { list: 0, slot: 1, place: '001', name: 'Cellar', radio: 'KITCHEN', plan: 'Cellar' },
  ]);
  expect(await inRadio(1)).toMatchObject({ name: 'KITCHEN' });
  expect(await inPlan(1)).toMatchObject({ name: 'Cellar' });
  // Nothing that is typed elsewhere touches it.
  await set(2, { name: 'Porch' });
  await until(
    () => inRadio(3),
    (one) => one?.name === 'Porch',
  );
  expect(await inRadio(1)).toMatchObject({ name: 'KITCHEN' });
  await decideLive(radioId, { list: 0, slot: 1, take: 'plan' });
  await until(
    () => inRadio(1),
    (one) => one?.name === 'Cellar',
  );
  expect(live()!.apart).toEqual([]);
  await expect(decideLive(radioId, { list: 0, slot: 1, take: 'plan' })).rejects.toMatchObject({
    kind: 'not-live',
  });
});

test('a channel that a stop holds back stays in the radio as it was, until it is mended', async () => {
  await set(2, { access: { kind: 'analogue', send: { kind: 'tone', tone: 886 }, expect: null } });
  await set(1, { name: 'Loft' });
  await until(
    () => inRadio(2),
    (one) => one?.name === 'Loft',
  );
  expect(await inRadio(3)).toMatchObject({ name: 'Porch', rx: 145_550_000 });
  expect(await inPlan(3)).toMatchObject({ name: 'Porch' });
  await set(2, {
    name: 'Gate',
    access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
  });
  await until(
    () => inRadio(3),
    (one) => one?.name === 'Gate',
  );
});

test('typed and pressed at once, again and again, without waiting: both end with the same', async () => {
  for (let n = 0; n < 40; n++)
    await Promise.all([
      set(n % 3, { name: `Rush ${n}` }),
      handle({ key: { slot: 40 + (n % 3), rx: 146_500_000, name: `R${n}` } }),
      handle({ turn: 1 }),
    ]);
  const { revision } = await until(
    async () => ({ ...(await getPlan(planId)), shown: live()!.revision }),
    (one) => one.revision === one.shown,
  );
  expect(live()).toMatchObject({ state: 'live', revision, apart: [] });
  for (const [slot, name] of [
    [1, 'Rush 39'],
    [2, 'Rush 37'],
    [3, 'Rush 38'],
    [40, 'R39'],
    [41, 'R37'],
    [42, 'R38'],
  ] as const) {
    expect(await inRadio(slot)).toMatchObject({ name });
    const { name: own, fitted } = (await inPlan(slot))!;
    expect(fitted['petrel-hf9'] ?? own).toBe(name);
  }
  // It goes on from there.
  await set(0, { name: 'Cellar' });
  await until(
    () => inRadio(1),
    (one) => one?.name === 'Cellar',
  );
});

test.each(['radio', 'host'] as const)(
  'pulled and bytes flipped towards the %s at places of a change: nothing is lost or half done',
  async (towards) => {
    for (let n = 0; n < 24; n++) {
      const kind = n % 3 === 0 ? 'pull' : 'flip';
      await handle({ kind, atByte: 1 + n * 5, towards }, `radios/${UNIT.id}/faults`);
      await set(n % 2, { name: `Try ${n}` });
      await handle({ key: { slot: 9, name: `K${n}`, rx: 146_200_000 } });
      // Put in again as often as it was pulled out.
      const again = async () => void (await handle({ plugged: true }));
      const [name, key] = [`Try ${n}`, `K${n}`];
      await until(
        async () => (await again(), inRadio(1 + (n % 2))),
        (one) => one?.name === name,
      );
      await until(
        async () => (await again(), inPlan(9)),
        (one) => one?.fitted['petrel-hf9'] === key,
      );
      expect((await handle({})).halfWritten).toBe(false);
    }
    await handle({ kind: 'none' }, `radios/${UNIT.id}/faults`);
    await until(live, isLive);
  },
);

test('edits in a burst, of which some change nothing in the radio, leave nobody behind', async () => {
  const surely = async (n: number, fields: ChannelSet): Promise<void> => {
    for (let tries = 0; tries < 30; tries++)
      if (
        await set(n, fields).then(
          () => true,
          () => false,
        )
      )
        return;
    throw new Error('It was never kept');
  };
  for (let round = 0; round < 30; round++) {
    // A note is no part of what the radio holds; a name is.
    const notes = [0, 1, 2, 3].map((n) => surely(n % 3, { note: `${round} ${n}` }));
    await new Promise((done) => setTimeout(done, round % 10));
    await Promise.all([
      ...notes,
      surely(2, { name: `Burst ${round}` }),
      surely(0, { note: `last ${round}` }),
    ]);
    const { revision } = await getPlan(planId);
    await until(live, (one) => one?.state === 'live' && one.revision === revision);
  }
  await until(
    () => inRadio(3),
    (one) => one?.name === 'Burst 29',
  );
});

test('ended, both keep what they have, and what the radio holds is sealed', async () => {
  const copies = (await listCopies(radioId)).length;
  const at = await endLive(radioId);
  expect(live()).toBeUndefined();
  expect((await listCopies(radioId)).length).toBe(copies + 1);
  expect((await listJobs())[0]).toMatchObject({
    message: `${UNIT.serial} does not follow “Shack” any more.`,
  });
  expect(await (await reading()).select().from(lives)).toEqual([]);
  await set(0, { name: 'Unheard' });
  await new Promise((done) => setTimeout(done, 300));
  expect(await inRadio(1)).not.toMatchObject({ name: 'Unheard' });
  expect(at.revision).toBeLessThan((await getPlan(planId)).revision);
});

test('what was looked at and has changed since is not begun with; nothing is written', async () => {
  const [seen] = await listCopies(radioId);
  await handle({ key: { slot: 20, rx: 146_300_000, name: 'NEW' } });
  const { revision } = await getPlan(planId);
  await expect(
    startLive({ radioId, planId, planRevision: revision, seenCopyId: seen!.id }),
  ).rejects.toMatchObject({
    kind: 'radio-changed',
  });
  expect(await inRadio(20)).toMatchObject({ name: 'NEW' });
  expect(await inRadio(1)).not.toMatchObject({ name: 'Unheard' });
  await expect(startLive({ radioId, planId, planRevision: 1 })).rejects.toMatchObject({
    kind: 'plan-changed',
  });
});

test('a radio that refuses ends it, and says why', async () => {
  await begin();
  await handle({ kind: 'refuse' }, `radios/${UNIT.id}/faults`);
  await set(0, { name: 'Refused' });
  expect(await until(live, (one) => one!.state === 'ended')).toMatchObject({
    reason: expect.stringMatching(/refuses to be written/) as string,
  });
  await handle({ kind: 'none' }, `radios/${UNIT.id}/faults`);
  await endLive(radioId);
  expect(live()).toBeUndefined();
});

test('Veridon that was stopped goes on where it was: what was done meanwhile on the keys is taken', async () => {
  await begin();
  // What was answered is on disk: a kill in this very moment loses nothing.
  const [row] = await (await reading()).select().from(lives).where(eq(lives.radioId, radioId));
  expect(row).toMatchObject({ planId, apart: [] });
  await endLive(radioId);
  // As a process that was killed leaves it.
  await (await writing()).insert(lives).values({ ...row!, instance: 'in_dead' });
  await handle({ key: { slot: 30, rx: 146_400_000, name: 'LATE' } });
  await resumeLives();
  expect(live()).toMatchObject({ state: 'away' });
  await until(
    () => inPlan(30),
    (one) => one?.rx === 146_400_000,
  );
  await until(live, isLive);
});

test('who looks at the Bench is told as it happens', async () => {
  const gone = new AbortController();
  const stream = watchLives(gone.signal)[Symbol.asyncIterator]();
  await stream.next();
  const first = (await stream.next()).value as string;
  expect(JSON.parse(first.slice(6))).toMatchObject({ lives: [{ radioId, state: 'live' }] });
  const next = stream.next();
  await handle({ turn: 1 });
  expect((await next).value).toMatch(/"slot":/);
  gone.abort();
  await endLive(radioId);
  const held = decodeImage(
    (await import('./copies').then(({ newestCopy }) => newestCopy(radioId)))!.image,
    petrelHF9,
  );
  expect(held.ok).toBe(true);
});
