import * as fc from '../property.test.kit';
import { channelDefaults, makeId, type NewChannel, type ZoneId } from '../plan';
import { channel, id, plan, run } from '../samples.test.kit';
import { DOUBLE_WAYS, placeStations, type ToPlace } from '.';

const fresh = (n: number): NewChannel => ({
  ...channelDefaults(145_600_000 + n * 12_500),
  id: makeId('ch', new Uint8Array(12).fill(n + 100)),
  name: `New ${n}`,
});
const one = (n: number, more: Partial<ToPlace> = {}): ToPlace => ({
  channel: fresh(n),
  days: [],
  double: null,
  ...more,
});
const wanted = { placement: 'next-free' as const, at: 0, range: { first: 0, count: 5 }, list: 0 };
const zone = (n: number) => makeId('zn', new Uint8Array(12).fill(n)) as ZoneId;
const p = plan([
  channel(0, 145_500_000, { name: 'Calling' }),
  channel(2, 145_600_000, { name: 'Hill', tx: 145_000_000 }),
]);

test('what fits is placed, what does not is left over, and each day is a zone with its channels', () => {
  const list = [
    one(1, { days: [0] }),
    one(2, { days: [0, 1] }),
    one(3, { days: [1] }),
    one(4, { days: [1] }),
  ];
  const { edit, placed, over } = placeStations(p, list, wanted, [
    { id: zone(1), name: 'Day 1' },
    { id: zone(2), name: 'Day 2' },
    { id: zone(3), name: 'Day 3' },
  ]);
  expect([placed, over]).toEqual([3, 1]);
  const after = run(p, edit!);
  expect(after.channels.map(({ slot, name }) => [slot, name])).toEqual([
    [0, 'Calling'],
    [1, 'New 1'],
    [2, 'Hill'],
    [3, 'New 2'],
    [4, 'New 3'],
  ]);
  expect(after.leftOver.map(({ name }) => name)).toEqual(['New 4']);
  // New 4 is in no zone, since it is in no slot; a day without any is no zone
  expect(after.zones.map(({ name, members }) => [name, members.length])).toEqual([
    ['Day 1', 2],
    ['Day 2', 2],
  ]);
  expect(after.zones[1]!.members).toEqual([list[1]!.channel.id, list[2]!.channel.id]);
});

test('what the plan has nearly is doubled, taken over, or left', () => {
  const twin: NewChannel = {
    ...fresh(0),
    tx: 145_000_000,
    access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
  };
  const of = (way: (typeof DOUBLE_WAYS)[number]) =>
    placeStations(p, [{ channel: twin, days: [0], double: { id: id(2), way } }], wanted, [
      { id: zone(1), name: 'Day 1' },
    ]);
  const over = run(p, of('take over').edit!);
  expect(over.channels).toHaveLength(2);
  expect(over.channels[1]).toMatchObject({ name: 'Hill', slot: 2, access: { send: { tone: 885 } } });
  expect(over.zones[0]!.members).toEqual([id(2)]);
  expect(run(p, of('both').edit!).channels).toHaveLength(3);
  expect(of('leave')).toEqual({ edit: null, placed: 0, changed: 0, over: 0 });
});

test('nothing is lost in placing: each station is in a slot, left over, taken over or left', () => {
  const reached = fc.tally();
  const some = fc.array(
    fc.record({
      days: fc.subarray([0, 1, 2]),
      way: fc.option(fc.constantFrom(...DOUBLE_WAYS)),
    }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(
      some,
      fc.constantFrom('next-free', 'push-down', 'overwrite', 'fill-gaps'),
      fc.integer({ min: 0, max: 4 }),
      (list, placement, at) => {
        const stations = list.map(({ days, way }, n) =>
          one(n, { days, double: way === null ? null : { id: id(2), way } }),
        );
        const { edit, placed, over, changed } = placeStations(
          p,
          stations,
          { ...wanted, placement: placement as 'next-free', at },
          [0, 1, 2].map((day) => ({ id: zone(day), name: `Day ${day}` })),
        );
        const left = stations.filter(({ double }) => double?.way === 'leave').length;
        if (!edit) return expect(left).toBe(stations.length);
        const after = run(p, edit);
        // those that were overwritten are left over as well
        const were = new Set([...after.channels, ...after.leftOver].map((held) => held.id as string));
        for (const { channel: held, double } of stations)
          expect(were.has(held.id)).toBe(double === null || double.way === 'both');
        for (const held of p.channels) expect(were.has(held.id)).toBe(true);
        expect(placed + changed + left).toBeLessThanOrEqual(stations.length);
        const slots = new Set<string>(after.channels.map((held) => held.id));
        for (const { members } of after.zones) {
          expect(new Set(members).size).toBe(members.length);
          for (const member of members) expect(slots.has(member)).toBe(true);
        }
        reached.count('over', over > 0);
        reached.count('zones', after.zones.length > 1);
      },
    ),
  );
  reached.expectShare('over', 0.2);
  reached.expectShare('zones', 0.2);
});

test('channels that make room wait left over, with what refers to them taken out, and all of it is one step', () => {
  const full = plan([0, 1, 2, 3, 4].map((slot) => channel(slot, 145_500_000 + slot * 25_000)));
  const zoned = { ...full, zones: [{ id: zone(1), name: 'Hills', members: full.channels.map((c) => c.id) }] };
  const going = new Set([full.channels[1]!.id, full.channels[4]!.id]);
  const { edit, placed, over } = placeStations(zoned, [one(1), one(2), one(3)], wanted, [], going);
  expect([placed, over]).toEqual([2, 1]);
  const after = run(zoned, edit!);
  expect(after.channels.map(({ name }) => name)).toEqual([
    'Station 0',
    'New 1',
    'Station 2',
    'Station 3',
    'New 2',
  ]);
  expect(after.leftOver.map(({ name }) => name).sort()).toEqual(['New 3', 'Station 1', 'Station 4']);
  expect(after.zones[0]!.members).toHaveLength(3);
  expect(edit).toMatchObject({
    name: 'together',
    label: 'Place 2 channels, 1 left over, 2 left over for them',
  });
});
