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
