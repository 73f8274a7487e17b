import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as fc from '../core/property.test.kit';
import { sql } from 'drizzle-orm';
import { copyLine } from './copy';
import { makePglite, openFolder, type Opened } from './open';

/** Rows by COPY into the embedded database, over the same connection as everything else. */

const place = mkdtempSync(join(tmpdir(), 'veridon-copy-'));
let opened: Opened;

beforeAll(async () => {
  await makePglite(place);
  opened = await openFolder(join(place, 'db'));
  await opened.database.execute(sql`create table said (n integer primary key, words text not null)`);
});
afterAll(async () => {
  await opened.close();
  rmSync(place, { recursive: true, force: true });
});
const rows = async () =>
  (
    (await opened.database.execute(sql`select n, words from said order by n`)) as unknown as {
      rows: { n: number; words: string }[];
    }
  ).rows;

test('what parts fields and rows is escaped as PostgreSQL says', () => {
  expect(copyLine([7, 'a\tb\\c\nd\re'])).toBe('7\ta\\tb\\\\c\\nd\\re\n');
  // Which would be the end of the data, and nothing at all.
  expect(copyLine(['\\.', '\\N'])).toBe('\\\\.\t\\\\N\n');
});

test('any words come back as they went in, the bare ones for the end and for nothing among them', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(
        fc.oneof(
          fc.string({ unit: 'grapheme', maxLength: 30 }).map((text) => text.replaceAll('\0', '')),
          fc.constantFrom('\\.', '\\N', '', '\t', '\\\t\n', 'x\r\n'),
        ),
        { maxLength: 20 },
      ),
      async (words) => {
        await opened.database.execute(sql`delete from said`);
        await opened.copy!(
          'copy said (n, words) from stdin',
          words.map((text, n) => copyLine([n, text])).join(''),
        );
        expect((await rows()).map(({ words: text }) => text)).toEqual(words);
      },
    ),
    { numRuns: 60 },
  );
});

test('where a row cannot be there none is, and the connection goes on', async () => {
  await opened.database.execute(sql`delete from said`);
  await opened.copy!('copy said (n, words) from stdin', copyLine([5, 'first']));
  const lines = [copyLine([4, 'second']), copyLine([5, 'again']), copyLine([6, 'third'])].join('');
  await expect(opened.copy!('copy said (n, words) from stdin', lines)).rejects.toMatchObject({
    code: '23505',
  });
  await expect(opened.copy!('copy said (n, words) from stdin', 'seven\tno number\n')).rejects.toMatchObject({
    code: '22P02',
  });
  // What stands before it and fails keeps the rows out too.
  await expect(
    opened.copy!('select nothing_of_that_name; copy said (n, words) from stdin', copyLine([8, 'fourth'])),
  ).rejects.toMatchObject({ code: '42703' });
  expect(await rows()).toEqual([{ n: 5, words: 'first' }]);
});

test('those who ask meanwhile are answered what they asked', async () => {
  await opened.database.execute(sql`delete from said`);
  const lines = Array.from({ length: 20_000 }, (_, n) => copyLine([n, `word ${n}`])).join('');
  const [, ...answers] = await Promise.all([
    opened.copy!('copy said (n, words) from stdin', lines),
    ...Array.from({ length: 20 }, (_, n) => opened.database.execute(sql`select ${n}::integer as n`)),
  ]);
  expect((answers as { rows: { n: number }[] }[]).map(({ rows: [row] }) => row!.n)).toEqual(
    Array.from({ length: 20 }, (_, n) => n),
  );
  expect(await rows()).toHaveLength(20_000);
});
