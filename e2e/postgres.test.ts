import { sql } from 'drizzle-orm';
import { openDatabase } from '../src/db';
import { keepSteps, type StepToKeep } from '../src/server/documents/steps';
import { startPostgres, type Postgres } from './postgres';
import { makeWorld, until, type World } from './world';

/** The built application on a real PostgreSQL server. */

let server: Postgres;
let worlds: World[] = [];
beforeAll(async () => {
  server = await startPostgres();
});
afterAll(async () => {
  await Promise.all(worlds.map((world) => world.close()));
  await server.close();
});

test('of several that start at once on an empty database one makes the tables, and all come up', async () => {
  // The demo is for one: two would bring its plans twice.
  const env = { DATABASE_URL: server.url, VERIDON_DEMO: '' };
  worlds = await Promise.all(Array.from({ length: 3 }, () => makeWorld({ env })));
  for (const world of worlds) {
    const { status, body } = await world.api<{ database: string }>('/api/health');
    expect([status, body.database]).toEqual([200, 'server']);
    expect(world.output()).not.toMatch(/error/i);
  }
  const [one, ...others] = worlds as [World, ...World[]];
  const { body } = await one.api<{ plan: { id: string } }>('/api/plans', 'POST', {
    ...{ name: 'Of one', modelId: 'tern-p2' },
    owner: { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false },
  });
  for (const other of others) {
    const names = async () => {
      const { body: list } = await other.api<{ plans: { id: string }[] }>('/api/plan-names');
      return list.plans.some(({ id }) => id === body.plan.id);
    };
    await until('the plan of the first', names);
  }
});

test('changes of several documents at the same moment, in any order: each is made in all of its documents or in none', async () => {
  process.env.DATABASE_URL = server.url;
  const { database, close } = await openDatabase();
  const plans: string[] = [];
  for (const name of ['A', 'B', 'C']) {
    const { body } = await worlds[0]!.api<{ plan: { id: string } }>('/api/plans', 'POST', {
      ...{ name, modelId: 'tern-p2' },
      owner: { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false },
    });
    plans.push(body.plan.id);
  }
  const revisionOf = async (id: string) => {
    const { rows } = (await database.execute(
      sql`select revision from documents where id = ${id}`,
    )) as unknown as {
      rows: { revision: number }[];
    };
    return rows[0]!.revision;
  };
  const stepOf = async (id: string, changeId: string): Promise<StepToKeep> => {
    const from = await revisionOf(id);
    return {
      ...{ id, from, name: 'Moved', model: 'tern-p2', head: {}, bytes: 1, undoHead: null, redoHead: null },
      ...{ kind: 'edit', edit: '{}', inverse: '{}', logBytes: 4, label: { of: 'go back', revision: 1 } },
      ...{ beforeUndo: null, beforeRedo: null, changeId, key: null, request: '' },
      ...{ receipt: { revision: from + 1, answerFrom: null }, rows: { put: [], gone: [] } },
    };
  };
  let made = 0;
  for (let round = 0; round < 20; round++) {
    const pairs = [
      [0, 1],
      [1, 0],
      [1, 2],
      [2, 1],
      [2, 0],
      [0, 2],
    ] as const;
    // All are worked out on the same revisions, and sent on connections of their own.
    const changes = await Promise.all(
      pairs.map(([a, b], n) => Promise.all([a, b].map((at) => stepOf(plans[at]!, `round${round}.${n}`)))),
    );
    const kept = await Promise.all(changes.map((steps) => keepSteps(database, steps)));
    // Of three documents two pairs always have one in common.
    expect(kept.filter(Boolean)).toHaveLength(1);
    made += kept.filter(Boolean).length;
  }
  const { rows } = (await database.execute(
    sql`select change_id, count(*)::int as n from revisions where change_id is not null group by change_id`,
  )) as unknown as { rows: { n: number }[] };
  expect(rows.map(({ n }) => n)).toEqual(Array(made).fill(2));
  const revisions = await Promise.all(plans.map(revisionOf));
  expect(revisions.reduce((sum, revision) => sum + revision - 1, 0)).toBe(2 * made);
  await close();
});
