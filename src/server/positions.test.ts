import { sql } from 'drizzle-orm';
import type { Edit, PlanId, TalkgroupId } from '../core/plan';
import { openDatabase } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { letGo } from './documents/held';
import { createPlan, getPlan } from './plans';
import { editPlan, stepBack } from './revisions';

/** Records with an order of their own: how many rows a change of the order writes. */

dataFolder('positions');

const COUNT = 300;
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const groupId = (n: number) => `tg_${String(n).padStart(5, '0')}` as TalkgroupId;
const group = (n: number) => ({
  ...{ id: groupId(n), name: `Group ${n}`, number: n + 1, call: 'group' as const },
});
const make = async () => {
  const talkgroups = Array.from({ length: COUNT }, (_, n) => group(n));
  return (await createPlan({ name: 'Many', modelId: 'osprey-d7', owner }, { talkgroups })).plan.id;
};

/** The transaction that wrote each row last. */
async function written(planId: PlanId): Promise<Map<string, string>> {
  const { database } = await openDatabase();
  const { rows } = (await database.execute(
    sql`select id, xmin::text as by from records where document_id = ${planId}`,
  )) as unknown as { rows: { id: string; by: string }[] };
  return new Map(rows.map(({ id, by }) => [id, by]));
}

/** Runs a change; gives how many rows it wrote. The tables have what the plan has after it. */
async function rowsOf(planId: PlanId, change: () => Promise<unknown>): Promise<number> {
  const before = await written(planId);
  await change();
  const held = (await getPlan(planId)).plan;
  letGo(planId);
  expect((await getPlan(planId)).plan).toEqual(held);
  return [...(await written(planId))].filter(([id, by]) => before.get(id) !== by).length;
}

const names = async (planId: PlanId) =>
  (await getPlan(planId)).plan.talkgroups.map(({ id }) => Number(id.slice(3)));

test('one that goes, comes, moves or is renamed writes no row but its own', async () => {
  const planId = await make();
  const run = async (edit: Edit) =>
    rowsOf(planId, async () => editPlan(planId, (await getPlan(planId)).revision, edit));
  expect(await run({ name: 'remove', kind: 'talkgroup', ids: [groupId(1)] })).toBe(0);
  expect(await run({ name: 'put', kind: 'talkgroup', records: [group(900)], before: groupId(200) })).toBe(1);
  expect(await run({ name: 'order', kind: 'talkgroup', ids: [groupId(299)], before: groupId(0) })).toBe(1);
  expect(await run({ name: 'order', kind: 'talkgroup', ids: [groupId(0)], before: null })).toBe(1);
  const changes = [{ id: groupId(100), set: { name: 'Renamed' } }];
  expect(await run({ name: 'change', kind: 'talkgroup', changes })).toBe(1);
  expect(await names(planId)).toEqual([
    ...[299, ...Array.from({ length: 198 }, (_, n) => n + 2), 900],
    ...[...Array.from({ length: 99 }, (_, n) => n + 200), 0],
  ]);
  // Undone one after the other: what went comes back where it was.
  for (const rows of [1, 1, 1, 0, 1]) expect(await rowsOf(planId, () => stepBack(planId, 'undo'))).toBe(rows);
  expect(await names(planId)).toEqual(Array.from({ length: COUNT }, (_, n) => n));
});

test('where no number is left between two, all are numbered again, and the order holds', async () => {
  const planId = await make();
  for (let n = 0; n < 60; n++)
    await editPlan(planId, n + 1, {
      name: 'put',
      kind: 'talkgroup',
      records: [group(1000 + n)],
      before: groupId(1),
    });
  letGo(planId);
  const after = await names(planId);
  expect(after.slice(0, 3)).toEqual([0, 1000, 1001]);
  expect(after.slice(59, 63)).toEqual([1058, 1059, 1, 2]);
});
