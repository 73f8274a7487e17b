import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { HANG_MS, makeWorld, type World } from './harness';

/** The examples of docs/api.md, run in their order, and what the HTTP API promises of itself. */

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world?.close());

const examples = [
  ...readFileSync('docs/api.md', 'utf8').matchAll(/```http\n> (\S+) (\S+)(?: (.*))?\n< (\d+) (.*)\n```/g),
].map(([, method, path, body, status, answer]) => ({
  method: method!,
  path: path!,
  body,
  status: Number(status),
  answer: JSON.parse(answer!) as unknown,
}));

/** Lists of an example hold some of what the answer has, in its order; objects some of the members. */
function among(expected: unknown): unknown {
  if (Array.isArray(expected))
    return expected.length === 0 ? [] : expect.arrayContaining(expected.map(among));
  if (typeof expected === 'object' && expected !== null)
    return expect.objectContaining(
      Object.fromEntries(Object.entries(expected).map(([key, value]) => [key, among(value)])),
    );
  return expected;
}

test('the page has all its examples', () => expect(examples.length).toBeGreaterThanOrEqual(20));

test.each(
  examples.map((example, index) => [index + 1, example.method, example.path.split('?')[0], example] as const),
)('example %d: %s %s', async (_, method, __, example) => {
  const { status, body } = await world.api(example.path, method, example.body);
  expect({ status, body }).toEqual({ status: example.status, body: among(example.answer) });
});

type Described = Record<string, Record<string, { responses: object }>>;

test('every operation that the OpenAPI document names is there, and what it does not name is refused as a problem', async () => {
  const { body } = await world.api<{ openapi: string; paths: Described }>('/api/openapi.json');
  expect(body.openapi).toMatch(/^3\.1/);
  const paths = Object.entries(body.paths);
  expect(paths.length).toBeGreaterThanOrEqual(25);
  for (const [path, methods] of paths) {
    // ids that are none: whatever is there says so, and changes nothing
    const concrete = path.replace(/\{\w+\}/g, '-');
    for (const method of ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']) {
      if (method.toLowerCase() in methods && concrete === path) continue;
      const answer = await fetch(world.url + concrete, { method });
      expect(answer.headers.get('content-type')).toBe('application/problem+json');
      const problem = (await answer.json()) as { status: number; detail: string };
      expect(problem.status).toBe(answer.status);
      if (method.toLowerCase() in methods) expect([400, 404]).toContain(answer.status);
      else {
        expect(answer.status).toBe(405);
        const taken = Object.keys(methods).map((one) => one.toUpperCase());
        expect(answer.headers.get('allow')?.split(', ').sort()).toEqual(taken.sort());
      }
    }
  }
});

test.each([
  ['GET', '/api/nothing', {}, 404],
  ['POST', '/api/plans/pl_ketterbyweekend/nothing', {}, 404],
  ['GET', '/api/plans/%E0%A4%A', {}, 400],
  ['GET', '/%', {}, 400],
  ['PUT', '/', {}, 405],
  ['POST', '/plans/pl_ketterbyweekend', {}, 405],
  ['GET', '/api/plans/pl_ketterbyweekend/edits?before=2147483648', {}, 400],
  ['POST', '/api/plans/pl_ketterbyweekend/undo', { 'Idempotency-Key': 'x' }, 400],
  ['POST', '/api/plans', { Origin: 'http://127.0.0.1:1' }, 403],
  ['GET', '/icon.svgX', { Origin: 'null' }, 404],
] as const)('%s %s with %j answers %i, as a problem below /api', async (method, path, headers, status) => {
  const answer = await fetch(world.url + path, { method, headers });
  expect(answer.status).toBe(status);
  expect(answer.headers.get('x-frame-options')).toBe('DENY');
  expect(answer.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
  if (status !== 404 || path.startsWith('/api'))
    expect(answer.headers.get('content-type')).toBe('application/problem+json');
});

/** What a server says to bytes that no browser sends. */
const raw = (text: string) =>
  new Promise<string>((resolve, reject) => {
    const { port } = new URL(world.url);
    let said = '';
    const socket = connect(Number(port), '127.0.0.1', () => socket.write(text));
    socket.setTimeout(HANG_MS, () => socket.destroy(new Error('No answer')));
    socket.on('data', (bytes) => (said += String(bytes)));
    socket.on('error', reject);
    socket.on('close', () => resolve(said));
  });

test('TRACE, odd router headers, foreign names and bodies that announce too much are answered before they are read', async () => {
  const head = (line: string, ...more: string[]) => [line, 'Host: 127.0.0.1', ...more, '', ''].join('\r\n');
  expect(await raw(head('TRACE /api/health HTTP/1.1'))).toMatch(/^HTTP\/1\.1 405 /);
  expect(await raw(head('GET / HTTP/1.1', 'Next-Router-State-Tree: %', 'Connection: close'))).toMatch(
    /^HTTP\/1\.1 200 /,
  );
  expect(await raw('GET /icon.svg HTTP/1.1\r\nHost: isles.example\r\n\r\n')).toMatch(/^HTTP\/1\.1 403 /);
  // the body never comes: the answer does not wait for it
  const large = await raw(head('POST /api/plans HTTP/1.1', 'Content-Length: 5000000'));
  expect(large).toMatch(/^HTTP\/1\.1 413 /);
  expect(large).toContain('application/problem+json');
});

test('a spreadsheet export defuses cells that would run as formulas', async () => {
  const { body } = await world.api<{ plan: { channels: { id: string }[] }; revision: number }>(
    '/api/plans/pl_ketterbyweekend',
  );
  const edit = {
    name: 'change',
    changes: [{ id: body.plan.channels[0]!.id, set: { name: '=HYPERLINK("x")' } }],
  };
  await world.api('/api/plans/pl_ketterbyweekend/edits', 'POST', { base: body.revision, edit });
  const response = await fetch(`${world.url}/api/plans/pl_ketterbyweekend/export?as=csv`);
  expect(response.headers.get('content-disposition')).toBe('attachment; filename="ketterby-weekend.csv"');
  const csv = await response.text();
  expect(csv).toContain('"\'=HYPERLINK(""x"")"');
  expect(csv.split('\r\n')[0]).toBe(
    'Slot,Name,Receive MHz,Transmit MHz,Access,Mode,Power W,Scan,Note,Always on,Own transmit',
  );
});
