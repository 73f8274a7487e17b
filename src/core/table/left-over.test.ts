import * as fc from '../property.test.kit';
import { anyPlan, channel, id, plan, run, RANGE } from '../samples.test.kit';
import { applyEdit, inverseOf, PLACEMENTS, type ChannelId, type Plan } from '../plan';
import {
  leaveOver,
  placeLeftOver,
  placeWhatFits,
  previewRearranging,
  rearranging,
  type Rearrangement,
} from '.';

const SMALL = { first: 1, count: 4 };
const four = plan([1, 2, 3, 4].map((slot) => channel(slot, 145_500_000 + slot * 12_500)));
const standing = (p: Plan) => p.channels.map(({ id: one, slot }) => [slot, Number(one.slice(-4))]);
const over = (p: Plan) => p.leftOver.map(({ id: one }) => Number(one.slice(-4)));
const set = (...n: number[]) => new Set(n.map(id));
const fresh = (n: number) => {
  const { slot: _, list: _list, ...fields } = channel(n, 146_000_000);
  return fields;
};

test('left over, a channel keeps everything but its slot, and comes back with all of it', () => {
  const zones = [
    { id: 'zn_test0001' as Plan['zones'][number]['id'], name: 'Hills', members: [id(2), id(3)] },
  ];
  const p = run({ ...four, zones }, leaveOver({ ...four, zones }, set(2, 4)));
  expect(standing(p)).toEqual([
    [1, 1],
    [3, 3],
  ]);
  expect(over(p)).toEqual([2, 4]);
  expect(p.zones[0]!.members).toEqual([id(3)]);
  const back = placeLeftOver(p, set(4), { placement: 'next-free', at: 1, range: SMALL, list: 0 });
  if (!back.ok) throw new Error(back.reason);
  const then = run(p, back.value.edit);
  expect(standing(then)).toEqual([
    [1, 1],
    [2, 4],
    [3, 3],
  ]);
  expect(over(then)).toEqual([2]);
  expect({ ...then.channels[1], slot: 4 }).toEqual(four.channels[3]);
  expect(placeLeftOver(four, set(9), { placement: 'next-free', at: 1, range: SMALL, list: 0 }).ok).toBe(
    false,
  );
});

test('what finds no slot is left over, and so is what is overwritten', () => {
  const wanted = { placement: 'next-free' as const, at: 1, range: { first: 1, count: 5 }, list: 0 };
  const { edit, placed, over: rest } = placeWhatFits(four, [fresh(5), fresh(6), fresh(7)], wanted);
  expect([placed, rest]).toEqual([1, 2]);
  const p = run(four, edit);
  expect(standing(p)).toEqual([
    [1, 1],
    [2, 2],
    [3, 3],
    [4, 4],
    [5, 5],
  ]);
  expect(over(p)).toEqual([6, 7]);
  const written = run(
    four,
    placeWhatFits(four, [fresh(5)], { ...wanted, placement: 'overwrite', at: 3 }).edit,
  );
  expect(standing(written)).toEqual([
    [1, 1],
    [2, 2],
    [3, 5],
    [4, 4],
  ]);
  expect(over(written)).toEqual([3]);
  // Nothing at all fits: the edit is only what waits.
  expect(over(run(four, placeWhatFits(four, [fresh(5)], { ...wanted, range: SMALL }).edit))).toEqual([5]);
});

const NO_ROOM = 'There is no room there. Choose another slot, or another way.';

describe('arranging', () => {
  const done = (chosen: number[], wish: Rearrangement) => {
    const preview = previewRearranging(four, set(...chosen), wish, SMALL);
    if (!preview.ok) return preview.reason;
    const edit = rearranging(four, wish.how, preview.value);
    const p = edit ? run(four, edit) : four;
    return [standing(p), over(p)];
  };
  test.each([
    // 1 and 2 numbered 3, 5: 5 is past the end, and 3 is taken by one that stays
    [
      [1, 2],
      { how: 'renumber', start: 3, step: 2 },
      'Slot 3 is taken by “Station 3”. Choose it too, or other numbers.',
    ],
    [
      [1, 2, 3, 4],
      { how: 'renumber', start: 2, step: 1 },
      [
        [
          [2, 1],
          [3, 2],
          [4, 3],
        ],
        [4],
      ],
    ],
    [[1, 2], { how: 'renumber', start: 9, step: 1 }, 'Slot 9 is past the last one, 4.'],
    [
      [1, 2],
      { how: 'move', at: 4, room: 'overwrite' },
      [
        [
          [3, 3],
          [4, 1],
        ],
        [2, 4],
      ],
    ],
    [[1], { how: 'move', at: 4, room: 'push-down' }, NO_ROOM],
    [
      [4],
      { how: 'move', at: 1, room: 'push-down' },
      [
        [
          [1, 4],
          [2, 1],
          [3, 2],
          [4, 3],
        ],
        [],
      ],
    ],
    [[1], { how: 'move', at: 4, room: 'at-slot' }, NO_ROOM],
  ] as [number[], Rearrangement, unknown][])('%j %j', (chosen, wish, wanted) =>
    expect(done(chosen, wish)).toEqual(wanted),
  );
});

test('no slot operation loses a channel or doubles one, and undo leads back', () => {
  const wish: fc.Arbitrary<Rearrangement> = fc.oneof(
    fc.record({
      how: fc.constant('move' as const),
      at: fc.nat({ max: 99 }),
      room: fc.constantFrom(...PLACEMENTS),
    }) as fc.Arbitrary<Rearrangement>,
    fc.record({
      how: fc.constant('renumber' as const),
      start: fc.nat({ max: 99 }),
      step: fc.integer({ min: 1, max: 3 }),
    }),
    fc.constant({ how: 'close gaps' as const }),
    fc.record({ how: fc.constant('sort' as const), key: fc.constantFrom('name' as const, 'rx' as const) }),
  );
  const reached = fc.tally();
  const everyone = (p: Plan) => [...p.channels, ...p.leftOver].map(({ id: one }) => one).sort();
  fc.assert(
    fc.property(anyPlan, fc.infiniteStream(fc.boolean()), wish, (sparse, picks, asked) => {
      // Close together, with a gap now and then: there is something in the way wherever somebody goes.
      const own = sparse.channels
        .filter(({ list }) => list === 0)
        .map((one, at) => ({ ...one, slot: at + Math.floor(at / 4) }));
      const any = { ...sparse, channels: own, zones: [], skipSets: [], setUps: [] };
      const chosen = new Set<ChannelId>(own.filter(() => picks.next().value).map(({ id: one }) => one));
      const last = own.at(-1)?.slot ?? 0;
      // Slots are asked for by hundredths of the list: near those that are taken.
      const near = (hundredth: number) => Math.floor((hundredth * (last + 2)) / 100);
      const how =
        asked.how === 'move'
          ? { ...asked, at: near(asked.at) }
          : asked.how === 'renumber'
            ? { ...asked, start: near(asked.start) }
            : asked;
      const range = { first: 0, count: Math.max(last + 1, 1) };
      const preview = previewRearranging(any, chosen, how, range);
      const edit = preview.ok ? rearranging(any, how.how, preview.value) : null;
      if (!edit) return;
      const result = applyEdit(any, edit);
      if (!result.ok) throw new Error(result.reason);
      reached.count('done');
      if (result.value.leftOver.length > 0) reached.count('over');
      expect(everyone(result.value)).toEqual(everyone(any));
      for (const { slot } of result.value.channels.filter(({ list }) => list === 0))
        expect(slot).toBeLessThanOrEqual(Math.max(last, RANGE.first));
      const back = applyEdit(result.value, inverseOf(any, result.value));
      expect(back.ok && back.value).toEqual(any);
    }),
    { numRuns: 1000 },
  );
  reached.expectTimes('done', 151);
  reached.expectTimes('over', 41);
});
