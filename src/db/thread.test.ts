import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { sql } from 'drizzle-orm';
import { Client } from 'pg';
import { startThread, type DatabaseThread, type Shared } from './start-thread.mjs';
import { makePglite, openFolder, type Opened } from './open';
import { openHere, openInThread, type Embedded } from './thread';

const place = mkdtempSync(join(tmpdir(), 'veridon-thread-'));
const folder = join(place, 'db');
let opened: Opened;

setFlagsFromString('--expose_gc');
const collect = runInNewContext('gc') as () => void;

beforeAll(async () => {
  await makePglite(place);
  cpSync(folder, join(place, 'here'), { recursive: true });
});
afterAll(() => rmSync(place, { recursive: true, force: true }));

const rows = async (statement: ReturnType<typeof sql>) =>
  ((await opened.database.execute(statement)) as unknown as { rows: Record<string, unknown>[] }).rows;

describe('the embedded database in its thread', () => {
  beforeAll(async () => {
    opened = await openFolder(folder);
  }, 60_000);
  afterAll(() => opened.close());

  test('answers what is long, and takes it, whole', async () => {
    const long = 'é'.repeat(1_000_000);
    const [row] = await rows(sql`select ${long} as said, length(${long}) as letters`);
    expect(row).toEqual({ said: long, letters: 1_000_000 });
    const many = await rows(sql`select n from generate_series(1, 20000) n`);
    expect(many).toHaveLength(20_000);
    expect(many.at(-1)).toEqual({ n: 20_000 });
  });

  test('answers each of many that ask at once what it asked', async () => {
    const asked = Array.from({ length: 200 }, (_, n) => n);
    const answers = await Promise.all(asked.map((n) => rows(sql`select ${n}::integer as n`)));
    expect(answers.map(([row]) => row!.n)).toEqual(asked);
  });

  test('goes on after a statement that it refuses, also in a transaction', async () => {
    await expect(rows(sql`select nothing_of_that_name`)).rejects.toMatchObject({ cause: { code: '42703' } });
    const spoilt = opened.database.transaction(async (transaction) => {
      await transaction.execute(sql`create table half (n integer)`);
      await transaction.execute(sql`select nothing_of_that_name`);
    });
    await expect(spoilt).rejects.toMatchObject({ cause: { code: '42703' } });
    expect(await rows(sql`select to_regclass('half') as half`)).toEqual([{ half: null }]);
  });

  test('keeps nothing of what it has answered', async () => {
    const here = await openHere(join(place, 'here'), () => {});
    const client = new Client({ stream: () => here.connection(), user: 'postgres', database: 'postgres' });
    await client.connect();
    const ask = async (times: number) => {
      for (let n = 0; n < times; n++) await client.query(`select repeat('${n % 10}', 4000000) as said`);
      collect();
      return process.memoryUsage().heapUsed;
    };
    const before = await ask(2);
    const after = await ask(20);
    await client.end();
    await here.close();
    // Kept it would be 80 MB.
    expect(after - before).toBeLessThan(20_000_000);
  }, 60_000);

  test('keeps this thread free while it works', async () => {
    let answered = false;
    const asked = rows(sql`select count(*) from generate_series(1, 2000000) n`).then(() => (answered = true));
    // In this thread the question would be worked on before the first of these turns ends.
    for (let turns = 0; turns < 5; turns++) await new Promise((resolve) => setImmediate(resolve));
    expect(answered).toBe(false);
    await asked;
  });
});

describe('a connection', () => {
  let embedded: Embedded;
  let thread: DatabaseThread;
  beforeAll(async () => {
    thread = startThread();
    (globalThis as Shared).veridonDatabaseAhead = { thread };
    embedded = await openInThread(folder);
  }, 60_000);
  afterAll(() => embedded.close());

  const connected = async () => {
    const client = new Client({
      stream: () => embedded.connection(),
      user: 'postgres',
      database: 'postgres',
    });
    await client.connect();
    return client;
  };

  test('finds nothing of a transaction that another left open', async () => {
    const first = await connected();
    await first.query('begin');
    await first.query('create table left_open (n integer)');
    await first.end();
    const second = await connected();
    const { rows: found } = await second.query("select to_regclass('left_open') as found");
    expect(found).toEqual([{ found: null }]);
    await second.end();
  });

  test('whose thread breaks down is followed by one to another, which has what was answered', async () => {
    const first = await connected();
    first.on('error', () => {});
    await first.query('create table answered as select 7 as n');
    const asked = first.query('select pg_sleep(60)');
    await thread.worker.terminate();
    await expect(asked).rejects.toThrow(/the database stopped/);
    const second = await connected();
    expect((await second.query('select n from answered')).rows).toEqual([{ n: 7 }]);
    await second.end();
  }, 30_000);
});
