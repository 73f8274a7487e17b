import { placing, renaming } from '../core/samples.test.kit';
import { dataFolder } from './data-folder.test.kit';
import { familyOf, movePlan, offersFrom } from './family';
import { createPlan, duplicatePlan, getPlan, setRemoved } from './plans';
import { editPlan, stepBack } from './revisions';

/** A plan for another radio, made of one: what changes there is offered here. */

dataFolder('family');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

test('a plan moves to another radio; changes are offered, taken, left; its own differences are shown', async () => {
  const { plan } = await createPlan({ name: 'Weekend', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(1, 2, 3));
  const made = await movePlan(plan.id, { modelId: 'gannet-m8', name: 'In the van', sides: { '2 m': 1 } });
  expect(made.plan).toMatchObject({ modelId: 'gannet-m8', origin: { plan: plan.id, revision: 2 } });
  // slots 0, 1, 2 of the P2; on the right of the Gannet there is no slot 0
  expect(made.plan.channels.map(({ list, slot, name }) => [list, slot, name])).toEqual([
    [1, 1, 'Station 2'],
    [1, 2, 'Station 3'],
    [1, 3, 'Station 1'],
  ]);
  expect(await familyOf(plan.id)).toMatchObject({
    source: null,
    made: [{ name: 'In the van', modelId: 'gannet-m8', differences: 1, seen: 1, revision: 1 }],
  });
  await editPlan(plan.id, 2, renaming(2, 'Ullsmere Hill'));
  const family = await familyOf(made.plan.id);
  expect(family).toMatchObject({
    source: { id: plan.id, name: 'Weekend', seen: 2, revision: 3 },
    offers: [{ name: 'Ullsmere Hill', what: 'changed', text: 'name', clash: false }],
    all: { name: 'change' },
    own: [
      { name: 'Slots', text: '3 channels have others' },
      { name: 'Station 2', text: 'name' },
    ],
  });
  const taken = await editPlan(made.plan.id, 1, family.offers[0]!.edit);
  expect((await familyOf(made.plan.id)).offers).toEqual([]);
  // taken back it is offered again; left, it is not
  await stepBack(made.plan.id, 'undo');
  expect((await familyOf(made.plan.id)).offers).toHaveLength(1);
  const origin = { plan: plan.id, revision: 3 };
  await editPlan(made.plan.id, taken.revision + 1, { name: 'describe', set: { origin } });
  expect((await familyOf(made.plan.id)).offers).toEqual([]);
  expect((await familyOf(made.plan.id)).own).toHaveLength(2);
  // where it came from has gone: nothing is offered, nothing breaks
  await setRemoved(plan.id, true);
  expect(await familyOf(made.plan.id)).toMatchObject({ source: null, offers: [], own: [] });
  expect((await getPlan(made.plan.id)).plan.channels).toHaveLength(3);
});

test('a plan moves from a slot on and into a bank of its own', async () => {
  const { plan } = await createPlan({ name: 'Weekend', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(1, 2, 3));
  const wish = { modelId: 'gannet-m8', name: 'In the van', sides: {}, from: 30, bank: 'Weekend' };
  const made = await movePlan(plan.id, wish);
  expect(made.plan.channels.map(({ list, slot }) => [list, slot])).toEqual([
    [0, 30],
    [0, 31],
    [0, 32],
  ]);
  expect(made.plan.zones).toMatchObject([
    { name: 'Weekend', members: made.plan.channels.map((one) => one.id) },
  ]);
});

test('a side or band that the radio does not have is said, and nothing is made', async () => {
  const { plan } = await createPlan({ name: 'Other', modelId: 'tern-p2', owner });
  const wrong: Record<string, number>[] = [{ '2 m': 2 }, { '2 m': 7 }, { '23 cm': 0 }];
  for (const sides of wrong)
    await expect(movePlan(plan.id, { modelId: 'gannet-m8', name: 'X', sides })).rejects.toMatchObject({
      status: 422,
      kind: 'unknown-side',
    });
  await expect(movePlan(plan.id, { modelId: 'none', name: 'X', sides: {} })).rejects.toMatchObject({
    status: 422,
  });
  expect((await familyOf(plan.id)).made).toEqual([]);
});

test('what changes in a plan that was made of another is offered back, until it is taken or left', async () => {
  const { plan } = await createPlan({ name: 'Weekend', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(1, 2, 3));
  const made = await movePlan(plan.id, { modelId: 'tern-p3', name: 'The other', sides: {} });
  const [first, second] = made.plan.channels;
  await editPlan(made.plan.id, 1, {
    name: 'change',
    changes: [{ id: first!.id, set: { name: 'Heard there' } }],
  });
  await editPlan(made.plan.id, 2, { name: 'remove', ids: [second!.id] });
  expect((await familyOf(plan.id)).made).toMatchObject([{ seen: 1, revision: 3 }]);
  const back = await offersFrom(plan.id, made.plan.id);
  expect(back.offers.map(({ what, name }) => [what, name])).toEqual([
    ['changed', 'Heard there'],
    ['removed', second!.name],
  ]);
  await editPlan(plan.id, 2, back.all!);
  const now = await getPlan(plan.id);
  expect(now.plan.channels.map(({ name }) => name)).toContain('Heard there');
  expect(now.plan.channels).toHaveLength(3);
  // the rest is left
  await editPlan(plan.id, 3, { name: 'describe', set: { lookedAt: { [made.plan.id]: back.revision } } });
  expect((await offersFrom(plan.id, made.plan.id)).offers).toEqual([]);
  // a copy has looked at nothing yet, and whoever was not made of this plan has nothing to offer
  expect((await duplicatePlan(plan.id)).plan.lookedAt).toEqual({});
  await expect(offersFrom(made.plan.id, plan.id)).rejects.toMatchObject({ status: 422, kind: 'not-related' });
});
