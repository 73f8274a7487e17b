import { and, eq } from 'drizzle-orm';
import { placing, renaming } from '../core/samples.test.kit';
import { revisions } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { writing } from './database';
import { planLog } from './plan-log';
import { createPlan } from './plans';
import { editPlan, goBack, stepBack } from './revisions';

dataFolder('labels');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

test('the log has the parts of labels; words are made of them, and searched, when they are shown', async () => {
  const { plan } = await createPlan({ name: 'Labels', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(1));
  const { label } = await editPlan(plan.id, 2, renaming(1, 'Ketterby'));
  expect(label).toContain('to “Ketterby”');
  await stepBack(plan.id, 'undo');
  await goBack(plan.id, 4, 2);
  const database = await writing();
  const rows = await database.select().from(revisions).where(eq(revisions.documentId, plan.id));
  expect(rows.map((row) => [row.revision, row.label, row.labelParts])).toEqual([
    [2, '', { of: 'place', n: 1, name: expect.any(String) }],
    [
      3,
      '',
      { of: 'change channels', n: 1, name: expect.any(String), fields: ['name'], set: { name: 'Ketterby' } },
    ],
    [
      4,
      '',
      { of: 'change channels', n: 1, name: expect.any(String), fields: ['name'], set: { name: 'Ketterby' } },
    ],
    [5, '', { of: 'go back', revision: 2 }],
  ]);
  const said = async (search: string) =>
    (await planLog(plan.id, undefined, 10, { search })).edits.map(({ revision }) => revision);
  expect(await said('KETTERBY')).toEqual([4, 3]);
  expect(await said('go back to revision 2')).toEqual([5]);
  expect(await said('100%')).toEqual([]);
  expect((await planLog(plan.id, undefined, 1, { search: 'ketterby' })).next).toBe(4);
});

test('a log of before has its labels in words, which are shown and searched as they are', async () => {
  const { plan } = await createPlan({ name: 'Older', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(2));
  const database = await writing();
  const [row] = await database
    .update(revisions)
    .set({ label: 'Put in one channel', labelParts: null })
    .where(and(eq(revisions.documentId, plan.id), eq(revisions.revision, 2)))
    .returning();
  expect(row).toBeDefined();
  expect((await planLog(plan.id, undefined, 10, { search: 'put in' })).edits).toMatchObject([
    { revision: 2, label: 'Put in one channel' },
  ]);
  expect(await stepBack(plan.id, 'undo')).toMatchObject({
    label: 'Put in one channel',
    redo: 'Put in one channel',
  });
  // What is no label any more is called something all the same.
  await database.update(revisions).set({ labelParts: { of: 'none' } as never, label: '' });
  expect((await planLog(plan.id, undefined, 10)).edits.map(({ label }) => label)).toEqual([
    'Change',
    'Change',
  ]);
});
