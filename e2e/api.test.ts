import { readFileSync } from 'node:fs';
import { makeWorld, type World } from './harness';

/** The examples of docs/api.md, run in their order, and what the HTTP API promises of itself. */

jest.setTimeout(120_000);

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

test('the OpenAPI document names every route that there is, with its methods', async () => {
  const { body } = await world.api<{
    openapi: string;
    paths: Record<string, Record<string, { responses: object }>>;
  }>('/api/openapi.json');
  expect(body.openapi).toMatch(/^3\.1/);
  const { globSync } = await import('node:fs').then((fs) => ({
    globSync: (fs as { globSync?: (p: string) => string[] }).globSync,
  }));
  const { execFileSync } = await import('node:child_process');
  const files = globSync
    ? globSync('src/app/api/**/route.ts')
    : execFileSync('find', ['src/app/api', '-name', 'route.ts'], { encoding: 'utf8' }).trim().split('\n');
  const routes = files
    .filter((file) => !file.includes('openapi.json'))
    .flatMap((file) => {
      const path = `/${file
        .replace(/^src\/app\//, '')
        .replace('/route.ts', '')
        .replace(/\[(\w+)\]/g, '{$1}')}`;
      return [...readFileSync(file, 'utf8').matchAll(/export const (GET|POST|DELETE)/g)].map(
        ([, method]) => `${method} ${path}`,
      );
    });
  const described = Object.entries(body.paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  );
  expect(described.sort()).toEqual(routes.sort());
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
    'Slot,Name,Receive MHz,Transmit MHz,Access,Mode,Power W,Scan,Always on,Station,Note',
  );
});
