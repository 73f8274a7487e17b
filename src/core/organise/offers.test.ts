import * as fc from '../property.test.kit';
import { ternP3 } from '../models/tern-p3';
import { applyEdit, type ChannelId, type Edit, type Plan } from '../plan';
import { anyEditOn } from '../plan/edit.test.kit';
import { anyPlan, channel, id, plan, renaming, run, zoneId } from '../samples.test.kit';
import { MOST_OFFERS, offersOf, ownDifferences, type Offer } from '.';

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
  offersOf(base, source, mine, ternP3).offers.map(({ name, what, text, clash }) => [name, what, text, clash]);

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
  const [offer] = offersOf(base, more, own, ternP3).offers;
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

test('a zone comes along with the channels that are new in it, and without those that were left out here', () => {
  const zoned = run(base, {
    name: 'put',
    kind: 'zone',
    records: [{ id: zoneId(1), name: 'Day 1', members: [id(1), id(2)] }],
    before: null,
  });
  // made of it without channel 1
  const mine = run(zoned, { name: 'remove', ids: [id(1)] });
  expect(offersOf(zoned, zoned, mine, ternP3)).toEqual({ offers: [], groups: [], all: null, more: 0 });
  const { slot: _, list: _list, ...fields } = channel(9, 145_525_000, { name: 'New' });
  const range = { first: 0, count: 150 };
  const more = run(run(zoned, { name: 'place', channels: [fields], placement: 'next-free', at: 0, range }), {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zoneId(1), set: { members: [id(1), id(2), id(9)] } }],
  });
  const { offers: said, all } = offersOf(zoned, more, mine, ternP3);
  expect(said.map(({ kind, what, text, clash }) => [kind, what, text, clash])).toEqual([
    ['channel', 'added', 'new there', false],
    ['zone', 'changed', 'channels', false],
  ]);
  const { groups } = offersOf(zoned, more, mine, ternP3);
  expect(groups.map(({ kind, ids }) => [kind, ids])).toEqual([
    ['channel', [id(9)]],
    ['zone', [zoneId(1)]],
  ]);
  // the zone alone brings its new channel along; all at once is the same
  for (const edit of [said[1]!.edit, all!]) {
    const took = run(mine, edit);
    expect(took.zones[0]!.members).toEqual([id(2), id(9)]);
    expect(took.channels.map(({ name }) => name)).toContain('New');
    expect(offersOf(zoned, more, took, ternP3)).toEqual({ offers: [], groups: [], all: null, more: 0 });
  }
  // in a zone that was changed here too it would overwrite that
  const both = run(mine, {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zoneId(1), set: { members: [id(2), id(3)] } }],
  });
  expect(offersOf(zoned, more, both, ternP3).offers[1]).toMatchObject({ kind: 'zone', clash: true });
});

test('what was removed there is offered by itself: the zone that it was in is not changed for it', () => {
  const members = [id(1), id(2), id(3)];
  const zoned = run(base, {
    name: 'put',
    kind: 'zone',
    records: [{ id: zoneId(1), name: 'Day 1', members }],
    before: null,
  });
  const without = run(zoned, { name: 'remove', ids: [id(2)] });
  expect(offersOf(zoned, without, zoned, ternP3).offers.map(({ kind, what }) => [kind, what])).toEqual([
    ['channel', 'removed'],
  ]);
  // changed besides, it keeps here what is here still
  const more = run(without, {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zoneId(1), set: { members: [id(3), id(1)] } }],
  });
  const { offers: said, all } = offersOf(zoned, more, zoned, ternP3);
  expect(run(zoned, said[1]!.edit).zones[0]!.members).toEqual([id(3), id(1), id(2)]);
  expect(run(zoned, all!).zones[0]!.members).toEqual([id(3), id(1)]);
  const up = offersOf(zoned, more, zoned, ternP3, { removals: false }).all!;
  expect(run(zoned, up).zones[0]!.members).toEqual([id(3), id(1), id(2)]);
});

test('a channel that was taken out of a zone there, and is in the plan still, is a change of the zone', () => {
  const zone = (members: ChannelId[]): Edit => ({
    name: 'change',
    kind: 'zone',
    changes: [{ id: zoneId(1), set: { members } }],
  });
  const records = [{ id: zoneId(1), name: 'Day 1', members: [id(1), id(2), id(3)] }];
  const zoned = run(base, { name: 'put', kind: 'zone', records, before: null });
  const less = run(zoned, zone([id(1), id(3)]));
  const { offers: said } = offersOf(zoned, less, zoned, ternP3);
  expect(said).toMatchObject([{ kind: 'zone', what: 'changed', text: 'channels', clash: false }]);
  expect(run(zoned, said[0]!.edit)).toEqual(less);
});

test('all at once is one edit: nothing that clashes, and of a plan made of this one nothing that was removed', () => {
  const changed = run(run(run(base, renaming(1, 'Calling 2 m')), renaming(3, 'Theirs')), {
    name: 'remove',
    ids: [id(2)],
  });
  const down = offersOf(base, changed, own, ternP3).all!;
  expect(down).toMatchObject({ name: 'together', label: `Take 2 changes of “${base.name}”` });
  expect(run(own, down).channels.map(({ name }) => name)).toEqual(['Calling 2 m', 'Mine']);
  const up = offersOf(base, changed, own, ternP3, { removals: false });
  expect(run(own, up.all!).channels.map(({ name }) => name)).toEqual(['Calling 2 m', 'Ullsmere', 'Mine']);
  expect(up.offers.filter(({ what }) => what === 'removed')).toHaveLength(1);
});

test('a full list takes what it has room for, and nothing refers to what stayed behind', () => {
  const few = { ...ternP3, slots: { first: 1, count: 4 } };
  const { slot: _, list: _list, ...fields } = channel(8, 145_525_000, { name: 'New' });
  const range = { first: 0, count: 150 };
  const three = [8, 9, 10].map((n) => ({ ...fields, id: id(n) }));
  const more = run(run(base, { name: 'place', channels: three, placement: 'next-free', at: 0, range }), {
    name: 'put',
    kind: 'zone',
    records: [{ id: zoneId(1), name: 'Z', members: [id(8), id(10)] }],
    before: null,
  });
  // slots 1, 2 and 3 are taken: one is free
  const took = run(own, offersOf(base, more, own, few).all!);
  expect(took.channels.map((one) => one.id)).toEqual([id(1), id(2), id(3), id(8)]);
  expect(took.zones[0]!.members).toEqual([id(8)]);
});

test('its own differences: changed, only here, left out', () => {
  const mine = run(own, { name: 'remove', ids: [id(1)] });
  expect(ownDifferences(base, mine)).toEqual([
    { id: id(3), name: 'Mine', text: 'name' },
    { id: id(1), name: 'Calling', text: 'left out here' },
  ]);
  const elsewhere = run(own, {
    name: 'arrange',
    how: 'move',
    moves: [{ id: id(1), from: 1, to: 40 }],
  });
  const hers = { ...elsewhere, owner: { ...elsewhere.owner, callSign: 'Q8XYZ' } };
  expect(ownDifferences(base, hers)).toEqual([
    { id: 'call sign', name: 'Call sign', text: `Q8XYZ, there ${base.owner.callSign}` },
    { id: 'slots', name: 'Slots', text: '1 channel has another' },
    { id: id(3), name: 'Mine', text: 'name' },
  ]);
  expect(ownDifferences(run(base, { name: 'remove', ids: [id(2)] }), own)).toContainEqual({
    id: id(2),
    name: 'Ullsmere',
    text: 'only here',
  });
});

test('of very many so many are offered at once, and the others when those are taken', () => {
  const many = plan(Array.from({ length: MOST_OFFERS + 30 }, (_, n) => channel(n, 145_500_000 + n * 100)));
  const source = run(many, {
    name: 'change',
    changes: many.channels.map((one) => ({ id: one.id, set: { note: 'Heard' } })),
  });
  const first = offersOf(many, source, many, ternP3);
  expect([first.offers.length, first.more]).toEqual([MOST_OFFERS, 30]);
  // alike but for the channel they are one group, taken at once
  expect(first.groups).toMatchObject([{ kind: 'channel', what: 'changed', text: 'note', clash: false }]);
  expect(first.groups[0]!.ids).toHaveLength(MOST_OFFERS);
  expect(run(many, first.groups[0]!.edit)).toEqual(run(many, first.all!));
  const second = offersOf(many, source, run(many, first.all!), ternP3);
  expect([second.offers.length, second.more]).toEqual([30, 0]);
});

test('who takes every offer has nothing more to take, whatever was done on either side', () => {
  const reached = fc.tally();
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
        const { offers: all, all: asOne } = offersOf(first, source, mine, ternP3);
        // Taken at once: what does not clash is there, and offered no more.
        const room = mine.channels.length + source.channels.length < 150;
        if (asOne && room) {
          const result = applyEdit(mine, asOne);
          reached.count('taken at once', result.ok);
          if (result.ok) {
            const key = ({ kind, id: of }: Offer) => `${kind} ${of}`;
            const taken = new Set(all.filter(({ clash }) => !clash).map(key));
            const again = offersOf(first, source, result.value, ternP3).offers;
            expect(again.filter((one) => taken.has(key(one)))).toEqual([]);
          }
        }
        let took = 0;
        for (const { edit } of all) {
          const result = applyEdit(mine, edit);
          // a transmit side that the carried shift would make unusable, a full list: it is refused whole
          if (!result.ok) continue;
          mine = result.value;
          took++;
        }
        const left = offersOf(first, source, mine, ternP3).offers;
        expect(left.length).toBeLessThanOrEqual(all.length - took);
        reached.count('offered', all.length > 0);
        reached.count(
          'zones among them',
          all.some(({ kind }) => kind === 'zone'),
        );
        reached.count('taken', took > 0);
      },
    ),
    { numRuns: 200 },
  );
  reached.expectShare('offered', 0.4);
  reached.expectShare('taken', 0.4);
  reached.expectShare('zones among them', 0.2);
  reached.expectShare('taken at once', 0.9);
});
