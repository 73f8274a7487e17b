import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { api } from '../../api';
import { call, Misunderstood, Refusal, Unreachable } from '../../api/call';
import { operation } from '../../api/operation';
import { placing, renaming } from '../../core/samples.test.kit';
import { openDatabase } from '../../db';
import { dispatch } from './dispatch';

/** A page and the server, without the wire between them: what the one answers is what the other reads. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-contract-'));
const asked: Request[] = [];
const server = async (path: string, init: RequestInit) => {
  const request = new Request(`http://127.0.0.1${path}`, init);
  asked.push(request);
  return dispatch(request);
};
const answering =
  (answer: unknown, status = 200) =>
  async () =>
    new Response(typeof answer === 'string' ? answer : JSON.stringify(answer), { status });
const pretend = (fetching: (path: string, init: RequestInit) => Promise<Response>) => {
  globalThis.fetch = fetching as typeof fetch;
};
const real = globalThis.fetch;

beforeAll(async () => {
  process.env.VERIDON_DATA_DIR = folder;
  process.env.VERIDON_RESERVE_MB = '1';
  // Nobody is there: directories have nothing to say, and the bench has no ports.
  process.env.VERIDON_BENCH_URL = 'http://127.0.0.1:9';
  await openDatabase();
});
beforeEach(() => pretend(server));
afterAll(async () => {
  globalThis.fetch = real;
  await (await openDatabase()).close();
  rmSync(folder, { recursive: true, force: true });
});

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
  expect((await call(api.fit, { params, query: {} })).fit.channels).toHaveLength(3);
  const { findings } = await call(api.check, { params, query: { model: 'tern-p3' } });
  expect(findings.some(({ mends }) => mends.length > 0)).toBe(true);
  expect((await call(api.plans, { query: { removed: false } })).plans).toMatchObject([
    { id: plan.id, channels: 3, trouble: null },
  ]);
  const copy = await call(api.duplicatePlan, { params, query: { revision: 2 } });
  expect(copy.plan.name).toBe('Contract, copy');
  expect(await call(api.removePlan, { params })).toEqual({ id: plan.id, name: 'Contract' });
  await call(api.recoverPlan, { params });
  expect((await call(api.models, { query: { q: 'sandhoven' } })).models).toMatchObject([{ id: 'tern-p2' }]);
  expect((await call(api.directories)).directories).toHaveLength(1);
  expect((await call(api.health)).status).toBe('ok');
  expect((await call(api.neighbours, { params })).neighbours).toEqual([]);
  expect(await call(api.radios)).toEqual({ reachable: false, ports: [], radios: [] });
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
    await expect(call(api.plans, { query: { removed: false } })).rejects.toMatchObject({
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
  expect(await call(api.jobs, { unchecked: true })).toEqual({ jobs: 'many' });
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
