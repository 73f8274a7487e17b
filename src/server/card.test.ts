import { existsSync, mkdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { JobRequest } from '../core/bench';
import { contentToWrite } from '../core/check';
import { decodeImage } from '../core/image';
import { cardOfZip, MANIFEST, readCard, zipOfCard } from '../core/link';
import { ploverF5 } from '../core/models/plover-f5';
import type { RadioId } from '../core/plan';
import { placing } from '../core/samples.test.kit';
import { UNITS } from '../sim/bench/units';
import { startSim } from '../sim/server';
import { lookAtBench } from './bench';
import { filesOnCard, runCard, whenStretchWritten } from './card-reader';
import { cardZip, openCard } from './card-zip';
import { getCopy, newestCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { getJob, startJob } from './jobs';
import { createPlan, getPlan } from './plans';
import { editPlan } from './revisions';
import { setUnitValues } from './unit-values';

/** A radio with a memory card: its half of the work, ours, and a card that is taken out in the middle. */

const UNIT = UNITS.find(({ id }) => id === 'plover-1')!;
let bench: Awaited<ReturnType<typeof startSim>>;
let reader = '';
dataFolder('card', {
  async before(folder) {
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 40 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
    reader = join(folder, 'bench', 'reader');
    // A card is looked at between two stretches, so that it is taken out at the byte that was ordered.
    whenStretchWritten(() => bench.lookAtCards());
  },
  after: () => bench.close(),
});

interface Lying {
  card: { in: string; says: string };
  channel: { name: string } | null;
  slot: number;
}
const hand = async (body: object, path = '') =>
  (
    await fetch(`${process.env.VERIDON_BENCH_URL}/bench/radios/${UNIT.id}${path}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${bench.key}` },
      body: JSON.stringify(body),
    })
  ).json() as Promise<Lying>;
const toRadio = () => hand({ plugged: false });
const toReader = () => hand({ plugged: true });
const here = async () => (await lookAtBench()).radios.find(({ serial }) => serial === UNIT.serial);
const port = async () => (await lookAtBench()).ports.find(({ name }) => name === 'reader/plover-1');
const run = async (request: JobRequest) => {
  const { id } = await startJob(request);
  for (;;) {
    const job = await getJob(id);
    if (job.state !== 'running') return job;
    await new Promise((done) => setTimeout(done, 10));
  }
};
let radioId: RadioId;
const planOf = async (...slots: number[]) => {
  const { plan } = await createPlan({
    name: `Plan of ${slots.length}`,
    modelId: 'plover-f5',
    owner: { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false },
  });
  await editPlan(plan.id, 1, placing(...slots));
  return { kind: 'write' as const, radioId, planId: plan.id, planRevision: 2 };
};

test('a card that the radio has not saved to is none of a radio, and one is told what to do', async () => {
  expect(await port()).toBeUndefined();
  await toReader();
  expect(await port()).toMatchObject({
    radioId: null,
    reason: 'There is nothing of a radio on the card: it has no CARD.TXT. Save to it in the radio first.',
  });
  expect((await hand({ card: 'save' })).card.says).toBe('NO CARD');
});

test('saved in the radio it says whose it is; it is read, and sealed', async () => {
  await toRadio();
  expect((await hand({ card: 'save' })).card).toEqual({ in: 'radio', says: 'SAVED' });
  await toReader();
  radioId = (await here())!.id;
  expect(await here()).toMatchObject({ port: 'reader/plover-1', state: 'whole', firmware: '1.12' });
  const read = await run({ kind: 'read', radioId });
  // Four files: 102 + 272 + 440 + 73,600 bytes.
  expect(read).toMatchObject({ state: 'done', bytes: 74_414 });
  const content = decodeImage((await getCopy(read.result.copyId!)).image, ploverF5);
  expect(content.ok && content.value.channels.map(({ name }) => name)).toEqual(
    UNIT.content.channels.map(({ name }) => name),
  );
});

test('a plan is written on the card and read back; in the radio it is only when it is loaded there, and the card says so', async () => {
  const request = await planOf(1, 2, 3);
  const written = await run(request);
  const { plan } = await getPlan(request.planId);
  const fits = contentToWrite(plan, ploverF5).channels;
  expect(fits.length).toBeGreaterThan(1);
  expect(written).toMatchObject({ state: 'done', result: { channels: fits.length } });
  expect(written.message).toContain('all 74,414 bytes read back as they were sent');
  expect(written.message).toMatch(
    /^“Plan of 3” was written to the card of OR520144: 2 of its 3 channels .* Now load it in the radio\.$/,
  );
  expect(await port()).toMatchObject({ radioId, loaded: false });
  // Not in the radio yet.
  await toRadio();
  expect((await hand({ slot: 1 })).channel?.name).toBe('Calling 2 m');
  const { channel, card } = await hand({ card: 'load' });
  expect([card.says, channel?.name]).toEqual([
    'LOADED',
    (await getPlan(request.planId)).plan.channels[1]!.name,
  ]);
  await toReader();
  expect(await port()).toMatchObject({ radioId, loaded: true });
});

test('a card as a zip has the values of its unit, whatever the plan sets', async () => {
  const request = await planOf(1, 2);
  const setting = { [ploverF5.ownCall!]: 'Q7CLUB' };
  await editPlan(request.planId, request.planRevision, {
    name: 'describe',
    set: { settings: { 'plover-f5': setting } },
  });
  const callOnCard = async () => {
    const files = cardOfZip((await cardZip(radioId, request.planId)).file);
    const read = files.ok ? readCard(files.value) : null;
    const content = read?.kind === 'whole' ? decodeImage(read.image, ploverF5) : null;
    return content?.ok && content.value.settings[ploverF5.ownCall!];
  };
  expect(await callOnCard()).toBe('Q7CLUB');
  await setUnitValues(radioId, { [ploverF5.ownCall!]: 'Q7UNIT' });
  expect(await callOnCard()).toBe('Q7UNIT');
  await setUnitValues(radioId, {});
});

test('a card in another machine’s reader goes through the browser as a zip, both ways', async () => {
  const request = await planOf(1, 2, 3);
  const { file, type, name } = await cardZip(radioId, request.planId);
  expect([type, name]).toEqual(['application/zip', 'plan-of-3-or520144.zip']);
  // Unpacked onto the card, and loaded in the radio.
  const files = cardOfZip(file);
  if (!files.ok) throw new Error(files.reason);
  for (const [file, bytes] of files.value) writeFileSync(join(reader, 'plover-1', file), bytes);
  await toRadio();
  const { channel, card } = await hand({ slot: 1, card: 'load' });
  const { plan } = await getPlan(request.planId);
  expect([card.says, channel?.name]).toEqual(['LOADED', plan.channels[1]!.name]);
  // Saved again in the radio, packed, and read: the same bytes, sealed for the same unit.
  await hand({ card: 'save' });
  await toReader();
  const onCard = [...(await filesOnCard(join(reader, 'plover-1')))];
  const back = zipOfCard(onCard.map(([name, bytes]) => ({ name, bytes })));
  const opened = await openCard(Buffer.from(back).toString('base64'));
  expect(opened).toMatchObject({ radioId, called: 'OR520144' });
  const copy = await getCopy(opened.copyId);
  const content = decodeImage(copy.image, ploverF5);
  expect(content.ok && content.value.channels.map(({ slot, tx }) => [slot, tx])).toEqual(
    contentToWrite(plan, ploverF5).channels.map(({ slot, tx }) => [slot, tx]),
  );

  // Half of it is not kept, and neither is what is none.
  const copies = (await here())!.copies.length;
  const half = zipOfCard(
    onCard.filter(([name]) => name !== 'SET.TXT').map(([name, bytes]) => ({ name, bytes })),
  );
  await expect(openCard(Buffer.from(half).toString('base64'))).rejects.toMatchObject({ kind: 'half-card' });
  await expect(openCard('AAAA')).rejects.toMatchObject({ kind: 'no-card' });
  expect((await here())!.copies).toHaveLength(copies);
});

test('taken out in the middle the card is half, the radio takes nothing of it, and the write goes on or is made anew', async () => {
  const ends = new Map<string, number>();
  for (const atByte of [1, 200, 500, 1200, 8000, 30_000, 60_000, 74_000, 74_500, 74_900]) {
    await toReader();
    const request = await planOf(1, 2, 3, 4, (atByte % 700) + 5);
    await hand({ kind: 'pull', atByte }, '/faults');
    const end = await run(request);
    await hand({ kind: 'none' }, '/faults');
    if (end.state === 'done') {
      ends.set('written', (ends.get('written') ?? 0) + 1);
      continue;
    }
    expect(end.message).toContain('The card was taken out of the reader');
    const before = (await hand({ slot: 1 })).channel;
    const loaded = await hand({ card: 'load' });
    await toReader();
    const radio = (await here())!;
    ends.set(radio.state, (ends.get(radio.state) ?? 0) + 1);
    if (radio.state === 'half written') {
      expect(loaded.card.says).toBe('CARD ERROR');
      expect(loaded.channel).toEqual(before);
      expect(end.message).toContain('takes nothing of it');
      // Gone on with, or made anew on the newest sealed copy.
      const again = radio.canResume && atByte % 1000 === 0 ? { kind: 'resume' as const, radioId } : request;
      expect(await run(again)).toMatchObject({ state: 'done' });
    } else expect(loaded.card.says).toBe('LOADED');
    const held = decodeImage((await getCopy((await newestCopy(radioId))!.id)).image, ploverF5);
    const { plan } = await getPlan(request.planId);
    if (radio.state === 'half written')
      expect(held.ok && held.value.channels.length).toBe(contentToWrite(plan, ploverF5).channels.length);
  }
  expect(ends.get('half written')).toBeGreaterThan(4);
});

test('another unit’s card, and one that another has been put in for, are not written', async () => {
  await toReader();
  const held = (await getCopy((await newestCopy(radioId))!.id)).image;
  const end = await runCard({ card: 'plover-1' }, ploverF5, {
    kind: 'write',
    image: held,
    serial: 'OR520391',
  });
  expect(end).toMatchObject({
    kind: 'failed',
    radio: 'untouched',
    reason: expect.stringContaining('another unit') as string,
  });
  expect(await runCard({ card: 'plover-9' }, ploverF5, { kind: 'read' })).toMatchObject({
    kind: 'failed',
    reason: 'The card was taken out of the reader.',
  });
  // The radio itself takes only its own.
  await toRadio();
  await hand({ kind: 'wrong model', ident: 'OTHERSET' }, '/faults');
  expect((await hand({ card: 'load' })).card.says).toBe('OTHER UNIT');
  await hand({ kind: 'none' }, '/faults');
});

test('a card with anything else on it is left as it is: folders, pictures, what is too large', async () => {
  const folder = join(reader, 'elsewhere');
  mkdirSync(join(folder, 'DCIM.100'), { recursive: true });
  symlinkSync(join(folder, '..', 'plover-1', MANIFEST), join(folder, 'AWAY.TXT'));
  writeFileSync(join(folder, 'hills of home.jpeg'), 'x');
  writeFileSync(join(folder, MANIFEST), Buffer.alloc(3_000_000));
  expect(await runCard({ card: 'elsewhere' }, null, { kind: 'identify' })).toMatchObject({
    kind: 'failed',
    reason: expect.stringContaining('There is nothing of a radio') as string,
  });
  expect([...(await filesOnCard(folder)).keys()]).toEqual([]);
  expect(existsSync(join(folder, 'hills of home.jpeg'))).toBe(true);
  rmSync(folder, { recursive: true });
  // A hundred pictures beside a radio's files hide none of them, and are not read.
  const own = join(reader, 'plover-1');
  await toReader();
  for (let n = 0; n < 100; n++) writeFileSync(join(own, `DSC${String(n).padStart(5, '0')}.JPG`), 'x');
  expect([...(await filesOnCard(own)).keys()].filter((name) => name.startsWith('DSC'))).toEqual([]);
  expect(await runCard({ card: 'plover-1' }, null, { kind: 'identify' })).toMatchObject({ kind: 'finished' });
});
