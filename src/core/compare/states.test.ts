import * as fc from '../property.test.kit';
import { anyPlan, channel, id, plan, renaming, run, three } from '../samples.test.kit';
import { anyEditOn } from '../plan/edit.test.kit';
import { applyEdit, type Plan } from '../plan';
import { compareStates, takeBack } from '.';

const now = plan([
  channel(1, 145_500_000, { name: 'Calling', mode: 'NFM', tags: ['net'] }),
  channel(3, 145_700_000, { name: '' }),
  channel(7, 162_400_000, { name: 'Weather', tx: null }),
]);
// Of `three`: 2 went, 3 came, and what was in slot 5 is another one.
const then: Plan = { ...three, zones: [] };

test('what came, what went, and what is another one cell by cell', () =>
  expect(compareStates(then, { ...now, name: 'Regatta' })).toEqual({
    channels: [
      {
        id: id(1),
        what: 'changed',
        name: 'Calling',
        slot: 1,
        fields: [
          { field: 'mode', then: 'FM', now: 'NFM' },
          { field: 'tags', then: '', now: 'net' },
        ],
      },
      { id: id(2), what: 'removed', name: 'Ullsmere Hill', slot: 2, fields: [] },
      { id: id(3), what: 'added', name: '145.700', slot: 3, fields: [] },
      { id: id(5), what: 'removed', name: 'Weather', slot: 5, fields: [] },
      { id: id(7), what: 'added', name: 'Weather', slot: 7, fields: [] },
    ],
    besides: ['The plan was called “Test plan”'],
  }));

test('what it used, and at which revision', () => {
  const using = (...uses: [string, number][]): Plan => ({
    ...now,
    uses: uses.map(([document, revision]) => ({ document, revision })),
  });
  expect(
    compareStates(
      using(['pt_harbour', 3], ['pt_hills', 1], ['pt_same', 2]),
      using(['pt_same', 2], ['pt_harbour', 4], ['pt_new', 1]),
    ).besides,
  ).toEqual(['It used pt_harbour at revision 3', 'It used pt_hills at revision 1', 'It did not use pt_new']);
});

test('one channel taken back leaves all else', () => {
  const back = (one: number, of: Plan = now) =>
    run(of, takeBack(then, of, id(one), 'before the regatta')).channels;
  expect(back(1)[0]).toEqual(then.channels[0]);
  expect(back(1).slice(1)).toEqual(now.channels.slice(1));
  expect(back(2).map(({ slot, name }) => [slot, name])).toEqual([
    [1, 'Calling'],
    [2, 'Ullsmere Hill'],
    [3, ''],
    [7, 'Weather'],
  ]);
  expect(back(3).map(({ slot }) => slot)).toEqual([1, 7]);
  // Its slot is somebody else's now: it comes to the next that is free.
  const taken = run(now, { name: 'arrange', how: 'move', moves: [{ id: id(3), from: 3, to: 2 }] });
  expect(back(2, taken).map(({ slot, name }) => [slot, name])).toEqual([
    [1, 'Calling'],
    [2, ''],
    [3, 'Ullsmere Hill'],
    [7, 'Weather'],
  ]);
  // It moved away, and somebody else took its place: it keeps the slot that it has.
  const moved = run(then, {
    name: 'arrange',
    how: 'swap',
    moves: [
      { id: id(1), from: 1, to: 2 },
      { id: id(2), from: 2, to: 1 },
    ],
  });
  const renamed = run(moved, renaming(1, 'Other'));
  expect(back(1, renamed).find((one) => one.id === id(1))).toEqual({ ...then.channels[0], slot: 2 });
});

test('one that waits left over comes back from there', () => {
  const { slot: _, list: _list, ...fields } = then.channels[1]!;
  const waiting = { ...then, channels: [then.channels[0]!, then.channels[2]!], leftOver: [fields] };
  const back = run(waiting, takeBack(then, waiting, id(2), 'today'));
  expect(back.channels).toEqual(then.channels);
  expect(back.leftOver).toEqual([]);
});

test('whatever was done, every channel can be taken back, one after the other, and then nothing of them differs but slots', () => {
  let some = 0;
  fc.assert(
    fc.property(
      anyPlan.chain((start) =>
        fc.tuple(fc.constant(start), fc.array(anyEditOn(start), { minLength: 1, maxLength: 6 })),
      ),
      ([start, edits]) => {
        let plan: Plan = start;
        for (const edit of edits) {
          const result = applyEdit(plan, edit);
          if (result.ok) plan = result.value;
        }
        const { channels } = compareStates(start, plan);
        if (channels.length > 1) some++;
        for (const { id: one } of channels) {
          const result = applyEdit(plan, takeBack(start, plan, one, 'then'));
          if (!result.ok) throw new Error(result.reason);
          plan = result.value;
        }
        expect(plan.channels.map(({ id: one }) => one).sort()).toEqual(
          start.channels.map(({ id: one }) => one).sort(),
        );
        for (const { what, fields } of compareStates(start, plan).channels) {
          expect(what).toBe('changed');
          expect(fields.map(({ field }) => field)).toEqual(['slot']);
        }
      },
    ),
    { numRuns: 200 },
  );
  fc.expectReached('some', some, 41);
});
