import { z } from 'zod';
import { api, EVENT_STREAM } from '../../api';
import { ask } from '../../api/ask';
import { call, Misunderstood, Refusal, Unreachable } from '../../api/call';
import { operation } from '../../api/operation';
import { placing, renaming } from '../../core/samples.test.kit';
import { until } from '../../core/until.test.kit';
import { dataFolder } from '../data-folder.test.kit';
import { dispatchRequest } from './dispatch';

/** A page and the server, without the wire between them: what the one answers is what the other reads. */

const asked: Request[] = [];
/** Refusals of operations, with those that the operation says it may answer. */
const refusals: { path: string; status: number; said: number[] }[] = [];
const server = async (path: string, init: RequestInit) => {
  const request = new Request(`http://127.0.0.1${path}`, init);
  asked.push(request);
  const response = await dispatchRequest(request);
  const found = Object.values(api).find(
    (one) =>
      one.method === request.method &&
      new RegExp(`^${one.path.replaceAll('.', '\\.').replace(/\{\w+\}/g, '[^/]+')}$`).test(
        new URL(request.url).pathname,
      ),
  );
  if (response.status >= 400 && found)
    refusals.push({ path, status: response.status, said: [400, ...found.problems] });
  return response;
};
const answering =
  (answer: unknown, status = 200) =>
  async () =>
    new Response(typeof answer === 'string' ? answer : JSON.stringify(answer), { status });
const pretend = (fetching: (path: string, init: RequestInit) => Promise<Response>) => {
  globalThis.fetch = fetching as typeof fetch;
};
const real = globalThis.fetch;

dataFolder('contract', {
  // Nobody is there: directories have nothing to say, and the bench has no ports.
  before: () => (process.env.VERIDON_BENCH_URL = 'http://127.0.0.1:9'),
  after: () => (globalThis.fetch = real),
});
beforeEach(() => pretend(server));

test('what the server answers is what the page’s schemas understand, operation by operation', async () => {
  const { plan } = await call(api.createPlan, {
    body: { name: 'Contract', modelId: 'tern-p2', owner: { callSign: 'Q7ABC', grade: 'none' } },
  });
  const params = { id: plan.id };
  const placed = await call(api.edit, { params, body: { base: 1, edit: placing(0, 1, 2) } });
  expect(placed).toEqual({ revision: 2, label: expect.any(String), undo: placed.label, redo: null });
  // made on revision 1 by somebody else: the answer brings that one along
  const late = await call(api.edit, {
    params,
    body: { base: 1, edit: { name: 'describe', set: { name: 'Late' } } },
  });
  expect(late.edits).toHaveLength(2);
  await call(api.edit, { params, body: { base: 3, edit: renaming(0, 'First') } });
  expect((await call(api.undo, { params, query: { base: 4 } })).redo).toMatch(/First/);
  await call(api.redo, { params, query: { base: 5 } });
  await call(api.goBack, { params, body: { base: 6, revision: 2 } });
  expect(await call(api.plan, { params })).toMatchObject({ revision: 7, plan: { name: 'Contract' } });
  const { edits, next } = await call(api.edits, { params, query: { limit: 2, before: 6 } });
  expect([edits.map((row) => [row.revision, row.kind]), next]).toEqual([
    [
      [5, 'undo'],
      [4, 'edit'],
    ],
    4,
  ]);
  const undone = await call(api.edits, { params, query: { search: 'FIRST', limit: 100 } });
  // The rename, its undo and redo have it in their label; what a sign of patterns stands in has nothing.
  expect(undone.edits.map((row) => row.revision)).toEqual([6, 5, 4]);
  expect((await call(api.edits, { params, query: { search: '%', limit: 100 } })).edits).toEqual([]);
  const third = (await call(api.plan, { params })).plan.channels[2]!.id;
  const named = await call(api.edits, { params, query: { channel: third, limit: 100 } });
  // It was placed; the others were about the first channel, or about the plan.
  expect(named.edits.map((row) => row.revision)).toEqual([2]);
  expect(await call(api.marks, { params })).toEqual({ marks: [] });
  await call(api.mark, { params, body: { revision: 4, name: 'before the regatta' } });
  await call(api.mark, { params, body: { revision: 1, name: 'made' } });
  await call(api.mark, { params, body: { revision: 4, name: 'after it' } });
  expect((await call(api.marks, { params })).marks.map(({ revision, name }) => [revision, name])).toEqual([
    [1, 'made'],
    [4, 'after it'],
  ]);
  expect((await call(api.mark, { params, body: { revision: 1, name: null } })).marks).toHaveLength(1);
  await expect(call(api.mark, { params, body: { revision: 8, name: 'x' } })).rejects.toMatchObject({
    status: 422,
    kind: 'unknown-revision',
  });
  expect((await call(api.then, { params, query: { revision: 4 } })).plan).toMatchObject({
    name: 'Late',
    channels: [{ name: 'First' }, {}, {}],
  });
  await expect(call(api.then, { params, query: { revision: 8 } })).rejects.toMatchObject({
    kind: 'unknown-revision',
  });
  expect((await call(api.fit, { params, query: {} })).fit.channels).toHaveLength(3);
  const part = { model: 'tern-p3', from: 0, count: 200 };
  const { findings, total } = await call(api.check, { params, query: { ...part, mends: true } });
  expect(findings.some(({ mends }) => mends.length > 0)).toBe(true);
  expect(total).toBe(findings.length);
  const last = await call(api.check, { params, query: { ...part, from: total - 1, mends: false } });
  expect(last.findings).toEqual([{ ...findings.at(-1), mends: [] }]);
  const listed = { removed: false, from: 0, count: 50 };
  expect((await call(api.plans, { query: listed })).total).toBe(1);
  await until('the plan to be worked out', async () =>
    (await call(api.plans, { query: listed })).plans.every(({ pending }) => !pending),
  );
  expect((await call(api.plans, { query: listed })).plans).toMatchObject([
    { id: plan.id, channels: 3, trouble: null },
  ]);
  expect((await call(api.planNames)).plans).toEqual([
    { id: plan.id, name: 'Contract', modelId: 'tern-p2', model: expect.any(String), trouble: null },
  ]);
  const copy = await call(api.duplicatePlan, { params, query: { revision: 2 } });
  expect(copy.plan.name).toBe('Contract, copy');
  expect(await call(api.removePlan, { params })).toEqual({ id: plan.id, name: 'Contract' });
  await call(api.recoverPlan, { params });
  expect((await call(api.models, { query: { q: 'sandhoven' } })).models).toMatchObject([{ id: 'tern-p2' }]);
  expect((await call(api.directories)).directories.map(({ id, kept }) => [id, kept])).toEqual([
    ['relay-register', 0],
    ['isles-ledger', 0],
  ]);
  const nowhere = { ask: 'no' as const, most: 10, radius: 40 };
  expect(await call(api.stations, { query: { ...nowhere, lat: 52, lon: -30 } })).toMatchObject({
    candidates: [],
    troubles: [],
    routeKm: null,
  });
  expect((await call(api.stations, { query: { ...nowhere, route: '52,-30;53,-30' } })).routeKm).toBeCloseTo(
    111.2,
    1,
  );
  for (const query of [
    { ...nowhere, lat: 52 },
    { ...nowhere, route: '52,-30' },
    { ...nowhere, route: 'x' },
  ])
    await expect(call(api.stations, { query })).rejects.toMatchObject({ status: 400, kind: 'invalid-input' });
  const [one] = (await call(api.plan, { params })).plan.channels;
  const at = '2026-11-20T12:00:00.000Z';
  expect(await call(api.hear, { params, body: { put: [{ channel: one!.id, at }], drop: [] } })).toEqual({
    added: 1,
    dropped: 0,
  });
  expect((await call(api.heard, { params, query: { weeks: 0 } })).heard).toEqual([
    { channel: one!.id, times: 1, last: at, weeks: [] },
  ]);
  const forget = { params: { id: 'isles-ledger' }, body: { name: null, password: null } };
  expect((await call(api.setAccount, forget)).directories[1]!.account).toBeNull();
  expect((await call(api.health)).status).toBe('ok');
  expect((await call(api.neighbours, { params })).neighbours).toEqual([]);
  expect(await call(api.radios)).toEqual({ reachable: false, ports: [], radios: [], lying: [] });
  expect(await call(api.jobs)).toEqual({ jobs: [] });
});

test('a refusal brings the sentence and the kind; an answer that is no problem document, its status', async () => {
  const refused = await call(api.plan, { params: { id: 'pl_nothing' as never } }).catch(
    (error: unknown) => error,
  );
  expect(refused).toBeInstanceOf(Refusal);
  expect(refused).toMatchObject({ status: 404, kind: 'not-found', message: 'There is no plan pl_nothing.' });
  for (const body of ['<html>', { type: 'urn:veridon:problem:unheard-of', detail: 'x' }]) {
    pretend(answering(body, 502));
    await expect(call(api.plans, { query: { removed: false, from: 0, count: 50 } })).rejects.toMatchObject({
      status: 502,
      kind: null,
    });
  }
});

test('nobody there is one thing, an answer that is not understood another; who checks it himself gets it as it came', async () => {
  pretend(() => Promise.reject(new TypeError('failed to fetch')));
  await expect(call(api.jobs)).rejects.toBeInstanceOf(Unreachable);
  for (const body of ['', 'no JSON', {}, { jobs: [{ id: 7 }] }]) {
    pretend(answering(body));
    await expect(call(api.jobs)).rejects.toBeInstanceOf(Misunderstood);
  }
  pretend(answering({ jobs: 'many' }));
  await expect(call(api.jobs)).rejects.toThrow(/\/api\/jobs jobs/);
  expect(await ask('GET', '/api/jobs')).toEqual({ ok: true, status: 200, answer: { jobs: 'many' } });
});

test('parts of the path and the query are written so that they stay parts; changes alone carry a key, each its own', async () => {
  const echo = operation('GET', '/api/things/{id}', 'A thing', {
    params: z.object({ id: z.string() }),
    query: z.object({ q: z.string().optional(), n: z.number().optional() }),
    response: z.unknown(),
  });
  const seen: [string, RequestInit][] = [];
  pretend(async (path, init) => (seen.push([path, init]), new Response('{}')));
  await call(echo, { params: { id: '../a b?' }, query: { q: 'x&y=1', n: undefined } });
  expect(seen[0]).toEqual(['/api/things/..%2Fa%20b%3F?q=x%26y%3D1', { method: 'GET', headers: {} }]);
  asked.length = 0;
  pretend(server);
  const body = { name: 'Keyed', modelId: 'tern-p2', owner: {} };
  const [one, two] = [await call(api.createPlan, { body }), await call(api.createPlan, { body })];
  expect(one.plan.id).not.toBe(two.plan.id);
  const keys = asked.map((request) => request.headers.get('Idempotency-Key'));
  expect(keys[0]).toMatch(/^[a-z0-9]{16}\.\d+$/);
  expect(keys[1]).not.toBe(keys[0]);
  const again = { body, key: keys[0]! };
  expect((await call(api.createPlan, again)).plan.id).toBe(one.plan.id);
});

const raw = async (path: string, init: RequestInit = {}) => {
  const response = await server(path, init);
  return {
    status: response.status,
    headers: response.headers,
    body: await response.json().catch(() => null),
  };
};
const post = (body: unknown) => ({
  method: 'POST',
  body: typeof body === 'string' ? body : JSON.stringify(body),
});

test('what is asked wrongly is refused with the place of each fault, and nothing is changed', async () => {
  const { plan } = await call(api.createPlan, { body: { name: 'Asked', modelId: 'tern-p2', owner: {} } });
  const wrong: [string, RequestInit, string[]][] = [
    ['/api/plans/xx', {}, ['path.id']],
    [`/api/plans/${plan.id}/edits?limit=501&before=0`, {}, ['query.before', 'query.limit']],
    ['/api/plans', post({ name: 7 }), ['body.name', 'body.modelId']],
    [`/api/plans/${plan.id}/edits`, post({ base: 1, edit: { name: 'sing' } }), ['body.edit.name']],
    ['/api/directories/relay-register/entries?lat=91&lon=0&radius=0', {}, ['query.lat', 'query.radius']],
    ['/api/jobs', post({ kind: 'read', radioId: 'LK204417' }), ['body.radioId']],
  ];
  for (const [path, init, places] of wrong) {
    const { status, headers, body } = await raw(path, init);
    expect([path, status, headers.get('Content-Type')]).toEqual([path, 400, 'application/problem+json']);
    expect(body.type).toBe('urn:veridon:problem:invalid-input');
    expect(body.errors.map(({ at }: { at: string }) => at)).toEqual(places);
    for (const place of places) expect(body.detail).toContain(`${place}: `);
  }
  expect(await raw('/api/plans', post('{"name":'))).toMatchObject({
    status: 400,
    body: { type: 'urn:veridon:problem:invalid-json' },
  });
  expect(await raw('/api/plans', post(`{"name": "${'x'.repeat(4_000_000)}"}`))).toMatchObject({
    status: 413,
  });
  expect(await raw(`/api/plans/${plan.id}`)).toMatchObject({ status: 200, body: { revision: 1 } });
});

test('paths and methods that there are not are said; HEAD is answered as GET', async () => {
  expect(await raw('/api/nothing')).toMatchObject({ status: 404, body: { status: 404 } });
  const put = await raw('/api/plans', { method: 'PUT' });
  expect([put.status, put.headers.get('Allow')]).toEqual([405, 'GET, POST']);
  expect((await raw('/api/health', { method: 'HEAD' })).status).toBe(200);
  // not a path with parts that stand for anything
  expect((await raw('/api/openapixjson')).status).toBe(404);
  expect((await raw('/api/plans/%E0%A4%A')).status).toBe(400);
});

test('files come as attachments, of their own type and under a name that is safe', async () => {
  const { plan } = await call(api.createPlan, {
    body: { name: 'Tamsin Quay/7', modelId: 'tern-p2', owner: {} },
  });
  await call(api.edit, { params: { id: plan.id }, body: { base: 1, edit: placing(0) } });
  const file = async (path: string) => {
    const response = await server(`/api/plans/${plan.id}/${path}`, {});
    const { headers } = response;
    expect(headers.get('X-Content-Type-Options')).toBe('nosniff');
    expect(headers.get('Cache-Control')).toBe('no-store');
    return [headers.get('Content-Type'), headers.get('Content-Disposition'), await response.text()] as const;
  };
  const [type, name, csv] = await file('export?as=csv');
  expect([type, name]).toEqual(['text/csv; charset=utf-8', 'attachment; filename="tamsin-quay-7.csv"']);
  expect(csv.split('\r\n')).toHaveLength(2);
  const [jsonType, , json] = await file('export');
  expect([jsonType, JSON.parse(json)]).toEqual([
    'application/json',
    (await call(api.plan, { params: { id: plan.id } })).plan,
  ]);
  expect(JSON.parse((await file('document'))[2])).toMatchObject({ name: 'Tamsin Quay/7' });
});

test('a body without an end is read no further than it may be', async () => {
  let sent = 0;
  const body = new ReadableStream({
    pull: (stream) => {
      sent += 100_000;
      stream.enqueue(new Uint8Array(100_000).fill(32));
    },
  });
  const init = { method: 'POST', body, duplex: 'half' } as RequestInit;
  expect((await server('/api/plans', init)).status).toBe(413);
  expect(sent).toBeLessThan(5_000_000);
});

test('whatever is refused is refused with a status that the operation says', async () => {
  const id = 'pl_nothing';
  // A stream of what there is refuses nobody, and goes on.
  const asked = Object.values(api).filter(({ file, path }) => file !== EVENT_STREAM || path.includes('{id}'));
  for (const { method, path, hasBody } of asked)
    await raw(
      path.replace(
        '{id}',
        path.includes('copies')
          ? 'cp_nothing'
          : path.includes('jobs')
            ? 'jb_nothing'
            : path.includes('radios')
              ? 'rd_nothing'
              : id,
      ) +
        (path.includes('preview')
          ? `?plan=${id}`
          : path.includes('entries')
            ? '?lat=52&lon=-30&radius=9'
            : ''),
      {
        method,
        ...(hasBody && {
          body: JSON.stringify(
            path.endsWith('jobs')
              ? { kind: 'read', radioId: 'rd_nothing' }
              : path.endsWith('plans')
                ? { name: 'x', modelId: 'nothing' }
                : { base: 1, revision: 1, edit: { name: 'describe', set: { name: 'x' } } },
          ),
        }),
      },
    );
  expect(refusals.length).toBeGreaterThan(25);
  expect(new Set(refusals.map(({ status }) => status))).toEqual(new Set([400, 404, 413, 422, 502]));
  expect(refusals.filter(({ status, said }) => !said.includes(status))).toEqual([]);
});
