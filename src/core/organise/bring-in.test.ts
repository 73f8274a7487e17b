import * as fc from '../property.test.kit';
import { fit } from '../fit';
import { gannetM8 } from '../models/gannet-m8';
import { ternP2 } from '../models/tern-p2';
import { ternP3 } from '../models/tern-p3';
import { editSchema, type Edit, type Plan } from '../plan';
import { anyPlan, channel, id, plan, run, zoneId } from '../samples.test.kit';
import { bringIn } from '.';

/** A bought or a friend's list, put into one's own radio. */

let n = 0;
const newId = { channel: () => id(3000 + ++n), zone: () => zoneId(3000 + ++n) };
const after = (own: Plan, edit: Edit | null) => (edit ? run(own, edit) : own);
const list = plan([
  channel(1, 145_500_000, { name: 'Calling' }),
  channel(2, 224_300_000, { name: 'Two and a quarter', tx: 222_700_000 }),
  channel(3, 433_500_000, { name: 'Seventy' }),
  channel(4, 439_000_000, { name: 'Digital', mode: 'DMR' }),
]);
const mine = plan([
  channel(1, 145_500_000, { name: 'Mine, the same' }),
  channel(7, 145_525_000, { name: 'Mine' }),
]);

test('a list for three bands goes into a radio that has two of them; the rest is listed', () => {
  const { edit, goes, left } = bringIn(mine, list, ternP2, { clear: false, from: 1, sides: {} }, newId);
  expect(goes).toEqual([{ name: 'Seventy', list: 0, slot: 2 }]);
  expect(left).toEqual([
    { name: 'Calling', because: 'it is there already' },
    { name: 'Two and a quarter', because: 'this radio does not tune there' },
    { name: 'Digital', because: 'this radio lacks the mode' },
  ]);
  expect(after(mine, edit).channels.map(({ name, slot }) => [name, slot])).toEqual([
    ['Mine, the same', 1],
    ['Seventy', 2],
    ['Mine', 7],
  ]);
});

test('one’s own go first where that is wished; slots are counted from there', () => {
  const { edit, goes } = bringIn(mine, list, ternP3, { clear: true, from: 10, sides: {} }, newId);
  expect(goes.map(({ slot }) => slot)).toEqual([10, 11, 12]);
  expect(after(mine, edit).channels.map(({ name }) => name)).toEqual([
    'Calling',
    'Two and a quarter',
    'Seventy',
  ]);
});

test('bands go to their sides, zones come along, home channels stay', () => {
  const zoned = {
    ...list,
    zones: [{ id: zoneId(1), name: 'All', members: list.channels.map((one) => one.id) }],
  };
  const own = {
    ...mine,
    channels: [...mine.channels, { ...channel(8, 145_375_000, { name: 'Home' }), list: 2, slot: 1 }],
  };
  const wish = { clear: true, from: 1, sides: { '2 m': 0, '70 cm': 1 } };
  const made = after(own, bringIn(own, zoned, gannetM8, wish, newId).edit);
  expect(made.channels.map(({ name, list: on, slot }) => [name, on, slot])).toEqual([
    ['Calling', 0, 1],
    ['Seventy', 1, 1],
    ['Home', 2, 1],
  ]);
  expect(made.zones.map(({ name, members }) => [name, members.length])).toEqual([['All', 2]]);
});

test('whatever comes in is held, and nothing is forgotten', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan,
      anyPlan,
      fc.boolean(),
      fc.constantFrom(ternP2, ternP3, gannetM8),
      (own, source, clear, model) => {
        const { edit, goes, left } = bringIn(own, source, model, { clear, from: 1, sides: {} }, newId);
        expect(goes.length + left.length).toBe(source.channels.length);
        const made = after(own, edit);
        const held = fit(made, model);
        const brought = made.channels.filter(({ id: of }) => Number(of.slice(-4)) > 3000 || of.length > 11);
        const out = new Set(held.leftOut.map((one) => one.id));
        expect(brought.filter((one) => out.has(one.id))).toEqual([]);
        // where nothing can come in, one's own stay
        expect(edit !== null).toBe(goes.length > 0);
        if (clear && edit) expect(made.channels).toHaveLength(goes.length);
        if (edit) expect(editSchema.safeParse(edit).error).toBeUndefined();
        reached.count('goes', goes.length > 0);
      },
    ),
  );
  reached.expectShare('goes', 0.6);
});
