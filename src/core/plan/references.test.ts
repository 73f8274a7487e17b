import { channel, id, plan, zoneId } from '../samples.test.kit';
import type { Plan, SetUp, SetUpId } from '.';
import { danglingFault, keptReferences, withLostReferences, withoutDangling } from '.';

const side = {
  begins: 'memory' as const,
  zone: zoneId(1),
  start: id(2),
  skipSet: null,
  scanning: false,
  shows: 'name' as const,
  autoDial: '',
};
const setUp: SetUp = { id: 'qs_test0001' as SetUpId, name: 'Hill', sides: [side, { ...side, start: null }] };
const zone = { id: zoneId(1), name: 'Day 1', members: [id(1), id(2), id(3)] };
const whole: Plan = {
  ...plan([channel(1, 145_500_000), channel(2, 145_525_000), channel(3, 145_550_000)]),
  zones: [zone],
  setUps: [setUp],
};
const gone = (...ids: string[]) => ({
  ...whole,
  channels: whole.channels.filter((one) => !ids.includes(one.id)),
});

test('whatever refers to what is gone does so no more; what loses nothing stays the very same', () => {
  expect(withoutDangling(whole)).toBe(whole);
  const less = withoutDangling(gone(id(2)));
  expect(less.zones).toEqual([{ ...zone, members: [id(1), id(3)] }]);
  expect(less.setUps[0]!.sides).toEqual([{ ...side, start: null }, setUp.sides[1]]);
  expect(less.setUps[0]!.sides[1]).toBe(setUp.sides[1]);
  expect(danglingFault(less)).toBeNull();
  expect(danglingFault(gone(id(2)))).toBe(
    `The zone ${zoneId(1)} names ${id(2)}, and there is no such channel in the plan.`,
  );
  const withoutZone = { ...whole, zones: [] };
  expect(danglingFault(withoutZone)).toContain('there is no such zone in the plan');
  expect(withoutDangling(withoutZone).setUps[0]!.sides.map((one) => one.zone)).toEqual([null, null]);
});

test('references that went with what they led to are put back where they stood, others are not', () => {
  const lost =
    (...ids: string[]) =>
    (_: string, one: string) =>
      ids.includes(one);
  const after = (members: string[]) => ({ ...zone, members: members as typeof zone.members });
  const back = (members: string[], ...ids: string[]) =>
    withLostReferences('zone', after(members), zone, lost(...ids)).members;
  expect(back([id(1), id(3)], id(2))).toEqual([id(1), id(2), id(3)]);
  expect(back([id(3)], id(1), id(2))).toEqual([id(1), id(2), id(3)]);
  // in another order, behind the one that it stood behind
  expect(back([id(3), id(1)], id(2))).toEqual([id(3), id(1), id(2)]);
  // taken out by hand: not lost
  expect(back([id(1), id(3)])).toEqual([id(1), id(3)]);
  // there already
  expect(back([id(2), id(1)], id(2))).toEqual([id(2), id(1)]);
  const empty = { ...setUp, sides: setUp.sides.map((one) => ({ ...one, start: null })) };
  expect(withLostReferences('setUp', empty, setUp, lost(id(2)))).toEqual(setUp);
  expect(withLostReferences('setUp', empty, setUp, lost(id(3)))).toEqual(empty);
  // a side that was not there has nothing to be put back
  const more = { ...setUp, sides: [...empty.sides, { ...side, start: null }] };
  expect(withLostReferences('setUp', more, setUp, lost(id(2))).sides).toEqual([
    ...setUp.sides,
    { ...side, start: null },
  ]);
});

test('a record without references to what is not there', () => {
  expect(keptReferences('zone', zone, () => true)).toBe(zone);
  expect(keptReferences('zone', zone, (to, one) => to === 'channel' && one === id(3)).members).toEqual([
    id(3),
  ]);
});
