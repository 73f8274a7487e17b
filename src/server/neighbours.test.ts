import { createServer, type Server, type ServerResponse } from 'node:http';
import { channel, plan } from '../core/samples.test.kit';
import { HANG_MS, NO_TIMERS_BUT_TIMEOUTS } from '../core/until.test.kit';
import { areaOf, knownNeighbours, neighboursOf } from './neighbours';

/** The repeaters that a register knows where a plan is used, asked once and believed for an hour. */

let server: Server;
let asked: URL[] = [];
let answer: (response: ServerResponse) => void;
beforeAll(async () => {
  server = createServer((request, response) => {
    asked.push(new URL(request.url ?? '', 'http://x'));
    answer(response);
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
  process.env.VERIDON_NEIGHBOUR_PATIENCE_MS = String(HANG_MS);
  jest.useFakeTimers({
    now: new Date('2026-11-23T12:00:00Z'),
    doNotFake: ['nextTick', 'setImmediate', 'setTimeout', 'clearTimeout', 'queueMicrotask'],
  });
});
afterEach(() => jest.useRealTimers());

const at = (lat: number, lon: number) => ({ directory: 'd', entry: 'e', service: 'amateur', lat, lon });
const row = (more: object = {}) => ({
  ref: 'RR-1',
  call: 'Q7ABC',
  site: 'Hill',
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: '145.6125',
  input_mhz: '145.0125',
  access: '88.5',
  mode: 'FM',
  lat: 52.06,
  lon: -29.84,
  height_m: 50,
  on_air: true,
  constant: false,
  updated: '2026-01-01',
  ...more,
});
const page = (...entries: object[]) => JSON.stringify({ page: 1, pages: 1, total: entries.length, entries });
const hill = {
  name: 'Hill Q7ABC',
  output: 145_612_500,
  input: 145_012_500,
  access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
  lat: 52.06,
  lon: -29.84,
};

test('a plan is used where its stations are, as far around as they disturb each other; one without places nowhere', () => {
  expect(areaOf(plan([channel(1, 145_500_000)]))).toBeNull();
  // the middle of 52.06 and 52.3 to half a degree; 17 km to the furthest and 150 beyond it, in steps of 50
  const two = plan([
    channel(1, 145_500_000, { source: at(52.06, -30) }),
    channel(2, 145_500_000, { source: at(52.3, -30) }),
  ]);
  expect(areaOf(two)).toEqual({ lat: 52, lon: -30, radiusKm: 200 });
});

test('repeaters on the air come once an hour, and nobody asks twice at the same moment', async () => {
  const area = { lat: 50, lon: -30, radiusKm: 200 };
  expect(knownNeighbours(area)).toEqual({ at: 0, list: [] });
  answer = (response) =>
    void response.end(
      page(
        row(),
        row({ ref: 'RR-2', input_mhz: '' }),
        row({ ref: 'RR-3', input_mhz: '145.6125' }),
        row({ ref: 'RR-4', on_air: false }),
        row({ ref: 'RR-5', call: '', site: 'Moor' }),
        'not a row' as never,
      ),
    );
  const found = await Promise.all([neighboursOf(area), neighboursOf(area)]);
  expect(found[0]).toEqual([hill, { ...hill, name: 'Moor' }]);
  expect(found[1]).toBe(found[0]);
  expect(asked).toHaveLength(1);
  expect(asked[0]!.searchParams.get('service')).toBe('amateur');
  expect(asked[0]!.searchParams.get('radius_km')).toBe('200');
  expect(knownNeighbours(area)).toMatchObject({ at: Date.now(), list: found[0] });
  jest.setSystemTime(Date.now() + 3_599_000);
  await neighboursOf(area);
  expect(asked).toHaveLength(1);
  jest.setSystemTime(Date.now() + 2_000);
  answer = (response) => void response.end(page(row()));
  expect(await neighboursOf(area)).toEqual([hill]);
  expect(asked).toHaveLength(2);
});

test('a register that fails is left alone for a minute, and what it said before still holds', async () => {
  const area = { lat: 48, lon: -30, radiusKm: 200 };
  answer = (response) => void response.destroy();
  expect(await neighboursOf(area)).toEqual([]);
  expect(await neighboursOf(area)).toEqual([]);
  expect(asked).toHaveLength(1);
  jest.setSystemTime(Date.now() + 61_000);
  answer = (response) => void response.end(page(row()));
  expect(await neighboursOf(area)).toEqual([hill]);
  jest.setSystemTime(Date.now() + 3_601_000);
  answer = (response) => void response.end('<html>');
  expect(await neighboursOf(area)).toEqual([hill]);
  expect(await neighboursOf(null)).toEqual([]);
});

test('one that is silent keeps nobody longer than a second and a half', async () => {
  answer = () => {};
  jest.useRealTimers();
  jest.useFakeTimers({ doNotFake: NO_TIMERS_BUT_TIMEOUTS });
  delete process.env.VERIDON_NEIGHBOUR_PATIENCE_MS;
  let found: unknown;
  const asking = neighboursOf({ lat: 46, lon: -30, radiusKm: 200 }).then((list) => (found = list));
  jest.advanceTimersByTime(1499);
  await new Promise((resolve) => setImmediate(resolve));
  expect(found).toBeUndefined();
  jest.advanceTimersByTime(1);
  await asking;
  expect(found).toEqual([]);
});
