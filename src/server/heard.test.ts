import { placing } from '../core/samples.test.kit';
import type { ChannelId } from '../core/plan';
import { dataFolder } from './data-folder.test.kit';
import { movePlan } from './family';
import { hear, heardOf } from './heard';
import { createPlan, duplicatePlan } from './plans';
import { editPlan } from './revisions';

/** What was heard stands beside the plan: counted, once for each moment, and forgotten again where it was not after all. */

dataFolder('heard');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const NOW = Date.parse('2026-11-27T12:00:00.000Z');

async function planOfThree() {
  const { plan } = await createPlan({ name: 'Listening', modelId: 'tern-p2', owner });
  const edit = placing(1, 2, 3);
  await editPlan(plan.id, 1, edit);
  const [a, b, c] = (edit as { channels: { id: ChannelId }[] }).channels.map(({ id }) => id);
  return { id: plan.id, a: a!, b: b!, c: c! };
}

test('channels are heard, counted by week, and the same moment is once', async () => {
  const { id, a, b } = await planOfThree();
  const put = [
    { channel: a, at: '2026-11-27T11:00:00.000Z' }, // this week
    { channel: a, at: '2026-11-21T12:00:00.000Z' }, // six days ago: this week
    { channel: a, at: '2026-11-20T11:59:59.000Z' }, // seven days and a second: the week before
    { channel: b, at: '2026-10-01T00:00:00.000Z' }, // eight weeks and a day and a half ago
  ];
  expect(await hear(id, { put, drop: [] })).toEqual({ added: 4, dropped: 0 });
  expect(await hear(id, { put: put.slice(1), drop: [] })).toEqual({ added: 0, dropped: 0 });
  const heard = await heardOf(id, 3, NOW);
  expect(heard).toHaveLength(2);
  expect(heard).toContainEqual({
    channel: a,
    times: 3,
    last: '2026-11-27T11:00:00.000Z',
    weeks: [0, 1, 2],
  });
  expect(heard).toContainEqual({ channel: b, times: 1, last: '2026-10-01T00:00:00.000Z', weeks: [0, 0, 0] });
  // eight weeks and a day and a half: the ninth from the end
  expect((await heardOf(id, 9, NOW)).find(({ channel }) => channel === b)!.weeks).toEqual([
    1, 0, 0, 0, 0, 0, 0, 0, 0,
  ]);
  expect(await hear(id, { put: [], drop: [put[0]!, put[0]!] })).toEqual({ added: 0, dropped: 1 });
  expect((await heardOf(id, 0, NOW)).find(({ channel }) => channel === a)).toMatchObject({
    times: 2,
    last: '2026-11-21T12:00:00.000Z',
    weeks: [],
  });
});

test('a clock a little ahead counts as this week; a date that is to come, or a channel that is not there, keeps nothing', async () => {
  const { id, a } = await planOfThree();
  const soon = new Date(Date.now() + 3600_000).toISOString();
  await hear(id, { put: [{ channel: a, at: soon }], drop: [] });
  expect((await heardOf(id, 2))[0]).toMatchObject({ times: 1, weeks: [0, 1] });
  const good = { channel: a, at: '2026-11-01T00:00:00.000Z' };
  await expect(
    hear(id, {
      put: [good, { channel: a, at: new Date(Date.now() + 48 * 3600_000).toISOString() }],
      drop: [],
    }),
  ).rejects.toMatchObject({ kind: 'not-yet' });
  await expect(
    hear(id, { put: [good, { channel: 'ch_nobody' as ChannelId, at: good.at }], drop: [] }),
  ).rejects.toMatchObject({ kind: 'unknown-channel' });
  expect((await heardOf(id, 0))[0]).toMatchObject({ times: 1 });
});

test('a plan that is made of another one has what was heard there', async () => {
  const { id, a } = await planOfThree();
  await hear(id, { put: [{ channel: a, at: '2026-11-01T00:00:00.000Z' }], drop: [] });
  const copy = await duplicatePlan(id);
  const moved = await movePlan(id, { modelId: 'gannet-m8', name: 'In the van', sides: {} });
  for (const made of [copy, moved])
    expect(await heardOf(made.plan.id, 0)).toEqual([
      { channel: a, times: 1, last: '2026-11-01T00:00:00.000Z', weeks: [] },
    ]);
});
