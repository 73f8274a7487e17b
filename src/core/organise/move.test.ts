import * as fc from '../property.test.kit';
import { fit } from '../fit';
import { MODELS, slotsOf } from '../models';
import { curlewX1 } from '../models/curlew-x1';
import { gannetM8 } from '../models/gannet-m8';
import { petrelHF9 } from '../models/petrel-hf9';
import { ternP2 } from '../models/tern-p2';
import { ternP3 } from '../models/tern-p3';
import { orderedChannels } from '../plan';
import { anyPlan, channel, id, plan, zoneId } from '../samples.test.kit';
import { byLoss, gainAndLoss, moveToModel, sideBySide } from '.';

const p = plan([
  channel(0, 145_500_000, { name: 'Calling', power: 4_000 }),
  channel(1, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500, power: 4_000 }),
  channel(2, 224_300_000, { name: 'Two and a quarter', tx: 222_700_000, power: 4_000 }),
  channel(3, 433_500_000, { name: 'Seventy', power: 4_000 }),
]);

test('a plan for a Tern P2 goes to a Gannet, 2 m left and 70 cm right', () => {
  const { plan: made, moved, leftOver } = moveToModel(p, gannetM8, { '2 m': 0, '70 cm': 1 });
  expect(made.modelId).toBe('gannet-m8');
  expect(leftOver).toEqual([]);
  // slots 1, 2 stay; slot 0 is not there and takes the next free one; 70 cm keeps its number on the other side
  expect(made.channels.map(({ name, list, slot }) => [name, list, slot])).toEqual([
    ['Ullsmere Hill', 0, 1],
    ['Two and a quarter', 0, 2],
    ['Calling', 0, 3],
    ['Seventy', 1, 3],
  ]);
  expect(moved).toEqual([
    { id: id(0), from: { list: 0, slot: 0 }, to: { list: 0, slot: 3 } },
    { id: id(3), from: { list: 0, slot: 3 }, to: { list: 1, slot: 3 } },
  ]);
});

test('what finds no room is left over, with all that names it', () => {
  const small = { ...ternP2, slots: { first: 1, count: 2 } };
  const zoned = { ...p, zones: [{ id: zoneId(1), name: 'All', members: p.channels.map((one) => one.id) }] };
  const { plan: made, leftOver } = moveToModel(zoned, small);
  expect(made.channels.map(({ slot }) => slot)).toEqual([1, 2]);
  expect(leftOver).toEqual([id(0), id(3)]);
  expect(made.leftOver.map(({ name }) => name)).toEqual(['Calling', 'Seventy']);
  expect(made.leftOver[0]).not.toHaveProperty('slot');
  expect(made.zones[0]!.members).toEqual([id(1), id(2)]);
});

test('home channels go to a radio that has homes, and to no other', () => {
  const home = { ...channel(9, 145_375_000, { name: 'Home' }), list: 2, slot: 1 };
  expect(moveToModel(plan([home]), gannetM8).plan.channels).toEqual([home]);
  expect(moveToModel(plan([home]), ternP3).leftOver).toEqual([home.id]);
});

test('any plan on any model: slots are the model’s, none twice, nothing lost but what is said', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan,
      fc.constantFrom(petrelHF9, ...MODELS.filter(({ id: of }) => of !== 'tern-p2')),
      (packed, model) => {
        // spread over more slots than most models have
        const made = { ...packed, channels: packed.channels.map((one) => ({ ...one, slot: one.slot * 3 })) };
        const { plan: there, moved, leftOver } = moveToModel(made, model);
        expect(typeof orderedChannels(there.channels)).toBe('object');
        for (const { list, slot } of there.channels) {
          const range = slotsOf(model, list)!;
          expect(slot >= range.first && slot < range.first + range.count).toBe(true);
        }
        expect([...there.channels, ...there.leftOver].map((one) => one.id).sort()).toEqual(
          [...made.channels, ...made.leftOver].map((one) => one.id).sort(),
        );
        expect(
          there.leftOver
            .slice(made.leftOver.length)
            .map((one) => one.id)
            .sort(),
        ).toEqual([...leftOver].sort());
        // on the way back only what was left over is missing
        const back = moveToModel(there, ternP2).plan;
        expect(new Set(back.channels.map(({ name, rx }) => `${rx} ${name}`))).toEqual(
          new Set(there.channels.map(({ name, rx }) => `${rx} ${name}`)),
        );
        reached.count('moved', moved.length > 0);
      },
    ),
  );
  reached.expectShare('moved', 0.2);
});

test('from one model to another and back only that is lost of which the lists said so', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anyPlan, fc.constantFrom(...MODELS), fc.constantFrom(...MODELS), (made, a, b) => {
      const onA = moveToModel(made, a).plan;
      const heldByA = fit(onA, a);
      const onB = moveToModel({ ...onA, channels: onA.channels }, b);
      const heldByB = fit(onB.plan, b);
      const said = new Set([
        ...onB.leftOver,
        ...heldByB.leftOut.map((one) => one.id),
        // what a display shows of a name takes nothing away from the plan
        ...heldByB.changes.filter(({ what }) => what !== 'name').map((one) => one.id),
        ...onB.moved.map((one) => one.id),
      ]);
      const again = fit(moveToModel(onB.plan, a).plan, a);
      const now = new Map(again.channels.map((one) => [one.id, one]));
      for (const one of heldByA.channels) {
        if (said.has(one.id)) continue;
        // names are told apart by their neighbours, of which some may have gone
        const { name: _, ...was } = one;
        expect(now.get(one.id)).toMatchObject(was);
      }
      reached.count(
        'kept',
        heldByA.channels.some((one) => !said.has(one.id)),
      );
    }),
    { numRuns: 200 },
  );
  reached.expectShare('kept', 0.4);
});

test('side by side: what each radio keeps of each channel, totals, gains and losses', () => {
  const { columns, rows } = sideBySide(
    p,
    [ternP2, ternP3, petrelHF9, curlewX1].map((model) => ({ model })),
  );
  expect(columns.map(({ whole, changed, leftOut }) => [whole, changed, leftOut])).toEqual([
    // names of six characters: Calling and Ullsmere Hill and Seventy are shortened
    [0, 3, 1],
    // slot 0 goes elsewhere, names of eight; 1.25 m is held
    [1, 3, 0],
    // 4 W is nearest to 5; 224 MHz is not received
    [0, 3, 1],
    [0, 3, 1],
  ]);
  expect(rows.map(({ lost }) => lost)).toEqual([0, 0, 3, 0]);
  expect(byLoss(rows)[0]!.channel.name).toBe('Two and a quarter');
  expect(gainAndLoss(rows, 0, 1)).toEqual({ gained: 1, lost: 0 });
  expect(gainAndLoss(rows, 1, 0)).toEqual({ gained: 0, lost: 1 });
  expect(rows[2]!.cells[0]).toEqual({
    how: 'left out',
    words: [
      {
        what: 'range',
        text: 'Left out',
        because: 'this radio does not tune there',
        todo: 'Keep it for another radio, or take it out.',
      },
    ],
  });
});

test('against a unit: what of the plan is in it already, what stands otherwise, what is not there yet', () => {
  const held = fit(p, ternP2).channels;
  // Calling is there, Ullsmere Hill was renamed since, of the rest nothing
  const [calling, ullsmere] = held;
  const channels = [calling!, { ...ullsmere!, name: 'OLD' }];
  const unit = { id: 'rd_test0001', called: 'LK204417', channels };
  const { columns, rows } = sideBySide(p, [{ model: ternP2, unit }, { model: ternP2 }]);
  expect(columns[0]).toMatchObject({
    key: 'rd_test0001',
    unit: { called: 'LK204417', there: 1, otherwise: 1, missing: 1 },
  });
  expect(columns[1]).toMatchObject({ key: 'tern-p2', unit: null });
  // what the model changes is said all the same, and what is left out is not in any unit
  const inUnit = rows.map(({ cells }) => cells[0]!.words.map(({ what }) => what));
  expect(inUnit).toEqual(
    rows.map(({ cells }, at) => [
      ...cells[1]!.words.map(({ what }) => what),
      ...[[], ['otherwise'], [], ['not yet']][at]!,
    ]),
  );
  expect(rows[1]!.cells[0]!.words.at(-1)!.because).toBe('its slot has “OLD” by the newest copy');
});

test('a slot that another radio has not free is said with the side to which the channel goes', () => {
  const two = plan([
    channel(1, 145_500_000, { name: 'Left one' }),
    { ...channel(1, 433_500_000, { name: 'Right one' }), id: id(101), list: 1 },
    { ...channel(2, 433_525_000, { name: 'Right two' }), id: id(102), list: 1 },
  ]);
  const said = (p: typeof two, model: typeof ternP2) =>
    sideBySide(p, [{ model }]).rows.map(({ cells }) =>
      cells[0]!.words.filter(({ what }) => what === 'slot').map(({ text }) => text),
    );
  // the P3 has one list: the right side's 1 is taken there, its 2 is free
  expect(said(two, ternP3)).toEqual([[], ['Goes to 003'], ['Goes to 002']]);
  // the Gannet has both; a channel of slot 0 stays on its side
  const zero = plan([channel(0, 145_500_000), channel(1, 145_525_000)]);
  expect(said(zero, gannetM8)).toEqual([['Slot 000 becomes 002'], []]);
});

test('the channels of the other plan stand by list and slot, wherever they came from', () => {
  const { plan: made } = moveToModel(p, gannetM8, { '2 m': 1, '70 cm': 0 });
  expect(made.channels.map(({ name, list, slot }) => [name, list, slot])).toEqual([
    ['Two and a quarter', 0, 2],
    ['Seventy', 0, 3],
    ['Ullsmere Hill', 1, 1],
    ['Calling', 1, 2],
  ]);
});

test('side by side says where there is no room, and where home channels have no place', () => {
  const few = { ...ternP2, slots: { first: 0, count: 3 } };
  const home = { ...channel(1, 145_375_000, { name: 'Home' }), id: id(200), list: 2 };
  const cells = sideBySide({ ...p, channels: [...p.channels, home] }, [{ model: few }]).rows.map(
    ({ channel: { name }, cells: [cell] }) => [name, cell!.how, cell!.words.map(({ because }) => because)],
  );
  expect(cells.slice(3)).toEqual([
    ['Seventy', 'left out', ['there is no room for it']],
    ['Home', 'left out', ['this radio has no home channels']],
  ]);
});

test('from a slot on, into a bank of their own; home channels stay at home', () => {
  const home = { ...channel(1, 145_375_000, { name: 'Home' }), id: id(200), list: 2 };
  const before = {
    ...p,
    channels: [...p.channels, home],
    zones: [{ id: zoneId(1), name: 'Day 1', members: [id(0)] }],
  };
  const bank = { id: zoneId(9), name: 'From the P2' };
  const {
    plan: made,
    moved,
    leftOver,
  } = moveToModel(before, gannetM8, { '2 m': 0, '70 cm': 1 }, { from: 20, bank });
  expect(made.channels.map(({ name, list, slot }) => [name, list, slot])).toEqual([
    ['Calling', 0, 20],
    ['Ullsmere Hill', 0, 21],
    ['Two and a quarter', 0, 22],
    ['Seventy', 1, 20],
    ['Home', 2, 1],
  ]);
  expect([moved.length, leftOver]).toEqual([4, []]);
  expect(made.zones).toEqual([
    { id: zoneId(1), name: 'Day 1', members: [id(0)] },
    { ...bank, members: [id(0), id(1), id(2), id(3)] },
  ]);
  // past the end there is no room, and a radio without banks makes none
  expect(moveToModel(before, gannetM8, { '2 m': 0 }, { from: 399 }).leftOver).toHaveLength(2);
  expect(moveToModel(p, ternP3, {}, { bank }).plan.zones).toEqual([]);
});

test('what stands beside the channels is told of once, with how often', () => {
  const zones = [1, 2, 3].map((n) => ({ id: zoneId(n), name: `Day ${n}`, members: [] }));
  const [p2, gannet] = sideBySide({ ...p, zones }, [{ model: ternP2 }, { model: gannetM8 }]).columns;
  expect(p2!.besides).toEqual([{ text: 'Left out', because: 'This radio has no zones', n: 3 }]);
  expect(gannet!.besides).toEqual([]);
});

test('of as much that is lost, those that change in more radios come first; else as in the plan', () => {
  const { rows } = sideBySide(p, [{ model: ternP3 }, { model: ternP2 }]);
  // 1.25 m is lost on the P2; on the P3 it is held whole, the others are changed on both
  expect(byLoss(rows).map(({ channel: { name } }) => name)).toEqual([
    'Two and a quarter',
    'Calling',
    'Ullsmere Hill',
    'Seventy',
  ]);
  const changed = rows.map(({ cells }) => cells.filter(({ how }) => how === 'changed').length);
  expect(changed).toEqual([2, 2, 1, 1]);
});
