import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Plan, PlanId } from '../core/plan';
import { openDatabase } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { planAt } from './plan-log';
import { planNames } from './plan-list';
import { getPlan } from './plans';
import { restoreBackup } from './restore';
import { editPlan, stepBack } from './revisions';

/**
 * A backup of before rows had room between their positions and settings were changed one by one (made at 21 migrations): it is restored, every
 * revision of every plan is what it was then, and the plans are worked on.
 */

dataFolder('older-backup');

interface Then {
  removed: PlanId;
  plans: Record<
    PlanId,
    { revision: number; undo: string | null; redo: string | null; plan: Plan; revisions: Plan[] }
  >;
}
const FIXTURES = join('src', 'server', 'fixtures');
const then = JSON.parse(gunzipSync(readFileSync(join(FIXTURES, 'integers.json.gz'))).toString()) as Then;
/** Plans of then use no other documents. */
const today = (plan: Plan): Plan => ({ ...plan, uses: [] });
const plans = (Object.entries(then.plans) as [PlanId, Then['plans'][PlanId]][]).map(
  ([id, { plan, revisions, ...rest }]): [PlanId, Then['plans'][PlanId]] => [
    id,
    { ...rest, plan: today(plan), revisions: revisions.map(today) },
  ],
);

test('it is restored whole', async () => {
  const restored = await restoreBackup(join(FIXTURES, 'integers.backup.gz'));
  expect(restored).toMatchObject({ ok: true });
  expect(plans.length).toBeGreaterThan(4);
  for (const [id, { plan, revision, undo, redo }] of plans)
    expect(await getPlan(id)).toEqual({ plan, revision, undo, redo });
  expect((await planNames({ removed: true })).map(({ id }) => id)).toEqual([then.removed]);
});

test('its logs lead to the same plans', async () => {
  const { database } = await openDatabase();
  let revisions = 0;
  for (const [id, { revisions: all }] of plans)
    for (const [n, plan] of all.entries()) {
      expect(await planAt(database, id, n + 1)).toEqual(plan);
      revisions++;
    }
  expect(revisions).toBeGreaterThan(40);
});

test('everything is undone to the beginning, and done again', async () => {
  for (const [id, { plan, revisions }] of plans) {
    let steps = 0;
    while ((await getPlan(id)).undo !== null) {
      await stepBack(id, 'undo');
      steps++;
    }
    expect((await getPlan(id)).plan).toEqual(revisions[0]);
    for (; steps > 0; steps--) await stepBack(id, 'redo');
    expect((await getPlan(id)).plan).toEqual(plan);
  }
});

test('its plans are worked on: an order with room is made where something comes between', async () => {
  const [id, { plan }] = plans.find(([, one]) => one.plan.talkgroups.length > 2)!;
  const [first, second] = plan.talkgroups;
  const between = {
    ...first!,
    id: 'tg_between01' as NonNullable<typeof first>['id'],
    name: 'Between',
    number: 999_002,
  };
  const { revision } = await getPlan(id);
  await editPlan(id, revision, { name: 'put', kind: 'talkgroup', records: [between], before: second!.id });
  const { database } = await openDatabase();
  expect((await planAt(database, id, revision + 1)).talkgroups.slice(0, 3).map(({ name }) => name)).toEqual([
    first!.name,
    'Between',
    second!.name,
  ]);
});
