import * as fc from '../property.test.kit';
import { anyPlan, channel, id, placing, plan, RANGE, run, three } from '../samples.test.kit';
import {
  applyEdit,
  previewArrangement,
  reorder,
  ROOMS,
  SORT_KEYS,
  swap,
  type Arrangement,
  type ChannelId,
  type Move,
  type Plan,
  previewPlacing,
  type Edit,
} from '.';

const some = (...slots: number[]) => new Set<ChannelId>(slots.map(id));

function after(p: Plan, moves: Move[]): string[] {
  if (moves.length === 0) return p.channels.map((c) => `${c.slot} ${c.name}`);
  return run(p, { name: 'arrange', how: 'move', moves }).channels.map((c) => `${c.slot} ${c.name}`);
}
const arranged = (chosen: Set<ChannelId>, arrangement: Arrangement, p = three, range = RANGE) => {
  const moves = previewArrangement(p, chosen, arrangement, range);
  return moves.ok ? after(p, moves.value) : moves.reason;
};

test('gaps are closed from the first slot of the radio on', () => {
  expect(arranged(some(), { how: 'close gaps' })).toEqual(['0 Calling', '1 Ullsmere Hill', '2 Weather']);
  expect(arranged(some(), { how: 'close gaps' }, three, { first: 1, count: 220 })).toEqual([
    '1 Calling',
    '2 Ullsmere Hill',
    '3 Weather',
  ]);
});

test('the chosen are numbered anew in steps; the others stay', () => {
  expect(arranged(some(1, 2, 5), { how: 'renumber', start: 10, step: 10 })).toEqual([
    '10 Calling',
    '20 Ullsmere Hill',
    '30 Weather',
  ]);
  expect(arranged(some(2, 5), { how: 'renumber', start: 0, step: 2 })).toEqual([
    '0 Ullsmere Hill',
    '1 Calling',
    '2 Weather',
  ]);
});

test('numbers beyond the radio, or of a channel that stays, are refused with the slot', () => {
  expect(arranged(some(1, 2, 5), { how: 'renumber', start: 100, step: 30 })).toBe(
    'Slot 160 is not in this radio: its slots are 0 to 149.',
  );
  expect(arranged(some(2), { how: 'renumber', start: 5, step: 1 })).toBe(
    'Slot 5 is taken by “Weather”. Choose it too, or other numbers.',
  );
});

test('sorting keeps the slots; of one chosen channel, or none, all are sorted', () => {
  const zed = plan(three.channels.map((c) => (c.slot === 1 ? { ...c, name: 'Zed' } : c)));
  const sorted = ['1 Ullsmere Hill', '2 Weather', '5 Zed'];
  expect(arranged(some(), { how: 'sort', key: 'name' }, zed)).toEqual(sorted);
  expect(arranged(some(2), { how: 'sort', key: 'name' }, zed)).toEqual(sorted);
  expect(arranged(some(1, 2), { how: 'sort', key: 'name' }, zed)).toEqual([
    '1 Ullsmere Hill',
    '2 Zed',
    '5 Weather',
  ]);
  // listen only comes after all that send
  expect(arranged(some(), { how: 'sort', key: 'tx' })).toEqual(['1 Ullsmere Hill', '2 Calling', '5 Weather']);
});

test('sorted by any key they stand in its order, in the same slots, equals as they stood', () => {
  const value = {
    name: (c: Plan['channels'][number]) => c.name,
    rx: (c: Plan['channels'][number]) => c.rx,
    tx: (c: Plan['channels'][number]) => c.tx ?? Infinity,
    mode: (c: Plan['channels'][number]) => c.mode,
    power: (c: Plan['channels'][number]) => c.power,
  };
  const reached = fc.tally();
  fc.assert(
    // Of one channel, or none, there is nothing to sort.
    fc.property(
      anyPlan.filter((p) => p.channels.length > 1),
      fc.constantFrom(...SORT_KEYS),
      (p, key) => {
        const moves = previewArrangement(p, new Set(), { how: 'sort', key }, { first: 0, count: 161 });
        if (!moves.ok) throw new Error(moves.reason);
        reached.count(key, moves.value.length > 0);
        const sorted =
          moves.value.length === 0 ? p : run(p, { name: 'arrange', how: 'sort', moves: moves.value });
        expect(sorted.channels.map((c) => c.slot)).toEqual(p.channels.map((c) => c.slot));
        const place = new Map(p.channels.map((c, at) => [c.id, at]));
        for (const [at, next] of sorted.channels.entries()) {
          const before = sorted.channels[at - 1];
          if (!before) continue;
          const [a, b] = [value[key](before), value[key](next)];
          const order =
            key === 'name'
              ? String(a).localeCompare(String(b), 'en', { numeric: true })
              : a < b
                ? -1
                : a > b
                  ? 1
                  : 0;
          expect(order).toBeLessThanOrEqual(0);
          if (order === 0) expect(place.get(before.id)!).toBeLessThan(place.get(next.id)!);
        }
      },
    ),
    { numRuns: 200 },
  );
  for (const key of SORT_KEYS) reached.expectShare(key, 0.5);
});

test('moved to a slot, those in the way go down no further than they must', () => {
  expect(arranged(some(5), { how: 'move', at: 1, room: 'push-down' })).toEqual([
    '1 Weather',
    '2 Calling',
    '3 Ullsmere Hill',
  ]);
  expect(arranged(some(1, 2), { how: 'move', at: 4, room: 'push-down' })).toEqual([
    '4 Calling',
    '5 Ullsmere Hill',
    '6 Weather',
  ]);
  expect(arranged(some(1, 2), { how: 'move', at: 4, room: 'next-free' })).toEqual([
    '4 Calling',
    '5 Weather',
    '6 Ullsmere Hill',
  ]);
  expect(arranged(some(1, 2), { how: 'move', at: 4, room: 'at-slot' })).toBe(
    'There is room for 1 of 2 there. Choose another slot, or another way.',
  );
});

test('what stands so already is no move', () => {
  const done = previewArrangement(three, some(1, 2), { how: 'move', at: 1, room: 'push-down' }, RANGE);
  expect(done).toEqual({ ok: true, value: [] });
});

test('two channels are exchanged', () =>
  expect(after(three, swap(three.channels[0]!, three.channels[2]!))).toEqual([
    '1 Weather',
    '2 Ullsmere Hill',
    '5 Calling',
  ]));

describe('carrying channels past others', () => {
  const carried = (chosen: Set<ChannelId>, before: number | null) =>
    after(three, reorder(three, chosen, before === null ? null : id(before)));
  test('the slots in use stay; those in between close up', () => {
    expect(carried(some(1), null)).toEqual(['1 Ullsmere Hill', '2 Weather', '5 Calling']);
    expect(carried(some(5), 1)).toEqual(['1 Weather', '2 Calling', '5 Ullsmere Hill']);
    expect(carried(some(1, 5), 2)).toEqual(['1 Calling', '2 Weather', '5 Ullsmere Hill']);
  });
  test('put down where they are, or before one of themselves, nothing moves', () => {
    expect(reorder(three, some(2), id(5))).toEqual([]);
    expect(reorder(three, some(1, 2), id(2))).toEqual([]);
    expect(reorder(three, some(), id(1))).toEqual([]);
  });
  test('the order of the carried and of the others is kept, for any plan', () => {
    fc.assert(
      fc.property(anyPlan, fc.array(fc.nat({ max: 30 })), fc.nat({ max: 30 }), (p, picks, at) => {
        const chosen = new Set(picks.flatMap((pick) => p.channels[pick]?.id ?? []));
        const moves = reorder(p, chosen, p.channels[at]?.id ?? null);
        if (moves.length === 0) return;
        const moved = run(p, { name: 'arrange', how: 'move', moves });
        const ids = (q: Plan, own: boolean) =>
          q.channels.map((c) => c.id).filter((one) => chosen.has(one) === own);
        expect(ids(moved, true)).toEqual(ids(p, true));
        expect(ids(moved, false)).toEqual(ids(p, false));
        expect(moved.channels.map((c) => c.slot)).toEqual(p.channels.map((c) => c.slot));
      }),
    );
  });
});

const anyArrangement: fc.Arbitrary<Arrangement> = fc.oneof(
  fc.record({
    how: fc.constant('move' as const),
    at: fc.nat({ max: 149 }),
    room: fc.constantFrom(...ROOMS),
  }),
  fc.record({
    how: fc.constant('renumber' as const),
    start: fc.nat({ max: 149 }),
    step: fc.integer({ min: 1, max: 20 }),
  }),
  fc.record({ how: fc.constant('sort' as const), key: fc.constantFrom(...SORT_KEYS) }),
  fc.constant({ how: 'close gaps' as const }),
);

test('a preview that is given can be done, loses nothing, and keeps the order of those that are pushed', () => {
  fc.assert(
    fc.property(anyPlan, fc.array(fc.nat({ max: 30 })), anyArrangement, (p, picks, arrangement) => {
      const chosen = new Set(picks.flatMap((pick) => p.channels[pick]?.id ?? []));
      const moves = previewArrangement(p, chosen, arrangement, RANGE);
      if (!moves.ok) return;
      if (moves.value.length === 0) return;
      const result = applyEdit(p, { name: 'arrange', how: arrangement.how, moves: moves.value });
      expect(result.ok).toBe(true);
      if (!result.ok) return;
      const order = (channels: Plan['channels'], which: (id: ChannelId) => boolean) =>
        channels.map((c) => c.id).filter(which);
      expect(new Set(order(result.value.channels, () => true))).toEqual(
        new Set(order(p.channels, () => true)),
      );
      if (arrangement.how === 'move') {
        const others = (one: ChannelId) => !chosen.has(one);
        expect(order(result.value.channels, others)).toEqual(order(p.channels, others));
        const own = (one: ChannelId) => chosen.has(one);
        expect(order(result.value.channels, own)).toEqual(order(p.channels, own));
      }
    }),
    { numRuns: 500 },
  );
});

test('lists have slots of their own: what stands in another one is in nobody’s way, and stays where it is', () => {
  const other = { ...channel(90, 145_700_000), list: 1, slot: 2 };
  const p = { ...three, channels: [...three.channels, other] };
  // slots 1, 2 and 5 of the first list are taken: 0, 3 and 4 are next
  expect(previewPlacing(p.channels, 3, 'next-free', 0, RANGE).assigned.map(({ slot }) => slot)).toEqual([
    0, 3, 4,
  ]);
  expect(previewPlacing(p.channels, 3, 'next-free', 0, RANGE, 1).assigned.map(({ slot }) => slot)).toEqual([
    0, 1, 3,
  ]);
  const closed = previewArrangement(p, new Set(), { how: 'close gaps' }, RANGE);
  expect(closed.ok && closed.value.map((move) => [move.id, move.to])).toEqual([
    [id(1), 0],
    [id(2), 1],
    [id(5), 2],
  ]);
  expect(reorder(p, new Set([id(5)]), id(1)).map((move) => move.id)).not.toContain(other.id);
  expect(reorder(p, new Set([other.id]), null)).toEqual([]);
  const placed = run(p, { ...placing(11), list: 1, at: 2 } as Edit);
  expect(placed.channels.at(-1)).toMatchObject({ list: 1, slot: 3 });
});
