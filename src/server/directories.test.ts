import { createServer, type Server, type ServerResponse } from 'node:http';
import { findPlaces, searchRegister } from './directories';

/** The Relay Register answered by whoever comes: what it sends is held against what is wanted. */

let server: Server;
let answer: (path: string, response: ServerResponse) => void;
beforeAll(async () => {
  server = createServer((request, response) => answer(request.url ?? '', response));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(() => {
  delete process.env.VERIDON_BENCH_URL;
  server.closeAllConnections();
  server.close();
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
  [
    'more than any honest answer',
    (response: ServerResponse) => response.end('"' + 'x'.repeat(4_100_000) + '"'),
    'directory-rubbish',
  ],
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
