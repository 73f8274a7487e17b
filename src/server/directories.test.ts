import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server, type ServerResponse } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { channel } from '../core/samples.test.kit';
import { HANG_MS, NO_TIMERS_BUT_TIMEOUTS, until } from '../core/until.test.kit';
import { openDatabase } from '../db';
import type { findPlaces as FindPlaces, searchRegister as SearchRegister } from './directories';

/** The Relay Register answered by whoever comes: what it sends is held against what is wanted. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-directories-'));

let findPlaces: typeof FindPlaces;
let searchRegister: typeof SearchRegister;
let server: Server;
let answer: (path: string, response: ServerResponse) => void;
beforeAll(async () => {
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
  ({ findPlaces, searchRegister } = await import('./directories'));
  server = createServer((request, response) => answer(request.url ?? '', response));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(() => {
  delete process.env.VERIDON_BENCH_URL;
  server.closeAllConnections();
  server.close();
  rmSync(folder, { recursive: true, force: true });
});

const circle = { lat: 52.06, lon: -29.84, radiusKm: 40 };
const row = (n: number, more: object = {}) => ({
  ref: `RR-${n}`,
  call: 'Q7ABC',
  site: `Site ${n}`,
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: '145.6125',
  input_mhz: '145.0125',
  access: '88.5',
  mode: 'FM',
  lat: 52.06,
  lon: -29.84 + n / 100,
  height_m: 50,
  on_air: true,
  constant: false,
  updated: '2026-01-01',
  ...more,
});

test('pages are fetched until there are no more', async () => {
  const asked: string[] = [];
  answer = (path, response) => {
    asked.push(path);
    const page = Number(new URL(path, 'http://x').searchParams.get('page'));
    response.end(
      JSON.stringify({
        page,
        pages: 3,
        total: 5,
        entries: page === 3 ? [row(5)] : [row(page * 2 - 1), row(page * 2)],
      }),
    );
  };
  const found = await searchRegister(circle);
  expect(asked).toHaveLength(3);
  expect(found.candidates.map((candidate) => candidate.entry.ref)).toEqual([
    'RR-1',
    'RR-2',
    'RR-3',
    'RR-4',
    'RR-5',
  ]);
  expect(found).toMatchObject({ skipped: [], beyond: 0 });
});

test('a row that cannot be read costs only itself', async () => {
  answer = (_, response) =>
    void response.end(
      JSON.stringify({ page: 1, pages: 1, total: 3, entries: [row(1), row(2, { access: 'Z' }), 7] }),
    );
  const found = await searchRegister(circle);
  expect(found.candidates).toHaveLength(1);
  expect(found.skipped).toEqual([expect.stringContaining('RR-2'), expect.stringContaining('the row')]);
});

test.each([
  ['another shape', (response: ServerResponse) => response.end('{"rows":[]}'), 'directory-rubbish'],
  ['no JSON', (response: ServerResponse) => response.end('nonsense'), 'directory-rubbish'],
  ['a refusal', (response: ServerResponse) => response.writeHead(503).end('{}'), 'directory-refused'],
  ['a broken connection', (response: ServerResponse) => response.destroy(), 'directory-cut-off'],
])('%s becomes a problem that says so', async (_, act, kind) => {
  answer = (__, response) => void act(response);
  await expect(searchRegister(circle)).rejects.toMatchObject({ kind });
  await expect(findPlaces('Ketterby')).rejects.toMatchObject({ kind });
});

test('nobody at its address becomes a problem that says what to start', async () => {
  const there = process.env.VERIDON_BENCH_URL;
  const gone = createServer();
  await new Promise<void>((resolve) => gone.listen(0, '127.0.0.1', resolve));
  process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${(gone.address() as { port: number }).port}`;
  await new Promise((resolve) => gone.close(resolve));
  await expect(searchRegister(circle)).rejects.toMatchObject({
    kind: 'directory-away',
    detail: expect.stringContaining('npm run bench'),
  });
  process.env.VERIDON_BENCH_URL = there;
});

describe('an answer that has no end', () => {
  /** Sends for as long as somebody listens; says how much that was, and when the other end has gone. */
  const endless = (response: ServerResponse) => {
    const sent = { bytes: 0, gone: false };
    const chunk = Buffer.alloc(65_536, 0x20);
    const pour = () => {
      while (!sent.gone && response.write(chunk)) sent.bytes += chunk.length;
    };
    response.on('drain', pour);
    response.on('close', () => (sent.gone = true));
    pour();
    return sent;
  };
  const gone = (sent: { gone: boolean }) => until('the other end to go away', () => sent.gone);

  test('is read no further than a page can go', async () => {
    let sent = { bytes: 0, gone: false };
    answer = (_, response) => (sent = endless(response));
    await expect(searchRegister(circle)).rejects.toMatchObject({
      status: 502,
      kind: 'directory-rubbish',
      detail: expect.stringContaining('larger than a directory sends'),
    });
    await gone(sent);
    // a million bytes are read; what lies in the buffers of the two ends is all that was sent beyond
    expect(sent.bytes).toBeLessThan(12_000_000);
  });

  test('is not read either where it is an ordinary page with a megabyte of something else behind it', async () => {
    const page = { page: 1, pages: 1, total: 1, entries: [row(1)], places: [] };
    answer = (_, response) => response.end(JSON.stringify({ ...page, more: 'x'.repeat(900_000) }));
    expect((await searchRegister(circle)).candidates).toHaveLength(1);
    answer = (_, response) => response.end(JSON.stringify({ ...page, more: 'x'.repeat(1_000_000) }));
    await expect(searchRegister(circle)).rejects.toMatchObject({
      detail: expect.stringContaining('larger than a directory sends'),
    });
  });

  test('ends when whoever asked has gone', async () => {
    let sent: { bytes: number; gone: boolean } | undefined;
    answer = (_, response) => {
      sent = { bytes: 0, gone: false };
      response.write('{"places": [');
      response.on('close', () => (sent!.gone = true));
    };
    const asker = new AbortController();
    const asking = findPlaces('kett', asker.signal);
    const begun = await until('the question', () => sent);
    asker.abort();
    await expect(asking).rejects.toMatchObject({ status: 504 });
    await gone(begun);
  });
});

test('patience is for the whole search, however quickly each page is there', async () => {
  let asked = 0;
  answer = (path, response) => {
    asked++;
    const page = Number(new URL(path, 'http://x').searchParams.get('page'));
    jest.advanceTimersByTime(400);
    response.end(JSON.stringify({ page, pages: 20, total: 20, entries: [row(page)] }));
  };
  // Of its 1,500 ms each page takes 400: the fourth comes too late.
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = '1500';
  jest.useFakeTimers({ doNotFake: NO_TIMERS_BUT_TIMEOUTS });
  try {
    await expect(searchRegister(circle)).rejects.toMatchObject({ status: 504, kind: 'directory-slow' });
  } finally {
    jest.useRealTimers();
    process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
  }
  expect(asked).toBe(4);
});

test('a search is held against the plan and the radio that are asked for, around the point that is', async () => {
  process.env.VERIDON_DATA_DIR = folder;
  process.env.VERIDON_RESERVE_MB = '1';
  const { createPlan, editPlan } = await import('.');
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const { plan } = await createPlan({ name: 'Here', modelId: 'tern-p2', owner });
  // the plan has 145.6125 MHz with another access, in slot 4
  const held = { ...channel(4, 145_612_500), tx: 145_012_500 };
  const range = { first: 0, count: 150 };
  await editPlan(plan.id, 1, { name: 'place', channels: [held], placement: 'at-slot', at: 4, range });
  let asked = '';
  answer = (path, response) => {
    asked = path;
    const entries = [row(1), row(2, { output_mhz: '223.500', input_mhz: '' })];
    response.end(JSON.stringify({ page: 1, pages: 1, total: 9, entries }));
  };
  const of = async (more: object) => (await searchRegister({ ...circle, ...more })).candidates;
  const [near, beyond] = await of({ planId: plan.id });
  expect(Object.fromEntries(new URL(asked, 'http://x').searchParams)).toMatchObject({
    lat: '52.06',
    lon: '-29.84',
    radius_km: '40',
  });
  expect(near).toMatchObject({ present: { slot: 4, near: true }, unfit: null });
  // 0.01 degrees of longitude at 52.06 N: 111.195 km x cos(52.06) / 100
  expect(near!.distance).toBeCloseTo(0.6836, 2);
  expect(near!.wind).toBe('E');
  expect(beyond!.unfit).not.toBeNull();
  // a radio with the 222 MHz band hears it; without a plan nothing is there already
  expect((await of({ planId: plan.id, modelId: 'tern-p3' }))[1]!.unfit).toBeNull();
  expect((await of({ modelId: 'tern-p3' }))[0]!.present).toBeNull();
  expect((await of({}))[1]!.unfit).not.toBeNull();
  expect((await searchRegister(circle)).beyond).toBe(7);
  await (await openDatabase()).close();
});

test('the key of the bench is shown to it as it stands in its file, without the line end', async () => {
  process.env.VERIDON_BENCH_DIR = folder;
  writeFileSync(join(folder, 'key'), 'open-sesame\n');
  let shown: string | undefined;
  answer = (_, response) => {
    shown = response.req.headers.authorization;
    response.end('{"places": []}');
  };
  await findPlaces('Ketterby').catch(() => {});
  expect(shown).toBe('Bearer open-sesame');
  delete process.env.VERIDON_BENCH_DIR;
});
