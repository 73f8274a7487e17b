import fc from 'fast-check';
import { ternP3 } from '../models/tern-p3';
import { applyEdit, type Plan } from '../plan';
import { anyEditOn } from '../plan/edit.test.kit';
import { anyPlan, channel, id, plan, renaming, run, tally } from '../samples.test.kit';
import { offersOf, ownDifferences } from '.';

const base = plan([
  channel(1, 145_500_000, { name: 'Calling' }),
  channel(2, 145_612_500, { name: 'Ullsmere', tx: 145_012_500 }),
  channel(3, 433_500_000, { name: 'Seventy' }),
]);
/** The plan that was made of it: in other slots, one channel with a name of its own. */
const own: Plan = {
  ...run(base, renaming(3, 'Mine')),
  id: 'pl_own00001' as Plan['id'],
};
const offers = (source: Plan, mine: Plan = own) =>
  offersOf(base, source, mine, ternP3).map(({ name, what, text, clash }) => [name, what, text, clash]);

test('a change there is offered here; what was changed here too is said', () => {
  expect(offers(base)).toEqual([]);
  expect(offers(run(base, renaming(1, 'Calling 2 m')))).toEqual([['Calling 2 m', 'changed', 'name', false]]);
  expect(offers(run(base, renaming(3, 'Theirs')))).toEqual([['Theirs', 'changed', 'name', true]]);
  // the same on both sides is nothing to offer
  expect(offers(run(base, renaming(3, 'Mine')))).toEqual([]);
  const moved = run(base, {
    name: 'change',
    changes: [{ id: id(2), set: { tx: 145_000_000, txFixed: true } }],
  });
  expect(offers(moved)).toEqual([['Ullsmere', 'changed', 'transmit', false]]);
});

test('an added channel goes to the next free slot, a removed one is offered to be removed', () => {
  const { slot: _, list: _list, ...fields } = channel(9, 145_525_000, { name: 'New' });
  const more = run(base, {
    name: 'place',
    channels: [fields],
    placement: 'next-free',
    at: 0,
    range: { first: 0, count: 150 },
  });
  const [offer] = offersOf(base, more, own, ternP3);
  expect(offer).toMatchObject({ what: 'added', name: 'New' });
  expect(run(own, offer!.edit).channels.find(({ name }) => name === 'New')).toMatchObject({
    slot: 4,
    list: 0,
  });
  expect(offers(run(base, { name: 'remove', ids: [id(1), id(3)] }))).toEqual([
    ['Calling', 'removed', 'removed there', false],
    ['Mine', 'removed', 'removed there', true],
  ]);
});

test('its own differences: changed, only here, left out', () => {
  const mine = run(own, { name: 'remove', ids: [id(1)] });
  expect(ownDifferences(base, mine)).toEqual([
    { id: id(3), name: 'Mine', text: 'name' },
    { id: id(1), name: 'Calling', text: 'left out here' },
  ]);
  expect(ownDifferences(run(base, { name: 'remove', ids: [id(2)] }), own)).toContainEqual({
    id: id(2),
    name: 'Ullsmere',
    text: 'only here',
  });
});

test('who takes every offer has nothing more to take, whatever was done on either side', () => {
  const reached = tally();
  fc.assert(
    fc.property(
      anyPlan,
      fc.array(fc.tuple(fc.integer(), fc.boolean()), { minLength: 6, maxLength: 10 }),
      (first, luck) => {
        let [source, mine] = [first, first];
        for (const [seed, here] of luck) {
          const [edit] = fc.sample(anyEditOn(here ? mine : source), { numRuns: 1, seed });
          const result = applyEdit(here ? mine : source, edit!);
          if (!result.ok) continue;
          if (here) mine = result.value;
          else source = result.value;
        }
        const all = offersOf(first, source, mine, ternP3);
        let took = 0;
        for (const { edit } of all) {
          const result = applyEdit(mine, edit);
          // a transmit side that the carried shift would make unusable, a full list: it is refused whole
          if (!result.ok) continue;
          mine = result.value;
          took++;
        }
        const left = offersOf(first, source, mine, ternP3);
        expect(left.length).toBeLessThanOrEqual(all.length - took);
        reached.count('offered', all.length > 0);
        reached.count('taken', took > 0);
      },
    ),
    { numRuns: 200 },
  );
  expect(reached.share('offered')).toBeGreaterThan(0.4);
  expect(reached.share('taken')).toBeGreaterThan(0.4);
});
