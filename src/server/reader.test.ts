import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { HANG_MS, until } from '../core/until.test.kit';
import { Problem } from './problem';
import { runReader } from './reader';

/** Files are read by processes of their own: each answers or is ended, and what it did to itself harms nobody else. */

const table = (rows: number) =>
  strToU8(
    `Name,Receive\n${Array.from({ length: rows }, (_, n) => `R${n},145.${600 + (n % 300)}`).join('\n')}`,
  );
const stations = (bytes: Uint8Array) => ({ bytes, into: null, slots: 'next free' as const });
const day = '2026-11-20';
const places = (rows: number) =>
  strToU8(`Name,Receive,Lat,Lon\n${Array.from({ length: rows }, (_, n) => `R${n},145.6,52,-30`).join('\n')}`);

const whenAborted = (signal: AbortSignal) =>
  new Promise<void>((done) => signal.addEventListener('abort', () => done(), { once: true }));

/** Readers that run, by what the system says. */
const running = () =>
  execFileSync('ps', ['-eo', 'ppid,args'])
    .toString()
    .split('\n')
    .filter((line) => line.trim().startsWith(`${process.pid} `) && line.includes('reader/main.js')).length;

afterEach(async () => {
  delete process.env.VERIDON_READER_SECONDS;
  delete process.env.VERIDON_READER_MB;
  await until('the readers to end', () => running() === 0);
});

test('what a file holds comes in parts, each once the one before has been taken', async () => {
  const sizes: number[] = [];
  let taking = false;
  const read = await runReader(
    'directory',
    { bytes: places(1234), day },
    {
      async part(some) {
        expect(taking).toBe(false);
        taking = true;
        await new Promise((done) => setImmediate(done));
        sizes.push(some.length);
        taking = false;
      },
    },
  );
  expect(read).toMatchObject({ ok: true, value: { kept: 1234, placeless: 0, refused: [] } });
  expect(sizes).toEqual([500, 500, 234]);
});

test('a part that cannot be kept ends the reading, and is what is said', async () => {
  const part = () => Promise.reject(new Error('no room'));
  await expect(runReader('directory', { bytes: places(2000), day }, { part })).rejects.toThrow('no room');
});

test('it ends only when nothing is being taken any more', async () => {
  const leave = new AbortController();
  let taken = false;
  const read = runReader(
    'directory',
    { bytes: places(600), day },
    {
      gone: leave.signal,
      async part() {
        leave.abort();
        // As a database does that is slow.
        await new Promise((done) => setTimeout(done, 200));
        taken = true;
      },
    },
  );
  await expect(read).rejects.toMatchObject({ status: 499 });
  expect(taken).toBe(true);
});

test('one that computes for too long is ended, and says so', async () => {
  process.env.VERIDON_READER_SECONDS = '0.2';
  await expect(runReader('stations', stations(table(400_000)))).rejects.toMatchObject({
    status: 422,
    detail: expect.stringMatching(/over 0\.2 seconds of processor time.*Nothing was changed/) as string,
  });
  delete process.env.VERIDON_READER_SECONDS;
  expect(await runReader('stations', stations(table(3)))).toEqual({
    ok: true,
    value: { kind: 'no plan named' },
  });
});

test('one that takes too much memory is ended, and says so', async () => {
  process.env.VERIDON_READER_MB = '200';
  const nested = gzipSync('['.repeat(19_000_000));
  await expect(runReader('people', { packed: nested })).rejects.toMatchObject({
    status: 422,
    detail: expect.stringMatching(/needs too much memory \(over 200 MB\)/) as string,
  });
});

test('where who sent it goes, the reader goes, or never begins', async () => {
  const leave = new AbortController();
  const first = runReader(
    'directory',
    { bytes: places(5000), day },
    {
      gone: leave.signal,
      // The first part is not taken before that: the reader waits.
      part: () => whenAborted(leave.signal),
    },
  );
  await until('a reader', () => running() === 1);
  const waits = runReader('directory', { bytes: places(5), day }, { gone: leave.signal });
  leave.abort();
  await expect(first).rejects.toMatchObject({ status: 499 });
  await expect(waits).rejects.toMatchObject({ status: 499 });
  await expect(
    runReader('directory', { bytes: places(5), day }, { gone: AbortSignal.abort() }),
  ).rejects.toMatchObject({ status: 499 });
});

test('two read at once, one for each client, and who had least comes first', async () => {
  const order: string[] = [];
  const held: (() => void)[] = [];
  const read = (lane: string, name: string) =>
    runReader(
      'directory',
      { bytes: places(5), day },
      {
        lane,
        part: () => {
          order.push(name);
          return new Promise<void>((goOn) => held.push(goOn));
        },
      },
    );
  const all = [
    read('busy', 'busy 1'),
    read('busy', 'busy 2'),
    read('busy', 'busy 3'),
    read('other', 'other 1'),
  ];
  await until('two readers at work', () => order.length === 2);
  // The second of the busy client waits, though there was nobody before it.
  expect([...order].sort()).toEqual(['busy 1', 'other 1']);
  all.push(read('new', 'new 1'));
  expect(running()).toBe(2);
  // The busy one ends: its next has waited longest, and the new client has had nothing yet.
  held[order.indexOf('busy 1')]!();
  await until('a third', () => order.length === 3);
  expect(order[2]).toBe('new 1');
  const end = setInterval(() => held.forEach((goOn) => goOn()), 20);
  await Promise.all(all);
  clearInterval(end);
  expect(order.slice(3)).toEqual(['busy 2', 'busy 3']);
});

test('beyond a hundred that wait a file is refused', async () => {
  const leave = new AbortController();
  const many = Array.from({ length: 101 }, (_, n) =>
    runReader(
      'directory',
      { bytes: places(5), day },
      {
        lane: `client ${n % 2}`,
        gone: leave.signal,
        part: () => whenAborted(leave.signal),
      },
    ).catch((error: { status: number }) => error.status),
  );
  many.push(
    runReader('directory', { bytes: places(5), day }, { gone: leave.signal }).catch(
      (error: { status: number }) => error.status,
    ),
    runReader('directory', { bytes: places(5), day }, { gone: leave.signal }).catch(
      (error: { status: number }) => error.status,
    ),
  );
  expect(await many.at(-1)).toBe(429);
  leave.abort();
  expect((await Promise.all(many)).filter((status) => status === 499)).toHaveLength(102);
});

test.each([
  ['no archive', strToU8('PK\x03\x04 and nothing behind it')],
  ['an archive of another kind', zipSync({ 'a.txt': strToU8('hello') })],
  ['nothing', new Uint8Array()],
  ['zeros', new Uint8Array(100_000)],
  ['blanks', strToU8(' '.repeat(3_000_000))],
  ['quotation marks', strToU8('"'.repeat(2_000_000))],
  ['line ends', strToU8('\n'.repeat(2_000_000))],
  ['a document type with entities', strToU8('<!DOCTYPE gpx [<!ENTITY a "aaaa">]><gpx>&a;</gpx>')],
  ['a plan that is none', strToU8('{"format":1,"channels":[{"rx":"x"}]}')],
])(
  'each task answers what is %s with a sentence',
  async (_, bytes) => {
    const file = { name: 'x.bin', bytes };
    const answers = [
      await runReader('stations', stations(bytes)),
      await runReader('directory', { bytes, day }, { part: async () => {} }),
      await runReader('people', { packed: gzipSync(bytes) }, { part: async () => {} }),
      await runReader('card', { bytes }),
      await runReader('image', { files: [file], rescue: true }),
    ];
    for (const answer of answers) {
      const said = answer.ok ? JSON.stringify(answer.value) : answer.reason;
      expect(said).toMatch(/\.|no plan named/);
      expect(said).not.toMatch(/undefined|Cannot read|at .*\.js/);
    }
  },
  HANG_MS,
);

/** Runs with a reader of another program in place of ours. */
async function withReader(program: string, run: () => Promise<void>): Promise<void> {
  const before = process.cwd();
  const folder = mkdtempSync(join(tmpdir(), 'veridon-reader-'));
  mkdirSync(join(folder, '.build', 'reader'), { recursive: true });
  writeFileSync(join(folder, '.build', 'reader', 'main.js'), program);
  process.chdir(folder);
  try {
    await run();
  } finally {
    process.chdir(before);
    rmSync(folder, { recursive: true, force: true });
  }
}

test('a reader that ends by itself is a mistake of ours, and no fault of the file', () =>
  withReader(`process.on('message', () => process.exit(3));`, async () => {
    const read = runReader('stations', stations(table(3)));
    await expect(read).rejects.toThrow('The reader ended with code 3.');
    await expect(read).rejects.not.toBeInstanceOf(Problem);
  }));

test('a part that arrives after the reading has ended is not taken', () =>
  withReader(
    `process.on('message', () => [1, 2, 3].forEach((part) => process.send({ part })));`,
    async () => {
      const leave = new AbortController();
      const taken: unknown[] = [];
      const part = async (one: unknown) => {
        taken.push(one);
        // All three are in the pipe before this thread looks at it again.
        Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 300);
        leave.abort();
      };
      const read = runReader('directory', { bytes: places(3), day }, { gone: leave.signal, part });
      await expect(read).rejects.toMatchObject({ status: 499 });
      await until('the reader to end', () => running() === 0);
      // What is in the pipe is read in the next turns of the event loop.
      for (let turns = 0; turns < 50; turns++) await new Promise(setImmediate);
      expect(taken).toEqual([1]);
    },
  ));
