import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Job, JobRequest } from '../core/bench';
import { contentToWrite } from '../core/check';
import { compareImages, encodeImage } from '../core/image';
import { petrelHF9 } from '../core/models/petrel-hf9';
import { placing } from '../core/samples.test.kit';
import { until } from '../core/until.test.kit';
import { jobs, openDatabase } from '../db';
import { startSim, type Sim } from '../sim/server';
import { UNITS } from '../sim/bench/units';
import { lookAtBench } from './bench';
import { getCopy, listCopies } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { whenStretchWritten } from './card-reader';
import { closeLostJobs, getJob, startJob, stopJob } from './jobs';
import { lookAtKeeping } from './keeping';
import { createPlan, getPlan } from './plans';
import { Problem } from './problem';
import { followingFaults } from './faults-following.test.kit';
import {
  type Link,
  DOC,
  ended,
  note as noteFor,
  owner,
  run,
  toldLines,
  wordsOf,
  writeTold,
} from './faults.test.kit';
import { editPlan } from './revisions';
import { countSilencesBy } from './silence';
import { silenceOf } from './silence.test.kit';

/**
 * Everything that can go wrong between Veridon and a radio, over every link: what the person is told, that the radio ends right, and that no plan, copy or
 * entry of the log is lost. docs/faults.md is the table of it: VERIDON_FAULTS=write makes it anew, and each run holds it against what was said.
 */

/** At how many places the cable is pulled: all of them when the table is made, some each time; every byte is struck in sim/line-faults and sim/block-faults. */
const PLACES = process.env.VERIDON_FAULTS === 'write' ? 50 : 6;
let bench: Sim;
const time = silenceOf(() => bench.busy());
let folder = '';
const startBench = async (port = 0) => {
  bench = await startSim({ port, folder: join(folder, 'bench'), speed: 400, silence: time.silence });
  process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
};
/** Killed, and started again in its place once what was on its lines has been told so. */
async function killBench(told: () => boolean | Promise<boolean>): Promise<void> {
  const { port } = bench;
  bench.close();
  await until('the end of the line to be told', told);
  await startBench(port);
}
dataFolder('faults', {
  async before(place) {
    folder = place;
    process.env.VERIDON_BENCH_DIR = join(place, 'bench');
    countSilencesBy(time.silence);
    // A card is looked at between two stretches, so that it is taken out at the byte that was ordered.
    whenStretchWritten(() => bench.lookAtCards());
    await startBench();
  },
  after: () => bench.close(),
});

const atBench = async (path: string, body: object) => {
  const ask = () =>
    fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${path}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${bench.key}` },
      body: JSON.stringify(body),
    });
  // A connection that was kept is of the bench that was killed: what it is asked to do is the same, done once or twice.
  const answer = await ask().catch(ask);
  expect(answer.status).toBe(200);
};

const links: Link[] = [];

const note = (fault: string, { kind }: Link, said: string) => noteFor(fault, kind, said);

const writing = (link: Link): JobRequest => ({
  kind: 'write',
  radioId: link.radioId,
  planId: link.plans[1 - link.turn]!.planId,
  planRevision: link.plans[1 - link.turn]!.revision,
});
const reading = (link: Link): JobRequest => ({ kind: 'read', radioId: link.radioId });
const here = async (link: Link) => (await lookAtBench()).radios.find(({ id }) => id === link.radioId)!;

/** The radio as it is without faults: plugged, on, charged. */
const mended = async ({ unit }: Link) => {
  await atBench(`${unit.id}/faults`, { kind: 'none' });
  await atBench(unit.id, { plugged: false });
  await atBench(unit.id, { plugged: true, on: true, battery: 80 });
};
/** What the radio holds now, read over its link; it must be whole. */
async function holds(link: Link): Promise<Uint8Array> {
  const read = await run(reading(link));
  if (read instanceof Problem || !read.result.copyId) throw new Error(wordsOf(read));
  return (await getCopy(read.result.copyId)).image;
}
const alike = (link: Link, a: Uint8Array, b: Uint8Array) =>
  compareImages(a, b, link.model).different.length === 0;

/** Without faults, and with what the other plan would make of what it holds. */
async function ready(link: Link): Promise<void> {
  await mended(link);
  const { plan } = await getPlan(link.plans[1 - link.turn]!.planId);
  link.wanted = encodeImage(contentToWrite(plan, link.model), link.before, link.model);
}

/** After a fault: the radio is as it was, or as the plan wants it, or says that it is half written and is brought to its end by what Veridon offers. */
async function endsRight(link: Link): Promise<'as it was' | 'written' | 'half written, then gone on with'> {
  await mended(link);
  const radio = await here(link);
  const broken = radio.state === 'half written';
  if (broken) {
    expect(radio.canResume).toBe(true);
    expect(await run({ kind: 'resume', radioId: link.radioId })).toMatchObject({ state: 'done' });
  }
  const now = await holds(link);
  if (!broken && alike(link, now, link.before)) return 'as it was';
  expect(alike(link, now, link.wanted)).toBe(true);
  link.before = now;
  link.turn = 1 - link.turn;
  return broken ? 'half written, then gone on with' : 'written';
}

let copiesBefore = 0;
let plansBefore = '';
const plansNow = async () =>
  JSON.stringify(await Promise.all(links.flatMap(({ plans }) => plans.map(({ planId }) => getPlan(planId)))));
beforeAll(async () => {
  for (const [kind, id] of [
    ['stream', 'tern-1'],
    ['block', 'curlew-1'],
    ['live', 'petrel-1'],
    ['card', 'plover-1'],
  ] as const) {
    const unit = UNITS.find((one) => one.id === id)!;
    if (kind === 'card') await atBench(id, { card: 'save' });
    await atBench(id, { plugged: true });
    const radioId = (await lookAtBench()).radios.find(({ serial }) => serial === unit.serial)!.id;
    const plans: Link['plans'] = [];
    for (const numbers of [
      [1, 2, 3],
      [2, 5, 9, 11],
    ]) {
      const made = await createPlan({ name: `For ${kind}`, modelId: unit.model.id, owner });
      const { revision } = await editPlan(made.plan.id, 1, placing(...numbers));
      plans.push({ planId: made.plan.id, revision });
    }
    const link: Link = { kind, unit, plans, turn: 1, ...{ model: unit.model, radioId } } as Link;
    link.before = await holds(link);
    await ready(link);
    expect(alike(link, link.before, link.wanted)).toBe(false);
    links.push(link);
  }
  copiesBefore = (await listCopies()).length;
  plansBefore = await plansNow();
});

afterEach(async () => {
  // No copy, no plan, no entry of the log is lost, whatever went wrong.
  const now = (await listCopies()).length;
  expect(now).toBeGreaterThanOrEqual(copiesBefore);
  copiesBefore = now;
  expect((await lookAtKeeping()).damaged).toEqual([]);
  expect(await plansNow()).toBe(plansBefore);
  const { database } = await openDatabase();
  expect(await database.select().from(jobs).where(eq(jobs.state, 'running'))).toEqual([]);
});

const LINES = ['stream', 'block', 'live'] as const;
const KINDS = [...LINES, 'card'] as const;
const linkOf = (kind: Link['kind']) => links.find((one) => one.kind === kind)!;

describe.each(LINES)('the %s link', (kind) => {
  test(`pulled at ${PLACES} places while reading`, async () => {
    const link = linkOf(kind);
    await ready(link);
    const line = link.before.length * 1.03 + 200;
    for (let place = 0; place < PLACES; place++) {
      await atBench(`${link.unit.id}/faults`, {
        kind: 'pull',
        towards: 'host',
        atByte: 1 + Math.floor((line * place) / PLACES),
      });
      const end = await run(reading(link));
      if (!(end instanceof Problem) && end.state === 'done') continue;
      note('The cable is pulled while reading', link, wordsOf(end));
      await mended(link);
      expect(await here(link)).toMatchObject({ state: 'whole' });
    }
    expect(await endsRight(link)).toBe('as it was');
  });

  test(`pulled at ${PLACES} places while writing: it is as it was, or goes on`, async () => {
    const link = linkOf(kind);
    const ends = new Map<string, number>();
    // The first read of a write takes its share of what goes to the radio.
    const line = link.before.length * 1.03 + 1500;
    for (let place = 0; place < PLACES; place++) {
      await ready(link);
      await atBench(`${link.unit.id}/faults`, {
        kind: 'pull',
        atByte: 1 + Math.floor((line * place) / PLACES),
      });
      const end = await run(writing(link));
      if (end instanceof Problem || end.state !== 'done')
        note('The cable is pulled while writing', link, wordsOf(end));
      const how = await endsRight(link);
      ends.set(how, (ends.get(how) ?? 0) + 1);
    }
    expect(ends.get('half written, then gone on with')).toBeGreaterThan(PLACES * 0.6);
    expect(ends.get('as it was')).toBeGreaterThan(0);
  });

  test.each([
    ['A bit is flipped', { kind: 'flip', atByte: 3000 }, 'written'],
    ['The radio falls silent', { kind: 'silent' }, 'as it was'],
    ['The radio sends rubbish', { kind: 'rubbish' }, 'as it was'],
    ['Another model answers', { kind: 'wrong model', ident: 'OTHERSET' }, 'as it was'],
    ['Its firmware is newer', { kind: 'newer firmware', version: '9.01' }, 'as it was'],
    ['It refuses to be written', { kind: 'refuse' }, 'as it was'],
    ['The line is slow', { kind: 'slow', factor: 20 }, 'written'],
  ] as const)('%s', async (what, fault, becomes) => {
    const link = linkOf(kind);
    await ready(link);
    await atBench(`${link.unit.id}/faults`, fault);
    const end = await run(writing(link));
    note(what, link, wordsOf(end));
    expect(await endsRight(link)).toBe(becomes);
  });

  test('its battery is low, where it has one', async () => {
    const link = linkOf(kind);
    await ready(link);
    await atBench(link.unit.id, { plugged: false, battery: 11 });
    await atBench(link.unit.id, { plugged: true });
    const end = await run(writing(link));
    // A base station on the mains goes out with everything.
    if (kind !== 'live') note('Its battery is low', link, wordsOf(end));
    expect(await endsRight(link)).toBe(kind === 'live' ? 'written' : 'as it was');
  });

  /** The radio falls silent in the middle of the next write, and nobody gives it up: the write stays there until `time` goes on. */
  const stayInWrite = async (link: Link) => {
    await atBench(`${link.unit.id}/faults`, { kind: 'silent', atByte: 4000 });
    time.hold();
  };
  const inWrite = (job: Job) =>
    until('the middle of the write', async () => {
      const { state, result } = await getJob(job.id);
      expect(state).toBe('running');
      return (result.bytesIn ?? 0) > 1000 && !bench.busy();
    });
  afterEach(() => time.goOn());

  test('the port vanishes, or is another one, in the middle of a write', async () => {
    const link = linkOf(kind);
    for (const [what, body] of [
      ['The port vanishes', { on: false }],
      ['The cable goes into another socket', { cable: { stream: 4, block: 5, live: 6 }[kind] }],
    ] as const) {
      await ready(link);
      await stayInWrite(link);
      const end = await run(writing(link), async (job) => {
        await inWrite(job);
        await atBench(link.unit.id, body);
        time.goOn();
      });
      note(what, link, wordsOf(end));
      expect(await endsRight(link)).toBe('half written, then gone on with');
    }
  });

  test('Veridon is killed in the middle of a write', async () => {
    const link = linkOf(kind);
    await ready(link);
    await stayInWrite(link);
    const started = await startJob(writing(link));
    await inWrite(started);
    await stopJob(started.id);
    await ended(started.id);
    time.goOn();
    // As the next start finds it: a row that is under way in a process that is dead.
    const { database } = await openDatabase();
    await database.update(jobs).set({ state: 'running', instance: 'in_dead' }).where(eq(jobs.id, started.id));
    await closeLostJobs();
    const [row] = await database.select().from(jobs).where(eq(jobs.id, started.id));
    note('Veridon is killed', link, row!.message);
    expect(await endsRight(link)).toBe('half written, then gone on with');
  });

  test('the bench is killed in the middle of a write', async () => {
    const link = linkOf(kind);
    await ready(link);
    await stayInWrite(link);
    const end = await run(writing(link), async (job) => {
      await inWrite(job);
      await killBench(async () => (await getJob(job.id)).state !== 'running');
      time.goOn();
    });
    note('The bench is killed', link, wordsOf(end));
    expect(await endsRight(link)).toBe('half written, then gone on with');
  });

  test('the disk is full', () => withoutRoom(linkOf(kind)));
});

async function withoutRoom(link: Link): Promise<void> {
  await ready(link);
  const room = process.env.VERIDON_RESERVE_MB;
  // As if so much had to stay free that there is none.
  process.env.VERIDON_RESERVE_MB = '99999999';
  try {
    note('The disk is full', link, wordsOf(await run(writing(link))));
  } finally {
    process.env.VERIDON_RESERVE_MB = room;
  }
  expect(await endsRight(link)).toBe('as it was');
}

followingFaults({
  ...{ unit: 'petrel-1', model: petrelHF9, places: PLACES, atBench },
  radioId: () => linkOf('live').radioId,
  mended: () => mended(linkOf('live')),
  async holds() {
    const link = linkOf('live');
    return (link.before = await holds(link));
  },
  killBench,
  note: (fault, said) => note(fault, linkOf('live'), said),
});

describe('a card', () => {
  test(`taken out at ${PLACES} places while it is written: it is as it was, or half, and the write goes on`, async () => {
    const link = linkOf('card');
    const ends = new Map<string, number>();
    for (let place = 0; place < PLACES; place++) {
      await ready(link);
      const atByte = 1 + Math.floor((link.before.length * place) / PLACES);
      await atBench(`${link.unit.id}/faults`, { kind: 'pull', atByte });
      const end = await run(writing(link));
      if (end instanceof Problem || end.state !== 'done') note('The card is taken out', link, wordsOf(end));
      const how = await endsRight(link);
      ends.set(how, (ends.get(how) ?? 0) + 1);
    }
    expect(ends.get('half written, then gone on with')).toBeGreaterThan(PLACES * 0.4);
  });

  test('a bit on it is another: nothing of it is kept, and it is written anew', async () => {
    const link = linkOf('card');
    await ready(link);
    const file = join(folder, 'bench', 'reader', link.unit.id, 'CHAN.TXT');
    const bytes = readFileSync(file);
    writeFileSync(
      file,
      bytes.map((byte, at) => (at === 5000 ? byte ^ 4 : byte)),
    );
    const copies = (await listCopies(link.radioId)).length;
    note('The card is damaged', link, wordsOf(await run(reading(link))));
    expect((await listCopies(link.radioId)).length).toBe(copies);
    expect(await run(writing(link))).toMatchObject({ state: 'done' });
    expect(await endsRight(link)).toBe('written');
  });

  test('the radio that saved it has a newer firmware', async () => {
    const link = linkOf('card');
    await ready(link);
    const saved = async (fault: object) => {
      await atBench(link.unit.id, { plugged: false });
      await atBench(`${link.unit.id}/faults`, fault);
      // What Veridon wrote is loaded first, so that what is saved is what the card held.
      await atBench(link.unit.id, { card: 'load' });
      await atBench(link.unit.id, { card: 'save' });
      await atBench(link.unit.id, { plugged: true });
    };
    await saved({ kind: 'newer firmware', version: '9.01' });
    note('Its firmware is newer', link, wordsOf(await run(writing(link))));
    await saved({ kind: 'none' });
    expect(await endsRight(link)).toBe('as it was');
  });

  test('the disk is full', () => withoutRoom(linkOf('card')));
});

test('docs/faults.md says what was told', () => {
  const { faults, lines } = toldLines(KINDS);
  if (process.env.VERIDON_FAULTS === 'write') writeTold(lines);
  const doc = readFileSync(DOC, 'utf8');
  expect(faults).toBe(30);
  for (const line of lines) expect(doc).toContain(line);
});
