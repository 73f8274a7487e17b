import { createServer, request as forward, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pick, seeded } from '../src/sim/random';
import type { World } from '../e2e/world';
import { ask, limits, memoryOf, Watch, type Report } from './figures';
import { ROLL_ACTS } from './rolls';

/** Ways of a directory to answer, none of them honest. */
const ACTS: Record<string, (response: ServerResponse, ok: string) => void> = {
  endless: (response) => {
    const chunk = Buffer.alloc(65_536, '[');
    const pour = () => {
      while (!response.destroyed && response.write(chunk));
    };
    response.on('drain', pour);
    pour();
  },
  trickle: (response) => {
    const drip = setInterval(() => response.write(' '), 20);
    response.on('close', () => clearInterval(drip));
  },
  silence: () => {},
  'half an answer': (response, ok) => {
    response.write(ok.slice(0, ok.length / 2));
    setTimeout(() => response.destroy(), 10);
  },
  'cut at once': (response) => void response.destroy(),
  nonsense: (response) => void response.end('<html>'),
  'deep nonsense': (response) => void response.end('['.repeat(200_000)),
  'another shape': (response) => void response.end('{"entries": {"a": 1}, "places": 7}'),
  'odd rows': (response) =>
    void response.end(
      JSON.stringify({
        page: 1,
        pages: 1e9,
        total: 1e9,
        places: [{ name: '\0', island: '\ud800', lat: 1e308, lon: 'x' }],
        entries: [
          null,
          { ref: '\0' },
          { ...JSON.parse(ok_row), lat: 900 },
          { ...JSON.parse(ok_row), site: '\ud800' },
        ],
      }),
    ),
  'a redirect': (response) => void response.writeHead(302, { Location: 'http://127.0.0.1:1/' }).end(),
  'an error': (response) => void response.writeHead(500).end('x'.repeat(100_000)),
  honest: (response, ok) => void response.end(ok),
};
const ok_row = JSON.stringify({
  ref: 'RR-1',
  call: 'Q7ABC',
  site: 'Norrast',
  island: 'Hestin',
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
});
const OK = JSON.stringify({
  page: 1,
  pages: 1,
  total: 1,
  places: [{ name: 'Norrast', island: 'Hestin', lat: 52, lon: -30 }],
  entries: [JSON.parse(ok_row)],
});

/** Stands between Veridon and the bench: hands on what is the bench's, and answers for the directory as it likes. */
export async function hostileBench(bench: () => string) {
  let act = 'honest';
  let roll: string | undefined;
  const server = createServer((request, response) => {
    response.on('error', () => {});
    if (request.url?.startsWith('/register')) return ACTS[act]!(response, OK);
    if (roll !== undefined && request.url?.startsWith('/roll')) return ROLL_ACTS[roll]!.act(response);
    const handed = forward(new URL(request.url ?? '/', bench()), {
      method: request.method,
      headers: { ...request.headers, host: new URL(bench()).host },
    });
    handed.on('response', (answer) => {
      response.writeHead(answer.statusCode ?? 500, answer.headers);
      answer.pipe(response);
    });
    handed.on('error', () => response.destroy());
    request.pipe(handed);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    behave: (how: string) => void (act = how),
    /** What a roll that is asked for is; undefined for the bench's own. */
    behaveRoll: (how: string | undefined) => void (roll = how),
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}

/** Searches a directory that lies, and leaves some searches before they are answered. */
export async function lieToSearches(
  world: World,
  behave: (how: string) => void,
  { searches, seed, until }: { searches: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const before = memoryOf(world.pid());
  let peak = before;
  for (let n = 0; n < searches && Date.now() < until; n++) {
    const how = pick(random, Object.keys(ACTS));
    behave(how);
    const path = pick(random, [
      '/api/directories/relay-register/places?q=nor',
      '/api/directories/relay-register/entries?lat=52&lon=-30&radius=40',
    ]);
    const some = Array.from({ length: 3 }, async (_, who) => {
      const left = who === 2;
      const answer = await ask(
        world.url + path,
        {},
        left ? 50 + Math.floor(random() * 200) : limits.answerMs,
      );
      if (!left) watch.take(`GET ${path} (${how})`, answer, limits.hangMs + 1000);
      if (!left && how === 'honest' && answer.status !== 200)
        watch.note(`An honest answer gave ${answer.status}`);
      if (!left && how !== 'honest' && ![200, 502, 504].includes(answer.status))
        watch.note(`${how} gave ${answer.status}`);
    });
    // Meanwhile others are served.
    const health = await ask(`${world.url}/api/health`);
    watch.take('GET /api/health', health);
    await Promise.all(some);
    peak = Math.max(peak, memoryOf(world.pid()));
  }
  behave('honest');
  if (peak - before > 300) watch.note(`Memory rose from ${Math.round(before)} to ${Math.round(peak)} MB`);
  return {
    attack: 'a directory that lies',
    figures: {
      ...watch.figures(),
      'memory before and at most, MB': `${Math.round(before)}, ${Math.round(peak)}`,
    },
    broken: watch.broken,
  };
}
