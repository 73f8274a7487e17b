import type { ChannelId, SkipSetId } from '../plan';
import { channel, id, plan, zoneId } from '../samples.test.kit';
import { EVERYTHING, turned, turnedThrough, type Turning } from '.';

const NO_WEATHER = 'sk_test0001' as SkipSetId;
const ONLY_TWO = 'sk_test0002' as SkipSetId;
const p = {
  ...plan([
    channel(1, 145_500_000),
    channel(2, 145_525_000, { scan: false }),
    channel(3, 162_400_000),
    channel(5, 145_550_000),
    { ...channel(6, 433_500_000), list: 1 },
  ]),
  zones: [{ id: zoneId(1), name: 'Day 1', members: [id(5), id(1), id(6)] }],
  skipSets: [
    { id: NO_WEATHER, name: 'No weather', way: 'all but' as const, members: [id(3)] },
    { id: ONLY_TWO, name: 'Only two', way: 'only' as const, members: [id(2), id(5)] },
  ],
};
const through = (turning: Partial<Turning>, list = 0, gone: string[] = []) =>
  turnedThrough(p, list, { ...EVERYTHING, ...turning }, (one) => !gone.includes(one)).map((one) => one.id);

test('a knob goes through its side, a bank of it, what a scan takes; never through what the radio does not hold', () => {
  expect(through({})).toEqual([id(1), id(2), id(3), id(5)]);
  expect(through({}, 1)).toEqual([id(6)]);
  expect(through({}, 0, [id(2)])).toEqual([id(1), id(3), id(5)]);
  // in slot order, however the bank has them
  expect(through({ zone: zoneId(1) })).toEqual([id(1), id(5)]);
  expect(through({ through: 'marks' })).toEqual([id(1), id(3), id(5)]);
  expect(through({ through: NO_WEATHER })).toEqual([id(1), id(2), id(5)]);
  expect(through({ zone: zoneId(1), through: ONLY_TWO })).toEqual([id(5)]);
  // a bank that is gone is the whole side
  expect(through({ zone: zoneId(9) })).toHaveLength(4);
});

test('turning goes on by one, round at the ends, and comes in from outside', () => {
  const bank = turnedThrough(p, 0, { zone: zoneId(1), through: 'every' }, () => true);
  const to = (from: string | null, by: 1 | -1) => turned(bank, from as never, by)?.id;
  expect(to(id(1), 1)).toBe(id(5));
  expect(to(id(5), 1)).toBe(id(1));
  expect(to(id(1), -1)).toBe(id(5));
  expect(to(id(3), 1)).toBe(id(1));
  expect(to(id(3), -1)).toBe(id(5));
  expect(to(null, 1)).toBe(id(1));
  expect(turned([], id(1), 1)).toBeUndefined();
  expect(turned([], id(1), -1)).toBeUndefined();
});

test('of three, up and down are different ways', () => {
  const all = turnedThrough(p, 0, { zone: null, through: 'marks' }, () => true);
  const to = (from: ChannelId | null, by: 1 | -1) => turned(all, from, by)?.id;
  expect(all.map((one) => one.id)).toEqual([id(1), id(3), id(5)]);
  expect([to(id(1), 1), to(id(1), -1)]).toEqual([id(3), id(5)]);
  expect([to(id(5), 1), to(id(5), -1)]).toEqual([id(1), id(3)]);
  expect([to(id(2), 1), to(id(2), -1)]).toEqual([id(1), id(5)]);
});
