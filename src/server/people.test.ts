import { eq } from 'drizzle-orm';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { people, rolls } from '../db';
import { HANG_MS, until } from '../core/until.test.kit';
import { listed } from '../sim/roll/service';
import { startSim } from '../sim/server';
import { reading, writing } from './database';
import { dataFolder } from './data-folder.test.kit';
import { listPeople, markedPeople, markPerson, rollNow, searchPeople } from './people';
import {
  forgetRolls,
  lastLoad,
  loadEnded,
  packedFile,
  sayBrokenOff,
  startLoad,
  stopLoad,
} from './people-load';
import { forgetPeopleText } from './people-text';

/** A roll of people from the stand-in over HTTP into the database: all or nothing, told and counted, whatever the roll is like. */

const PEOPLE = 34_567;
let bench: Awaited<ReturnType<typeof startSim>>;
dataFolder('people', {
  async before(folder) {
    process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 40, people: PEOPLE });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
  },
  after: () => bench.close(),
});
const order = (path: string, body: object) =>
  fetch(`http://127.0.0.1:${bench.port}${path}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify(body),
  });
const load = async () => {
  await startLoad();
  await loadEnded();
  return lastLoad()!;
};
const inTables = async () => ({
  rolls: (await (await reading()).select({ state: rolls.state }).from(rolls)).map(({ state }) => state),
  people: (await (await reading()).select({ id: people.id }).from(people)).length,
});

test('where no roll has been loaded nobody is found, and that is no fault', async () => {
  expect(await rollNow()).toBeNull();
  expect(await searchPeople('wenna', 10)).toEqual({ people: [], more: false });
  expect(await listPeople(0, 10)).toEqual({ people: [], of: 0 });
  await expect(markPerson(1_000_000, { pinned: true, note: '' })).rejects.toMatchObject({ status: 404 });
});

test('a roll is loaded whole, and its people are listed by number and found as one types', async () => {
  const begun = await startLoad();
  expect(begun).toMatchObject({ state: 'loading' });
  await expect(startLoad()).rejects.toMatchObject({ status: 409, kind: 'people-busy' });
  await loadEnded();
  expect(lastLoad()).toMatchObject({ state: 'done', people: PEOPLE, message: '34,567 people are loaded.' });
  expect(await rollNow()).toMatchObject({
    ...{ source: 'Ident Roll', made: '2026-11-20T04:00:00Z', people: PEOPLE, odd: { count: 0 }, news: null },
  });
  // The numbers of the roll are 1,000,000 and on, every sixth left out.
  const { people: some, of } = await listPeople(4, 3);
  expect(of).toBe(PEOPLE);
  expect(some.map(({ id }) => id)).toEqual([1_000_004, 1_000_006, 1_000_007]);
  const one = listed(777);
  const found = await searchPeople(`${one.call.toLowerCase()} ${one.last.slice(0, 3)}`, 50);
  const { island, ...fields } = one;
  expect(found.people).toContainEqual({ ...fields, area: island, mark: null, known: true });
  // A number and its name are one row.
  for (const { id, call, first, known } of found.people) {
    const n = [...Array(PEOPLE).keys()].find((at) => listed(at).id === id)!;
    expect([call, first, known]).toEqual([listed(n).call, listed(n).first, true]);
  }
  expect((await searchPeople('ullsmere', 20)).more).toBe(true);
});

test.each([
  ['cut off', 'broke before it was whole'],
  ['rubbish', 'it is no JSON'],
  ['other shape', 'it is no Ident Roll'],
  ['empty', 'There is nobody in what came'],
  ['refuse', 'broke before it was whole'],
  ['slow', 'Nothing came of the Ident Roll for 2 seconds'],
])('of a roll that is %s nothing is kept, and the one before stays', async (kind, words) => {
  if (kind === 'slow') process.env.VERIDON_DIRECTORY_PATIENCE_MS = '1000';
  await order('/roll/faults', kind === 'slow' ? { kind, ms: 120_000 } : { kind });
  const end = await load();
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
  await order('/roll/faults', { kind: 'none' });
  expect(end).toMatchObject({ state: 'failed', message: expect.stringContaining(words) as string });
  expect(end.message).toMatch(/The people that you had are as they were\.$/);
  expect(await inTables()).toEqual({ rolls: ['in use'], people: PEOPLE });
});

/** Begins to load a roll that stops after most of its people have come; some are in the tables by then. */
async function loadedInPart() {
  await order('/roll/faults', { kind: 'stall', afterPeople: PEOPLE - 5000 });
  await startLoad();
  await until('the first people', () => lastLoad()!.people > 0);
}

test('stopped in the middle nothing is kept of it', async () => {
  await loadedInPart();
  expect(await stopLoad()).toMatchObject({ state: 'stopped' });
  await order('/roll/faults', { kind: 'none' });
  expect(await inTables()).toEqual({ rolls: ['in use'], people: PEOPLE });
  expect(await stopLoad()).toMatchObject({ state: 'stopped' });
});

test('a roll that is not ours any more takes nobody, and what was there stays', async () => {
  await loadedInPart();
  await (await reading()).update(rolls).set({ instance: 'in_other' }).where(eq(rolls.state, 'loading'));
  await order('/roll/faults', { kind: 'none' });
  await loadEnded();
  expect(lastLoad()).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('took this one for dead') as string,
  });
  // Whose it is by its row forgets it.
  await (await reading()).update(rolls).set({ instance: null }).where(eq(rolls.state, 'loading'));
  await forgetRolls();
  expect(await inTables()).toEqual({ rolls: ['in use'], people: PEOPLE });
});

test('a fresh roll says whom it added, changed and lost; pins and notes outlive it', async () => {
  const [gone, changed] = [listed(10), listed(20)];
  await markPerson(gone.id, { pinned: true, note: 'Net control' });
  await markPerson(changed.id, { pinned: false, note: 'On Tuesdays' });
  await order('/roll/changes', {
    put: [
      { ...changed, town: 'Wend' },
      { id: 1_299_001, call: 'Q7NEW', first: 'Zenna', last: 'Newick', town: 'Wend', island: 'Ullsmere' },
    ],
    drop: [gone.id],
  });
  const end = await load();
  expect(end.message).toBe('34,567 people are loaded. 1 added, 1 changed, 1 gone.');
  const roll = await rollNow();
  expect(roll).toMatchObject({ made: '2026-11-21T04:00:00Z', people: PEOPLE });
  expect(roll!.news).toEqual({
    ...{ added: 1, changed: 1, gone: 1 },
    first: [
      {
        ...{ what: 'gone', id: gone.id, is: '' },
        was: `${gone.call}, ${gone.first} ${gone.last}, ${gone.town}, ${gone.island}`,
      },
      {
        ...{ what: 'changed', id: changed.id },
        is: `${changed.call}, ${changed.first} ${changed.last}, Wend, ${changed.island}`,
        was: `${changed.call}, ${changed.first} ${changed.last}, ${changed.town}, ${changed.island}`,
      },
      { what: 'added', id: 1_299_001, is: 'Q7NEW, Zenna Newick, Wend, Ullsmere', was: '' },
    ],
  });
  expect(await inTables()).toEqual({ rolls: ['in use'], people: PEOPLE });
  expect((await searchPeople('zenna newick', 5)).people.map(({ id }) => id)).toEqual([1_299_001]);
  expect(await markedPeople()).toMatchObject([
    {
      id: gone.id,
      call: gone.call,
      first: `${gone.first} ${gone.last}`,
      known: false,
      mark: { pinned: true, note: 'Net control' },
    },
    { id: changed.id, town: 'Wend', known: true, mark: { pinned: false, note: 'On Tuesdays' } },
  ]);
  expect(await markPerson(gone.id, { pinned: false, note: '' })).toMatchObject({ id: gone.id, mark: null });
  expect(await markedPeople()).toHaveLength(1);
});

test('odd rows are told and counted, and the others are taken', async () => {
  await order('/roll/faults', { kind: 'bad rows' });
  const end = await load();
  await order('/roll/faults', { kind: 'none' });
  // Ten rows: eight are nobody’s or doubled, one is cut, one is taken as it is once its odd signs are gone; the one without a call sign has a name.
  expect(end).toMatchObject({ state: 'done', people: PEOPLE + 3 });
  const roll = await rollNow();
  expect(roll!.odd.count).toBe(8);
  expect(roll!.odd.first.map(({ reason }) => reason)).toEqual(
    expect.arrayContaining([
      '1000000 stands there twice; its first row was taken.',
      '1299992: first cut, it was too long.',
      'It is no row of a roll.',
    ]),
  );
  expect((await searchPeople('1299993', 5)).people).toMatchObject([{ first: 'Control', last: 'Signs' }]);
});

test('what a killed Veridon left of a load is forgotten at the next start, and nothing else', async () => {
  const database = await writing();
  await database
    .insert(rolls)
    .values({ id: 900, source: 'Ident Roll', state: 'loading', instance: 'in_dead' });
  await database
    .insert(people)
    .values([1, 2, 3].map((id) => ({ roll: 900, id, call: 'Q7X', first: '', last: '', town: '', area: '' })));
  const before = (await rollNow())!.people;
  // As a process does that has just started, and has loaded nothing itself.
  delete (globalThis as { veridonPeopleLoad?: unknown }).veridonPeopleLoad;
  expect(lastLoad()).toBeNull();
  await sayBrokenOff();
  expect(lastLoad()).toMatchObject({
    state: 'failed',
    message: expect.stringMatching(/Veridon stopped while Ident Roll was being loaded/) as string,
  });
  await forgetRolls();
  expect(await inTables()).toEqual({ rolls: ['in use'], people: before });
  expect(await database.select().from(rolls).where(eq(rolls.id, 900))).toEqual([]);
  // Found again by what is on disk alone.
  forgetPeopleText();
  expect((await listPeople(0, 1)).of).toBe(before);
});

describe('a file in the place of the roll', () => {
  const packed = (text: string) => gzipSync(text).toString('base64');
  const loadFile = async (name: string, text: string) => {
    await startLoad(await packedFile(name, packed(text)));
    await loadEnded();
    return lastLoad()!;
  };
  test('is loaded whole, and holds what is new in it against what was there', async () => {
    const before = (await rollNow())!.people;
    const told = await loadFile(
      'club.csv',
      'Number;Call;Name\n1299990;Q7CLB;Club One\n1299991;Q7CLC;Club Two\nx;y;z\n',
    );
    expect(told).toMatchObject({ state: 'done', people: 2 });
    expect(told.message).toContain(
      `2 people are loaded. 2 added, 0 changed, ${before.toLocaleString('en')} gone. One row was odd.`,
    );
    expect(await rollNow()).toMatchObject({ source: 'club.csv', people: 2, odd: { count: 1 } });
    expect((await searchPeople('club two', 5)).people.map(({ id }) => id)).toEqual([1_299_991]);
  });
  test('that is none changes nothing, and says why', async () => {
    expect(await loadFile('list.csv', 'who,where\nme,here\n')).toMatchObject({
      state: 'failed',
      message: expect.stringContaining('No column is a number of people') as string,
    });
    expect(await rollNow()).toMatchObject({ source: 'club.csv', people: 2 });
    await expect(packedFile('x.csv', Buffer.from('not packed').toString('base64'))).rejects.toMatchObject({
      status: 422,
    });
    // what unpacks to more than is read is refused before it fills the memory
    const bomb = gzipSync(Buffer.alloc(61_000_000)).toString('base64');
    await expect(packedFile('bomb.csv', bomb)).rejects.toMatchObject({ status: 413 });
  });
});
