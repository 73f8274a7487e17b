import * as fc from '../src/core/property.test.kit';
import type { Plan } from '../src/core/plan';
import { anyEditOn, hostileEditOn } from '../src/core/plan/edit.test.kit';
import { keepableText } from '../src/core/text';
import { pick, seeded } from '../src/sim/random';
import { PLAN, type World } from '../e2e/world';
import { ask, memoryOf, post, Watch, type Report } from './figures';

/** Made-up requests over every operation that the OpenAPI document names: some right, most wrong in one place, some wrong in all. */

type Schema = {
  type?: string;
  enum?: unknown[];
  const?: unknown;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  additionalProperties?: Schema | boolean;
  minimum?: number;
  maximum?: number;
  maxLength?: number;
  pattern?: string;
};
interface Operation {
  parameters: { name: string; in: string; required: boolean; schema: Schema }[];
  requestBody?: { content: { 'application/json': { schema: Schema } } };
}
type Random = () => number;

const TEXTS = [
  '',
  ' ',
  'Ketterby',
  'a\0b',
  '\ud800',
  'x\udc00',
  '𝄞'.repeat(40),
  'x'.repeat(10_000),
  '../../etc/passwd',
  '%00',
  '__proto__',
  'constructor',
  '=1+1\n',
  "'; drop table plans; --",
  '<script>1</script>',
  '\u202e\u200b\ufeff',
  '{call} {',
  'tern-p2',
];
const NUMBERS = [
  0,
  1,
  -1,
  0.5,
  9999,
  10_000,
  2_147_483_647,
  2_147_483_648,
  2 ** 53,
  1e308,
  -1e308,
  145_600_000,
  8_300,
  5e-324,
];
const ODD: unknown[] = [null, true, [], {}, [[[]]], { __proto__: null, toString: 1 }];

const hostile = (random: Random): unknown => pick(random, [...TEXTS, ...NUMBERS, ...ODD]);

/** A value that a schema wants, mostly; `spoil` is the share of places where something else stands. */
function made(schema: Schema, random: Random, ids: Ids, name: string, spoil: number): unknown {
  if (random() < spoil) return hostile(random);
  const branch = schema.anyOf ?? schema.oneOf ?? schema.allOf;
  if (branch) return made(pick(random, branch), random, ids, name, spoil);
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(random, schema.enum);
  switch (schema.type) {
    case 'object': {
      const result: Record<string, unknown> = {};
      for (const [key, inside] of Object.entries(schema.properties ?? {}))
        if (schema.required?.includes(key) || random() < 0.5)
          result[key] = made(inside, random, ids, key, spoil);
      if (typeof schema.additionalProperties === 'object' && random() < 0.3)
        result[String(pick(random, TEXTS)).slice(0, 40)] = made(
          schema.additionalProperties,
          random,
          ids,
          '',
          spoil,
        );
      return result;
    }
    case 'array':
      return Array.from({ length: Math.floor(random() * 4) }, () =>
        made(schema.items ?? {}, random, ids, name, spoil),
      );
    case 'integer':
    case 'number': {
      const { minimum = 0, maximum = 1000 } = schema;
      const low = Math.max(minimum, -1e9);
      const high = Math.min(maximum, 1e9);
      return pick(random, [low, high, Math.floor(low + random() * (high - low)), 1, 2]);
    }
    case 'boolean':
      return random() < 0.5;
    case 'string':
      return (
        idFor(schema.pattern ?? '', name, random, ids) ??
        pick(random, TEXTS).slice(0, schema.maxLength ?? 100)
      );
    case 'null':
      return null;
    default:
      return hostile(random);
  }
}

const asText = (value: unknown) => (typeof value === 'object' ? JSON.stringify(value) : String(value));

interface Ids {
  plans: string[];
  channels: string[];
  copies: string[];
  jobs: string[];
}

function idFor(pattern: string, name: string, random: Random, ids: Ids): string | undefined {
  const kinds: [string, string[]][] = [
    ['^pl_', ids.plans],
    ['^ch_', ids.channels],
    ['^cp_', ids.copies],
    ['^jb_', ids.jobs],
    ['^[A-Z0-9]', ['LK204417', 'LK204533', 'NOBODY']],
  ];
  for (const [start, known] of kinds)
    if (pattern.startsWith(start)) return known.length > 0 ? pick(random, known) : 'pl_nothing';
  if (name === 'model' || name === 'modelId')
    return pick(random, ['tern-p2', 'tern-p2', 'no-such', '__proto__']);
  return undefined;
}

const HEADERS: Record<string, string>[] = [
  {},
  {},
  {},
  { 'Next-Router-State-Tree': '%7B' },
  { RSC: '1', 'Next-Url': '/%' },
  { 'Next-Action': 'x' },
  { 'x-middleware-subrequest': 'src/proxy:src/proxy' },
  { 'Idempotency-Key': 'attack.1' },
  { 'Idempotency-Key': '\u00e9' },
  { 'Content-Type': 'multipart/form-data; boundary=x' },
  { Accept: 'text/x-component' },
  { Cookie: 'theme=%; veridon-theme=\u00ff' },
  { Origin: 'http://isles.example' },
  { Range: 'bytes=0-,5-' },
];
const PATHS = [
  '/',
  '/find?plan=%00&plan=2',
  '/find?plan[]=1',
  '/bench?plan=x',
  '/plans/pl_nothing',
  '/plans/%E0%A4%A',
  '/plans/..%2f..%2fetc',
  '/api',
  '/api/',
  '/api/nothing',
  '/_next/imageX',
  '/_next/image?url=%2Ficon.svg&w=16&q=1',
  '/_next/static/../../package.json',
  '/icon.svgX',
  '/favicon.ico',
  '//',
];
const BODIES = [
  '',
  '{',
  'null',
  '[]',
  '"x"',
  '['.repeat(20_000),
  '{"a":'.repeat(5000),
  '\ufeff{}',
  '{"__proto__":{}}',
  'NaN',
];

/** Sends requests until `until` or so many; looks at the end whether all that is kept can still be read. */
export async function makeUpRequests(
  world: World,
  { requests, seed, until }: { requests: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const before = memoryOf(world.pid());
  const { paths } = (await ask(`${world.url}/api/openapi.json`)).body as {
    paths: Record<string, Record<string, Operation>>;
  };
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  const met = new Set<string>();
  const ids: Ids = { plans: [PLAN], channels: ['ch_ketterby01', 'ch_ketterby04'], copies: [], jobs: [] };
  let accepted = 0;
  let peak = before;
  for (let n = 0; n < requests && Date.now() < until; n++) {
    if (random() < 0.1) {
      const path = pick(random, PATHS);
      const method = pick(random, ['GET', 'GET', 'POST', 'PUT', 'OPTIONS', 'DELETE', 'HEAD']);
      watch.take(
        `${method} ${path}`,
        await ask(world.url + path, { method, headers: pick(random, HEADERS) }),
      );
      continue;
    }
    const { path, method, operation } = pick(random, operations);
    const spoil = pick(random, [0, 0, 0.05, 0.3]);
    const wanted = (place: string) => operation.parameters.filter((one) => one.in === place);
    const value = (schema: Schema, name: string) =>
      encodeURIComponent(keepableText(asText(made(schema, random, ids, name, spoil))));
    let to = path;
    for (const { name, schema } of wanted('path')) to = to.replace(`{${name}}`, value(schema, name) || '-');
    const query = wanted('query')
      .filter(({ required }) => required || random() < 0.5)
      .map(({ name, schema }) => `${name}=${value(schema, name)}`);
    if (query.length > 0) to += `?${query.join('&')}`;
    let body: unknown;
    const schema = operation.requestBody?.content['application/json'].schema;
    if (schema)
      body =
        random() < 0.1
          ? pick(random, BODIES)
          : path.endsWith('/edits') && random() < 0.6
            ? await editFor(world, to, random)
            : made(schema, random, ids, '', spoil);
    const headers = { ...pick(random, HEADERS) };
    const answer = await ask(
      world.url + to,
      method === 'GET' ? { headers } : { ...post(body, headers), method },
    );
    watch.take(`${method} ${to.slice(0, 120)}`, answer);
    if (answer.status < 300) {
      accepted++;
      met.add(`${method} ${path}`);
      remember(answer.body, ids);
    }
    if (n % 50 === 0) peak = Math.max(peak, memoryOf(world.pid()));
  }
  const listed = await ask(`${world.url}/api/plans`);
  watch.take('GET /api/plans', listed);
  for (const plan of (listed.body as { plans: { id: string; name: string; trouble: string | null }[] }).plans)
    if (plan.trouble !== null) watch.note(`${plan.id} cannot be read: ${plan.trouble}`);
  watch.take('GET /', await ask(world.url));
  if (peak - before > 300) watch.note(`Memory rose from ${Math.round(before)} to ${Math.round(peak)} MB`);
  return {
    attack: 'made-up requests',
    figures: {
      ...watch.figures(),
      accepted,
      'operations that accepted some': `${met.size} of ${operations.length}`,
      'memory before and at most, MB': `${Math.round(before)}, ${Math.round(peak)}`,
    },
    broken: watch.broken,
  };
}

/** An edit of a plan as it stands, of those that people make or at the edges of the schema. */
async function editFor(world: World, to: string, random: Random): Promise<unknown> {
  const kept = await ask(world.url + to.replace('/edits', ''));
  const { plan, revision } = kept.body as { plan?: Plan; revision?: number };
  if (!plan) return {};
  const arbitrary = random() < 0.6 ? anyEditOn(plan) : hostileEditOn(plan);
  const [edit] = fc.sample(arbitrary, { numRuns: 1, seed: Math.floor(random() * 2 ** 31) });
  return { base: Math.max(1, revision! - Math.floor(random() * 3)), edit };
}

/** Keeps ids that an answer names, so that later requests meet them. */
function remember(body: unknown, ids: Ids): void {
  const text = JSON.stringify(body) ?? '';
  for (const [kind, known] of [
    ['pl', ids.plans],
    ['ch', ids.channels],
    ['cp', ids.copies],
    ['jb', ids.jobs],
  ] as const)
    for (const [id] of text.matchAll(new RegExp(`\\b${kind}_[a-z0-9]{4,40}`, 'g')))
      if (!known.includes(id)) {
        known.push(id);
        if (known.length > 40) known.shift();
      }
}
