import { sql } from 'drizzle-orm';
import type { Edit, Plan, PlanId } from '../core/plan';
import { channel, id } from '../core/samples.test.kit';
import { openDatabase } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { letGo } from './documents/held';
import { createPlan, getPlan, setRemoved } from './plans';
import { editPlan, stepBack } from './revisions';
import { forgetStaged, stageRows, unstage, type RecordRow } from './documents/staging';

/** Rows that are too many for one statement. */

dataFolder('staging');

const CHANNELS = 1500;
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const channels = Array.from({ length: CHANNELS }, (_, n) => ({
  ...channel(n + 1, 145_000_000 + 12_500 * (n % 100)),
  id: id(n),
}));
const make = (key: string | null = null) =>
  createPlan({ name: 'Large', modelId: 'osprey-d7', owner }, { channels }, { key });
const rename = (text: string): Edit => ({
  name: 'change',
  changes: channels.map((one, n) => ({ id: one.id, set: { name: `${text} ${n}` } })),
});
const staged = async (): Promise<number> => {
  const { database } = await openDatabase();
  const { rows } = (await database.execute(
    sql`select count(*)::int as n from staged_records`,
  )) as unknown as {
    rows: { n: number }[];
  };
  return rows[0]!.n;
};
/** The plan as the tables have it. */
const inTables = async (planId: PlanId): Promise<Plan> => {
  letGo(planId);
  return (await getPlan(planId)).plan;
};
const rows = (count: number): RecordRow[] =>
  Array.from({ length: count }, (_, n) => ({
    ...{ document: 'pl_none', kind: 'channel', id: `ch_${n}`, position: 0, data: {} },
  }));

test('a large plan, and edits of all its channels, are in the tables whole, and nothing stays staged', async () => {
  const { plan } = await make();
  expect((await inTables(plan.id)).channels).toEqual(channels);
  await editPlan(plan.id, 1, rename('Renamed'));
  const names = (await inTables(plan.id)).channels.map(({ name }) => name);
  expect(names).toEqual(channels.map((_, n) => `Renamed ${n}`));
  await editPlan(plan.id, 2, { name: 'remove', ids: channels.slice(0, 1000).map((one) => one.id) });
  expect((await inTables(plan.id)).channels).toHaveLength(CHANNELS - 1000);
  await stepBack(plan.id, 'undo');
  await stepBack(plan.id, 'undo');
  expect((await inTables(plan.id)).channels).toEqual(channels);
  expect(await staged()).toBe(0);
});

test('two large edits and small ones at once each reach their own plan', async () => {
  const [one, two] = await Promise.all([make(), make()]);
  const small = (await createPlan({ name: 'Small', modelId: 'tern-p2', owner })).plan.id;
  await Promise.all([
    editPlan(one.plan.id, 1, rename('One')),
    editPlan(two.plan.id, 1, rename('Two')),
    editPlan(small, 1, { name: 'describe', set: { name: 'Still small' } }),
  ]);
  expect((await inTables(one.plan.id)).channels[1400]!.name).toBe('One 1400');
  expect((await inTables(two.plan.id)).channels[1400]!.name).toBe('Two 1400');
  expect((await inTables(small)).name).toBe('Still small');
  expect(await staged()).toBe(0);
});

test('what is not kept is not left staged: a key that was used, a plan that was removed', async () => {
  const first = await make('stage.1');
  const again = await make('stage.1');
  expect(again.plan.id).toBe(first.plan.id);
  await expect(
    createPlan({ name: 'Other', modelId: 'osprey-d7', owner }, { channels }, { key: 'stage.1' }),
  ).rejects.toMatchObject({ kind: 'key-used' });
  await setRemoved(first.plan.id, true);
  await expect(editPlan(first.plan.id, 1, rename('Gone'))).rejects.toMatchObject({ status: 410 });
  expect(await staged()).toBe(0);
});

test('others come between the stretches', async () => {
  const { database } = await openDatabase();
  let over = false;
  const staging = stageRows(database, rows(4000)).finally(() => (over = true));
  let between = 0;
  for (; between < 5 && !over; between++) await database.execute(sql`select 1`);
  expect(between).toBe(5);
  expect(over).toBe(false);
  await unstage(database, await staging);
  expect(await staged()).toBe(0);
});

test('a load that broke off is forgotten after an hour, and no other', async () => {
  const { database } = await openDatabase();
  const [old, young] = [await stageRows(database, rows(401)), await stageRows(database, rows(402))];
  await database.execute(
    sql`update staged_records set at = now() - interval '61 minutes' where load = ${'load' in old ? old.load : ''}`,
  );
  await forgetStaged(database);
  expect(await staged()).toBe(402);
  await unstage(database, young);
});
