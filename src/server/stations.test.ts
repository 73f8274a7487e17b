import { HANG_MS } from '../core/until.test.kit';
import { createServer, type Server, type ServerResponse } from 'node:http';
import { readFileSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import type { Entry } from '../core/directory';
import { openDatabase } from '../db';
import { dataFolder } from './data-folder.test.kit';
import type * as Stations from './stations';

/** What directories answer is kept and found again without them; a directory that wants an account gets it, and nobody else does. */

const folder = dataFolder('stations');

let it: typeof Stations;
let server: Server;
let asked: { path: string; authorization: string | undefined }[] = [];
let register: (url: URL, response: ServerResponse) => void;
let ledger: (url: URL, response: ServerResponse) => void;

const row = (n: number, more: object = {}) => ({
  ref: `RR-${n}`,
  call: '',
  site: `Site ${n}`,
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: '145.6125',
  input_mhz: '145.0125',
  access: '88.5',
  mode: 'FM',
  lat: 52,
  // 68.46 km a degree there
  lon: -30 + n / 10,
  height_m: 50,
  on_air: true,
  constant: false,
  updated: '2026-01-01',
  ...more,
});
const page = (entries: object[]) => JSON.stringify({ page: 1, pages: 1, total: entries.length, entries });
const around = (km: number, more: Partial<Stations.StationSearch> = {}): Stations.StationSearch => ({
  where: { kind: 'around', point: { lat: 52, lon: -30 }, km },
  sources: ['relay-register'],
  ask: 'yes',
  most: 100,
  ...more,
});
const refs = ({ candidates }: { candidates: { entry: Entry }[] }) => candidates.map(({ entry }) => entry.ref);

beforeAll(async () => {
  process.env.VERIDON_DIRECTORY_PATIENCE_MS = String(HANG_MS);
  it = await import('./stations');
  server = createServer((request, response) => {
    const url = new URL(request.url ?? '', 'http://x');
    asked.push({ path: url.pathname, authorization: request.headers.authorization });
    (url.pathname.startsWith('/ledger') ? ledger : register)(url, response);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(() => {
  delete process.env.VERIDON_BENCH_URL;
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  asked = [];
});

test('what is answered is kept, and found again without asking, also when the directory is away', async () => {
  register = (_, response) => response.end(page([row(3), row(1), row(2)]));
  expect(refs(await it.searchStations(around(40)))).toEqual(['RR-1', 'RR-2', 'RR-3']);
  expect(asked).toHaveLength(1);
  // a moment later, and within the same circle, nobody is asked again
  // 0.2 degrees are 13.7 km
  expect(refs(await it.searchStations(around(14)))).toEqual(['RR-1', 'RR-2']);
  expect(asked).toHaveLength(1);
  register = (_, response) => response.destroy();
  const away = await it.searchStations(around(60));
  expect(refs(away)).toEqual(['RR-1', 'RR-2', 'RR-3']);
  expect(away.troubles).toMatchObject([
    {
      source: 'relay-register',
      name: 'Relay Register',
      trouble: expect.stringMatching(/broke|Nothing answers/) as string,
    },
  ]);
  expect(asked).toHaveLength(2);
  expect((await it.searchStations(around(60, { ask: 'no' }))).troubles).toEqual([]);
  expect(asked).toHaveLength(2);
  expect(await it.listDirectories()).toMatchObject([
    { id: 'relay-register', kept: 3, wantsAccount: false },
    { id: 'isles-ledger', kept: 0, wantsAccount: true, account: null },
  ]);
});

test('asked again it says what is new, what is otherwise and what has gone; of what lies outside nothing is known', async () => {
  // 1: gone; 2: other access; 4: new. 3 lies 20.5 km away and is not asked for.
  register = (_, response) => response.end(page([row(2, { access: '77.0' }), row(-1, { ref: 'RR-4' })]));
  const found = await it.searchStations(around(15, { ask: 'again' }));
  expect(refs(found).sort()).toEqual(['RR-2', 'RR-4']);
  expect(found.candidates.find(({ entry }) => entry.ref === 'RR-2')!.entry.access).toMatchObject({
    send: { tone: 770 },
  });
  expect(refs(await it.searchStations(around(40, { ask: 'no' }))).sort()).toEqual(['RR-2', 'RR-3', 'RR-4']);
  // a row that nobody understands may be any of those that are missed: nothing is taken for gone
  register = (_, response) => response.end(page([row(2), { ref: 'RR-4' }]));
  const partly = await it.searchStations(around(15, { ask: 'again' }));
  expect(partly.skipped).toHaveLength(1);
  expect(refs(partly).sort()).toEqual(['RR-2', 'RR-4']);
  // and one that comes back is there again
  register = (_, response) => response.end(page([row(1), row(2), row(-1, { ref: 'RR-4' })]));
  expect(refs(await it.searchStations(around(15, { ask: 'again' }))).sort()).toEqual([
    'RR-1',
    'RR-2',
    'RR-4',
  ]);
});

test('along a route they come in the order of travel; the most wanted are the first of it', async () => {
  const route = {
    kind: 'along' as const,
    places: [
      { lat: 52, lon: -29.65 },
      { lat: 52, lon: -30.2 },
    ],
    km: 5,
  };
  const found = await it.searchStations(around(1, { where: route, ask: 'no' }));
  expect(refs(found)).toEqual(['RR-3', 'RR-2', 'RR-1', 'RR-4']);
  expect(found.routeKm).toBeCloseTo(0.55 * 68.46, 1);
  const two = await it.searchStations(around(1, { where: route, ask: 'no', most: 2 }));
  expect(refs(two)).toEqual(['RR-3', 'RR-2']);
  expect(two.beyond).toBe(2);
  await expect(
    it.searchStations(
      around(1, { where: { ...route, places: [route.places[0]!, { lat: -52, lon: 150 }] }, ask: 'no' }),
    ),
  ).rejects.toMatchObject({ kind: 'too-large' });
});

test('over the 180th meridian and at the pole', async () => {
  const far = [
    row(1, { ref: 'east', lat: 0, lon: 179.9 }),
    row(1, { ref: 'west', lat: 0, lon: -179.9 }),
    row(1, { ref: 'pole', lat: 89.9, lon: 100 }),
  ];
  register = (_, response) => response.end(page(far));
  const at = (lat: number, lon: number) =>
    it.searchStations(around(30, { where: { kind: 'around', point: { lat, lon }, km: 30 }, ask: 'yes' }));
  expect(refs(await at(0, 180)).sort()).toEqual(['east', 'west']);
  expect(refs(await at(89.9, -80))).toEqual(['pole']);
});

const service = (n: number, more: object = {}) => ({
  number: `IL/${n}`,
  licensee: 'Isles Rescue',
  use: 'dispatch',
  class: 'public safety',
  area: 'Ullsmere',
  base_khz: 168_000 + n * 12.5,
  mobile_khz: null,
  signalling: '',
  emission: 'NFM',
  position: [52, -30],
  mast_m: 10,
  encrypted: n === 2,
  in_service: true,
  since: '2024-01-01',
  ...more,
});

test('a directory with an account: tried, sealed, used, forgotten, and never said', async () => {
  const right = `Basic ${Buffer.from('keeper:harbour lights').toString('base64')}`;
  ledger = (url, response) => {
    if (asked.at(-1)!.authorization !== right) {
      response.statusCode = 401;
      response.end('{}');
    } else if (url.pathname === '/ledger/areas') response.end('{"areas":["Ullsmere"]}');
    else if (url.searchParams.get('from') === '0')
      response.end(
        JSON.stringify({ area: 'Ullsmere', next: 2, count: 3, services: [service(1), service(2)] }),
      );
    else
      response.end(
        JSON.stringify({
          area: 'Ullsmere',
          next: null,
          count: 3,
          services: [service(3, { position: [53, -30] })],
        }),
      );
  };
  const wish = around(40, { sources: ['isles-ledger'] });
  expect((await it.searchStations(wish)).troubles[0]!.trouble).toMatch(/answers nobody without a name/);
  await expect(it.setAccount('isles-ledger', { name: 'keeper', password: 'wrong' })).rejects.toMatchObject({
    kind: 'account-refused',
  });
  expect((await it.listDirectories())[1]!.account).toBeNull();
  await expect(it.setAccount('relay-register', { name: 'a', password: 'b' })).rejects.toMatchObject({
    status: 404,
  });
  await it.setAccount('isles-ledger', { name: 'keeper', password: 'harbour lights' });
  expect((await it.listDirectories())[1]).toMatchObject({ account: 'keeper' });
  const found = await it.searchStations(wish);
  expect(found.troubles).toEqual([]);
  expect(refs(found).sort()).toEqual(['IL/1', 'IL/2']);
  expect(found.candidates.find(({ entry }) => entry.ref === 'IL/2')!.entry.encrypted).toBe(true);
  // nothing of it stands in the database, and the key only for this account of the system
  const { database } = await openDatabase();
  const { rows } = (await database.execute(sql`select * from secrets`)) as unknown as {
    rows: { encrypted: Uint8Array }[];
  };
  const bytes = Buffer.from(rows[0]!.encrypted).toString('latin1');
  for (const word of ['keeper', 'harbour', 'lights']) expect(bytes).not.toContain(word);
  const file = join(process.env.VERIDON_DATA_DIR!, 'secrets.key');
  expect(statSync(file).mode & 0o777).toBe(0o600);
  expect(readFileSync(file)).toHaveLength(32);
  // without the key it is as good as none
  rmSync(file);
  expect((await it.listDirectories())[1]!.account).toBeNull();
  await it.setAccount('isles-ledger', { name: 'keeper', password: 'harbour lights' });
  await it.setAccount('isles-ledger', null);
  expect((await it.listDirectories())[1]!.account).toBeNull();
  expect(folder).toBeDefined();
});

test('a directory that goes round in a circle is stopped', async () => {
  await (async () => {
    ledger = (url, response) =>
      response.end(
        url.pathname === '/ledger/areas'
          ? '{"areas":["Ullsmere"]}'
          : JSON.stringify({ area: 'Ullsmere', next: 0, count: 3, services: [] }),
      );
    await it.setAccount('isles-ledger', { name: 'keeper', password: 'x' });
  })();
  const found = await it.searchStations(around(40, { sources: ['isles-ledger'], ask: 'again' }));
  expect(found.troubles[0]!.trouble).toMatch(/not a list of entries/);
  expect(refs(found).sort()).toEqual(['IL/1', 'IL/2']);
});

test('a directory that changes its shape costs nothing that is known: its rows are said, and nobody is taken for gone', async () => {
  register = (_, response) => void response.end(page([row(61), row(62)]));
  expect(refs(await it.searchStations(around(500, { ask: 'again' })))).toEqual(
    expect.arrayContaining(['RR-61', 'RR-62']),
  );
  const reshaped = [61, 62].map((n) => {
    const { output_mhz, ...rest } = row(n);
    return { ...rest, frequencies: { output_khz: Number(output_mhz) * 1000 } };
  });
  register = (_, response) => void response.end(page(reshaped));
  const after = await it.searchStations(around(500, { ask: 'again' }));
  expect(after.skipped).toHaveLength(2);
  expect(after.skipped[0]).toMatch(/output_mhz/);
  expect(refs(after)).toEqual(expect.arrayContaining(['RR-61', 'RR-62']));
});
