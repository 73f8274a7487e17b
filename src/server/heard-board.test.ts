import { join } from 'node:path';
import { keyUpDays } from '../db';
import { HANG_MS } from '../core/until.test.kit';
import { startSim } from '../sim/server';
import { reading } from './database';
import { dataFolder } from './data-folder.test.kit';
import { boardEnded, boardNow, rankPeople, startBoard, stopBoard } from './heard-board';
import { markPerson } from './people';
import { loadEnded, startLoad } from './people-load';

/** The Heard Board from the stand-in over HTTP into the database: all or nothing, told and counted; and people ranked by it. */

const KEY_UPS = 20_000;
let bench: Awaited<ReturnType<typeof startSim>>;
dataFolder('heard-board', {
  async before(folder) {
    process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
    bench = await startSim({
      port: 0,
      folder: join(folder, 'bench'),
      speed: 40,
      people: 4000,
      keyUps: KEY_UPS,
    });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
  },
  after: () => bench.close(),
});
const order = (kind: string, more: object = {}) =>
  fetch(`http://127.0.0.1:${bench.port}/heard-board/faults`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify({ kind, ...more }),
  });
const load = async () => {
  await startBoard();
  await boardEnded();
  return (await boardNow()).load!;
};
const everybody = { groups: [], who: 'in the roll' as const, most: 10_000 };

test('where nothing has been loaded nobody is ranked', async () => {
  expect(await boardNow()).toEqual({ board: null, load: null });
  expect(await rankPeople(everybody)).toMatchObject({ ranked: [], people: 0, keyUps: 0 });
});

test('the board is counted whole, and people are ranked by it', async () => {
  await startLoad();
  await loadEnded();
  const begun = await startBoard();
  expect(begun.state).toBe('loading');
  await expect(startBoard()).rejects.toMatchObject({ status: 409 });
  await boardEnded();
  const { board, load: told } = await boardNow();
  expect(told).toMatchObject({ state: 'done', message: '20,000 key-ups are counted.' });
  expect(board).toMatchObject({ source: 'Heard Board', keyUps: KEY_UPS, odd: { count: 0 } });
  expect(board!.talkgroups.reduce((sum, { keyUps }) => sum + keyUps, 0)).toBe(KEY_UPS);
  // the Isles are where most is said
  expect(board!.talkgroups[0]!.number).toBe(100);

  const all = await rankPeople(everybody);
  expect(all.keyUps + all.left.keyUps).toBe(KEY_UPS);
  // repeaters, and those whom the roll does not know
  expect(all.left.keyUps).toBeGreaterThan(KEY_UPS * 0.02);
  expect(all.ranked).toHaveLength(all.people);
  expect(all.ranked.every(({ known, id }) => known && id >= 1_000_000)).toBe(true);
  const times = all.ranked.map(({ keyUps }) => keyUps);
  expect([...times].sort((a, b) => b - a)).toEqual(times);
  expect(all.curve[all.curve.length - 1]).toEqual({ people: all.people, keyUps: all.keyUps });
  const open = await rankPeople({ ...everybody, who: 'all' });
  expect(open.people).toBeGreaterThan(all.people);

  // a talkgroup and a stretch of days is a part of it, and the parts make the whole
  const days = (await (await reading()).select({ day: keyUpDays.day }).from(keyUpDays))
    .map(({ day }) => day)
    .sort();
  const middle = days[Math.floor(days.length / 2)]!;
  const parts = await Promise.all([
    rankPeople({ ...everybody, groups: [100], to: middle }),
    rankPeople({ ...everybody, groups: [100] }),
  ]);
  expect(parts[0]!.keyUps).toBeLessThan(parts[1]!.keyUps);
  expect(parts[1]!.keyUps + parts[1]!.left.keyUps).toBe(board!.talkgroups[0]!.keyUps);

  // who is pinned comes first, whether they were heard or not
  const last = all.ranked[all.ranked.length - 1]!;
  await markPerson(last.id, { pinned: true, note: '' });
  expect((await rankPeople({ ...everybody, most: 3 })).ranked[0]!.id).toBe(last.id);
});

test.each([
  ['refuse', 'broke before it was whole'],
  ['rubbish', 'it has no column for time, talkgroup, id'],
  ['other shape', 'it has no column for time, talkgroup, id'],
  ['cut off', 'broke before it was whole'],
  ['empty', 'the log has no rows'],
])('a board that is %s changes nothing, and is said to', async (kind, reason) => {
  const before = (await boardNow()).board;
  await order(kind);
  const told = await load();
  expect(told.state).toBe('failed');
  expect(told.message).toContain(reason);
  expect(told.message).toContain('What was counted before is as it was.');
  expect((await boardNow()).board).toEqual(before);
  await order('none');
});

test('odd rows are told, counted and left out', async () => {
  await order('bad rows');
  expect(await load()).toMatchObject({
    state: 'done',
    message: '20,000 key-ups are counted. 4 rows were odd.',
  });
  expect((await boardNow()).board!.odd.first.map(({ reason }) => reason)).toEqual([
    '“yesterday” is no day.',
    '“0” is no talkgroup.',
    '“Q7ABC” is no number of anybody.',
    '“half a row” is no day.',
  ]);
  await order('none');
});

test('one that nothing comes of is given up, and one under way is stopped', async () => {
  await order('slow', { ms: 120_000 });
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = '1000';
  expect((await load()).message).toContain('Nothing came of the Heard Board for 2 seconds.');
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
  await startBoard();
  expect(await stopBoard()).toMatchObject({
    state: 'stopped',
    message: expect.stringContaining('Stopped.') as string,
  });
  await order('none');
  expect((await boardNow()).board).toMatchObject({ keyUps: KEY_UPS });
});
