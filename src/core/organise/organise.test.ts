import * as fc from '../property.test.kit';
import { gannetM8 } from '../models/gannet-m8';
import type { ChannelId, Plan, SetUpId, SkipSetId } from '../plan';
import { anyPlan, channel, id, plan, run, zoneId } from '../samples.test.kit';
import {
  carry,
  carryBands,
  channelOf,
  copy,
  membersBy,
  newSide,
  roundSeconds,
  scanned,
  setUpDifference,
  setUpLines,
  stops,
  zonesForTrip,
} from '.';

const TWO = channel(1, 145_500_000, { name: 'Two' });
const TWO_MORE = channel(2, 145_612_500, { name: 'Two more', tx: 145_012_500 });
const SEVENTY = channel(3, 433_500_000, { name: 'Seventy' });
const p = plan([TWO, TWO_MORE, SEVENTY]);
const moved = (of: Plan, moves: ReturnType<typeof carry>['moves']) =>
  moves.length === 0 ? of : run(of, { name: 'arrange', how: 'move', moves });

test('2 m left, 70 cm right in one gesture, and back', () => {
  const { moves, leftOver } = carryBands(p, { '2 m': 0, '70 cm': 1 }, gannetM8);
  expect(leftOver).toEqual([]);
  expect(moves).toEqual([{ id: SEVENTY.id, from: 3, to: 1, list: 1 }]);
  const apart = moved(p, moves);
  expect(apart.channels.map(({ name, list, slot }) => [name, list, slot])).toEqual([
    ['Two', 0, 1],
    ['Two more', 0, 2],
    ['Seventy', 1, 1],
  ]);
  // again there is nothing to do
  expect(carryBands(apart, { '2 m': 0, '70 cm': 1 }, gannetM8).moves).toEqual([]);
  expect(carryBands(apart, { '70 cm': 0 }, gannetM8).moves).toEqual([
    { id: SEVENTY.id, from: 1, to: 3, list: 0 },
  ]);
});

test('what finds no room is left over, and stays where it is', () => {
  const small = { ...gannetM8, slots: { first: 1, count: 1 } };
  expect(carry(p, new Set([TWO.id, SEVENTY.id]), 1, small)).toEqual({
    moves: [{ id: TWO.id, from: 1, to: 1, list: 1 }],
    leftOver: [SEVENTY.id],
  });
  expect(carry(p, new Set([TWO.id]), 9, small)).toEqual({ moves: [], leftOver: [TWO.id] });
});

test('copies have ids of their own and all else of what they are copies of', () => {
  let n = 0;
  const made = copy(p, new Set([TWO_MORE.id, SEVENTY.id]), 1, gannetM8, () => id(500 + ++n));
  expect(made.expect).toEqual([1, 2]);
  const after = run(p, {
    name: 'place',
    channels: made.channels,
    placement: 'next-free',
    list: 1,
    at: 1,
    range: { first: 1, count: 400 },
    expect: made.expect,
  });
  expect(after.channels.filter(({ list }) => list === 1)).toEqual([
    { ...TWO_MORE, id: id(501), list: 1, slot: 1 },
    { ...SEVENTY, id: id(502), list: 1, slot: 2 },
  ]);
});

test('carrying loses and doubles no channel, for any plan', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan.filter(({ channels }) => channels.length > 3),
      fc.constantFrom(0, 1),
      fc.constantFrom(0, 1),
      (made, left, right) => {
        const { moves, leftOver } = carryBands(made, { '2 m': left, '70 cm': right }, gannetM8);
        const after = moved(made, moves);
        const idsOf = (of: Plan) => of.channels.map((one) => one.id).sort();
        expect(idsOf(after)).toEqual(idsOf(made));
        expect(leftOver).toEqual([]);
        for (const one of after.channels) {
          if (one.rx >= 136_000_000 && one.rx <= 174_000_000) expect(one.list).toBe(left);
          if (one.rx >= 400_000_000 && one.rx <= 480_000_000) expect(one.list).toBe(right);
        }
        reached.count('something moved', moves.length > 0);
      },
    ),
  );
  reached.expectShare('something moved', 0.5);
});

const at = (lat: number, name: string, slot: number) =>
  channel(slot, 145_600_000 + slot * 12_500, {
    name,
    source: { directory: 'd', entry: name, service: 'amateur', call: 'Q7ULL', lat, lon: -30 },
  });

test('members by band, by distance, by words, by side', () => {
  // a degree of latitude is 111.2 km
  const near = at(52, 'Near', 1);
  const far = at(53, 'Far', 2);
  const made = plan([
    near,
    far,
    { ...SEVENTY, list: 1, slot: 1 },
    { ...channel(9, 145_500_000), list: 2, slot: 1 },
  ]);
  expect(membersBy(made, { band: '2 m' }, gannetM8)).toEqual([near.id, far.id]);
  expect(membersBy(made, { near: { point: { lat: 52, lon: -30 }, km: 111 } }, gannetM8)).toEqual([near.id]);
  expect(membersBy(made, { near: { point: { lat: 52, lon: -30 }, km: 112 } }, gannetM8)).toEqual([
    near.id,
    far.id,
  ]);
  expect(membersBy(made, { words: ' q7u' }, gannetM8)).toEqual([near.id, far.id]);
  expect(membersBy(made, { words: 'far', band: '70 cm' }, gannetM8)).toEqual([]);
  expect(membersBy(made, { list: 1 }, gannetM8)).toEqual([SEVENTY.id]);
  expect(membersBy(made, {}, gannetM8)).toEqual([]);
  expect(membersBy(made, { words: '  ' }, gannetM8)).toEqual([]);
});

test('a zone for each day of a trip: what is near, and what has no place', () => {
  const made = plan([at(52, 'Near', 1), at(53, 'Far', 2), channel(5, 145_500_000, { name: 'Calling' })]);
  const days = [
    { name: 'Day 1', point: { lat: 52, lon: -30 } },
    { name: 'Day 2', point: { lat: 53, lon: -30 } },
  ];
  expect(zonesForTrip(made, days, 40, gannetM8)).toEqual([
    { name: 'Day 1', members: [id(1), id(5)] },
    { name: 'Day 2', members: [id(2), id(5)] },
  ]);
});

describe('quick set-ups', () => {
  const zones = [{ id: zoneId(1), name: 'Day 1', members: [TWO.id] }];
  const skipSets = [
    { id: 'sk_test0001' as SkipSetId, name: 'weather', way: 'all but' as const, members: [] },
  ];
  const made: Plan = { ...p, zones, skipSets };
  const one = {
    id: 'qs_test0001' as SetUpId,
    name: 'Day 1',
    sides: [
      { ...newSide(), zone: zoneId(1), start: TWO.id, scanning: true, skipSet: skipSets[0]!.id },
      { ...newSide(), begins: 'home' as const, shows: 'frequency' as const },
    ],
  };
  test('are said in a sentence a side', () => {
    expect(setUpLines(one, made, gannetM8)).toEqual([
      'left: Day 1 from Two, scanning, skipping weather',
      'right: its home channel, which is not set, showing frequencies',
    ]);
    expect(setUpLines({ ...one, sides: [newSide()] }, made, gannetM8)).toEqual([
      'left: all left channels',
      'right: the dial, its channels out of sight',
    ]);
  });
  test('say how they scan and what they dial', () => {
    const only = { ...skipSets[0]!, id: 'sk_test0002' as SkipSetId, name: 'Hills', way: 'only' as const };
    const nameless = { ...channel(9, 145_525_000, { name: '' }) };
    const set = { ...made, skipSets: [...skipSets, only], channels: [...made.channels, nameless] };
    const sides = [
      { ...newSide(), scanning: true, autoDial: '12#' },
      { ...newSide(), start: nameless.id, scanning: true, skipSet: only.id },
    ];
    expect(setUpLines({ ...one, sides }, set, gannetM8)).toEqual([
      'left: all left channels, scanning, dialling 12#',
      'right: all right channels from a channel without a name, scanning only Hills',
    ]);
    // a skip set without a scan says nothing
    const still = { ...newSide(), skipSet: only.id };
    expect(setUpLines({ ...one, sides: [still] }, set, gannetM8)[0]).toBe('left: all left channels');
  });
  test('name the home channel that they call', () => {
    const home = (slot: number) => ({ ...channel(slot, 433_525_000, { name: `Home ${slot}` }), list: 3 });
    const line = (...homes: ReturnType<typeof home>[]) =>
      setUpLines(one, { ...made, channels: [...made.channels, ...homes] }, gannetM8)[1];
    expect(line(home(2))).toBe('right: home, Home 2, showing frequencies');
    expect(line(home(1), home(2))).toBe('right: the home channel of its band, showing frequencies');
  });
  test('differ in what they differ in', () => {
    expect(setUpDifference(one, one)).toEqual([]);
    // A side that only one of them has differs from one that nobody set up.
    const half = { sides: [one.sides[0]!] };
    const whole = { sides: [one.sides[0]!, { ...newSide(), scanning: true }] };
    for (const [a, b] of [
      [half, whole],
      [whole, half],
    ] as const)
      expect(setUpDifference(a, b)).toEqual([{ side: 1, field: 'scanning' }]);
    expect(setUpDifference(one, { sides: [{ ...one.sides[0]!, start: null }, newSide()] })).toEqual([
      { side: 0, field: 'start' },
      { side: 1, field: 'begins' },
      { side: 1, field: 'shows' },
    ]);
  });
});

test('what a scan takes, and how long a round is', () => {
  const skipped = { ...TWO_MORE, scan: false };
  const made = plan([
    TWO,
    skipped,
    { ...SEVENTY, alwaysOn: true },
    { ...channel(4, 145_525_000), list: 1, slot: 1 },
  ]);
  const names = (zone: ChannelId[] | null, set: Parameters<typeof scanned>[3]) =>
    scanned(made, 0, zone, set).map(({ name }) => name);
  expect(names(null, null)).toEqual(['Two', 'Seventy']);
  expect(names(null, { way: 'all but', members: [TWO.id] })).toEqual(['Two more', 'Seventy']);
  expect(names(null, { way: 'only', members: [TWO_MORE.id] })).toEqual(['Two more']);
  expect(names([TWO.id], { way: 'all but', members: [] })).toEqual(['Two']);
  expect(stops(scanned(made, 0, null, null)).map(({ name }) => name)).toEqual(['Seventy']);
  // 20 channels of 150 ms
  expect(roundSeconds(20)).toBe(3);
});

test('a channel is found by its id; of none, and of one that is gone, there is none', () => {
  expect(channelOf(p, SEVENTY.id)).toBe(SEVENTY);
  expect(channelOf(p, null)).toBeUndefined();
  expect(channelOf(p, id(999))).toBeUndefined();
});
