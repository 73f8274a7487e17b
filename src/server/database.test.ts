import { until } from '../core/until.test.kit';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { openDatabase } from '../db';
import { problemOf, reading, writing } from './database';
import { databaseKind } from './health';
import { giveSpaceBack } from './space';

/** The embedded database as it is handed to who reads and who writes, on a disk that is nearly full. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-database-'));
afterAll(async () => {
  await (await openDatabase()).close();
  rmSync(folder, { recursive: true, force: true });
});

test('a data directory that is none is a problem with a sentence, for readers too', async () => {
  writeFileSync(join(folder, 'file'), '');
  process.env.VERIDON_DATA_DIR = join(folder, 'file');
  for (const open of [reading, writing])
    await expect(open()).rejects.toMatchObject({
      status: 507,
      kind: 'data-directory',
      detail: expect.stringContaining(join(folder, 'file')),
    });
  process.env.VERIDON_DATA_DIR = folder;
});

test('what is no fault of the database stays what it is', () => {
  expect(problemOf(new Error('ECONNREFUSED'))).toBeUndefined();
  expect(problemOf(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }))).toBeUndefined();
});

test('a database of our own that broke down is said, whichever error carries it', () => {
  const stopped = Object.assign(new Error('x'), { code: 'DATABASE_STOPPED' });
  const problem = problemOf(new Error('Failed query', { cause: stopped }));
  expect(problem).toMatchObject({ status: 503, kind: 'database-away' });
  expect(problem!.detail).toMatch(/begun anew.*was not confirmed/);
});

test('a disk that is nearly full is read, and not written', async () => {
  process.env.VERIDON_RESERVE_MB = '1';
  expect(await databaseKind()).toBe('pglite');
  await writing();
  process.env.VERIDON_RESERVE_MB = String(10 ** 12);
  await (await reading()).execute(sql`select 1`);
  await expect(writing()).rejects.toMatchObject({
    status: 507,
    kind: 'data-directory',
    detail: expect.stringMatching(/nearly full \(\d+ MB free\)\. Nothing was changed/),
  });
});

test('the space of what rows were before is given back now and then, not at every change', async () => {
  const database = await reading();
  const tidied = async () => {
    const { rows } = (await database.execute(
      sql`select relname from pg_stat_user_tables where vacuum_count > 0 order by relname`,
    )) as { rows: { relname: string }[] };
    return rows.map(({ relname }) => relname);
  };
  for (let n = 0; n < 499; n++) giveSpaceBack();
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(await tidied()).toEqual([]);
  giveSpaceBack();
  await until('the space to be given back', async () => (await tidied()).length >= 4);
  expect(await tidied()).toEqual(['changes', 'documents', 'records', 'summaries']);
});
