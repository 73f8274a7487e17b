import { sql } from 'drizzle-orm';
import { openDatabase } from '../src/db';
import { startPostgres, type Postgres } from './postgres';
import { makeWorld, until, type World } from './world';

/** Two instances of the built application on one PostgreSQL server: what happens in one is known in the other. */

let server: Postgres;
let one: World;
let other: World;
beforeAll(async () => {
  server = await startPostgres();
  const env = { DATABASE_URL: server.url, VERIDON_DEMO: '' };
  [one, other] = await Promise.all([makeWorld({ env }), makeWorld({ env })]);
});
afterAll(async () => {
  await Promise.all([one?.close(), other?.close()]);
  await server.close();
});

interface Told {
  revision: number;
  label: string | null;
}

/** What a page hears that shows the plan in that instance. */
function pageOf(world: World, id: string) {
  const leave = new AbortController();
  const told: Told[] = [];
  const read = async () => {
    const { body } = await fetch(`${world.url}/api/plans/${id}/events`, { signal: leave.signal });
    const decoder = new TextDecoder();
    let text = '';
    for await (const bytes of body as unknown as AsyncIterable<Uint8Array>) {
      text += decoder.decode(bytes, { stream: true });
      const lines = text.split('\n\n');
      text = lines.pop()!;
      for (const line of lines) if (line.startsWith('data: ')) told.push(JSON.parse(line.slice(6)) as Told);
    }
  };
  read().catch(() => {});
  return { told, newest: () => told.at(-1)?.revision ?? 0, close: () => leave.abort() };
}

const newPlan = async () => {
  const { body } = await one.api<{ plan: { id: string } }>('/api/plans', 'POST', {
    ...{ name: 'Shared', modelId: 'tern-p2' },
    owner: { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false },
  });
  return body.plan.id;
};
const rename = (world: World, id: string, base: number, name: string) =>
  world.api<{ revision: number; label: string }>(`/api/plans/${id}/edits`, 'POST', {
    base,
    edit: { name: 'describe', set: { name } },
  });

test('an edit in one instance is told to a page of the other, with its label', async () => {
  const id = await newPlan();
  const page = pageOf(other, id);
  await until('the page to hear of the plan', () => page.newest() === 1);
  const { body } = await rename(one, id, 1, 'Coast');
  await until('the edit', () => page.newest() === 2);
  expect(page.told.at(-1)).toMatchObject({ revision: 2, label: body.label });
  // The other way round too; the page of the instance that made it hears of it once.
  const own = pageOf(one, id);
  await until('the page to hear of the plan', () => own.newest() === 2);
  await rename(other, id, 2, 'Hills');
  await until('the edit', () => own.newest() === 3 && page.newest() === 3);
  expect(own.told.map(({ revision }) => revision)).toEqual([2, 3]);
  expect(page.told.map(({ revision }) => revision)).toEqual([1, 2, 3]);
  page.close();
  own.close();
});

test('a connection that breaks is made again, and what was announced in between is found', async () => {
  const id = await newPlan();
  const page = pageOf(other, id);
  await until('the page to hear of the plan', () => page.newest() === 1);
  process.env.DATABASE_URL = server.url;
  const { database, close } = await openDatabase();
  let revision = 1;
  for (let round = 0; round < 5; round++) {
    const { rows } = (await database.execute(
      sql`select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen%' or query = 'select 1'`,
    )) as unknown as { rows: unknown[] };
    expect(rows.length).toBeGreaterThanOrEqual(1);
    revision = (await rename(one, id, revision, `Round ${round}`)).body.revision;
    await until('the edit', () => page.newest() === revision);
    await until('both to listen again', async () => {
      const found = (await database.execute(
        sql`select pid from pg_stat_activity where query ilike 'listen%' or query = 'select 1'`,
      )) as unknown as { rows: unknown[] };
      return found.rows.length === 2;
    });
  }
  expect(page.told.at(-1)).toMatchObject({
    revision: 6,
    label: expect.stringContaining('Round 4') as string,
  });
  page.close();
  await close();
});

test('a job is seen with its progress and stopped from the other instance, and the radio is busy for both', async () => {
  await one.atBench('/bench/radios/tern-1', { plugged: true, on: true });
  const radioId = await one.radioId('LK204417');
  // It never answers, so the job lasts until it is stopped.
  await one.atBench('/bench/radios/tern-1/faults', { kind: 'silent' });
  const { body: job } = await one.api<{ id: string }>('/api/jobs', 'POST', { kind: 'read', radioId });
  const stateIn = async (world: World) =>
    (await world.api<{ state: string }>(`/api/jobs/${job.id}`)).body.state;
  expect(await stateIn(other)).toBe('running');
  const phaseIn = async (world: World) =>
    (await world.api<{ phase: string }>(`/api/jobs/${job.id}`)).body.phase;
  await until('the other to see how far it is', async () => (await phaseIn(other)) === 'reading');
  const taken = await other.api<{ type: string }>('/api/jobs', 'POST', { kind: 'read', radioId });
  expect([taken.status, taken.body.type]).toEqual([409, 'urn:veridon:problem:port-busy']);
  const asked = await other.api(`/api/jobs/${job.id}`, 'DELETE');
  expect(asked.status).toBe(200);
  await until('the job to be stopped', async () => (await stateIn(one)) === 'stopped');
  await until('the other to know', async () => (await stateIn(other)) === 'stopped');
  // A second request is answered with the job.
  expect((await other.api<{ state: string }>(`/api/jobs/${job.id}`, 'DELETE')).body.state).toBe('stopped');
  // It is free again for both: here the other has no such radio, which it says.
  const free = await other.api<{ type: string }>('/api/jobs', 'POST', { kind: 'read', radioId });
  expect([free.status, free.body.type]).toEqual([409, 'urn:veridon:problem:radio-away']);
});
