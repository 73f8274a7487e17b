import * as fc from '../property.test.kit';
import { contentToWrite } from '../check';
import { decodeImage, encodeImage, type UnitValues } from '../image';
import type { FittedChannel } from '../models';
import { petrelHF9 } from '../models/petrel-hf9';
import { applyEdit, makeId, type Edit, type Plan } from '../plan';
import { channel, id, plan } from '../samples.test.kit';
import { newMemory, UNITS } from '../../sim/bench/units';
import { agreedAfter, fromRadio, stillApart, toRadio, type Agreed } from '.';

/** A plan and a radio that went on without each other, brought together again. */

const model = petrelHF9;
const memory = newMemory(UNITS.find((unit) => unit.model === model)!);
const own = plan([
  channel(1, 145_500_000, { name: 'Calling', power: 50_000 }),
  channel(2, 145_612_500, { name: 'Ullsmere', tx: 145_012_500, power: 50_000 }),
  channel(3, 3_660_000, { name: 'Isles net', mode: 'LSB', power: 100_000 }),
  channel(4, 433_500_000, { name: 'Call 70', power: 20_000 }),
]);
const written = (of: Plan) => encodeImage(contentToWrite(of, model), memory, model);
const agreed: Agreed = { plan: own, image: written(own) };
const newId = ({ slot }: { slot: number }) => makeId('ch', Uint8Array.of(7, 7, 7, slot));
const edited = (of: Plan, edit: Edit): Plan => {
  const done = applyEdit(of, edit);
  if (!done.ok) throw new Error(done.reason);
  return done.value;
};
const heldIn = (image: Uint8Array): FittedChannel[] => {
  const held = decodeImage(image, model);
  if (!held.ok) throw new Error(held.reason);
  return held.value.channels;
};
/** The radio once something was done on its keys: a channel set, put there or emptied. */
const keyed = (image: Uint8Array, slot: number, set: Partial<FittedChannel> | null): Uint8Array => {
  const held = decodeImage(image, model);
  if (!held.ok) throw new Error(held.reason);
  const before = held.value.channels.find((one) => one.slot === slot);
  const others = held.value.channels.filter((one) => one.slot !== slot);
  const fresh: FittedChannel = {
    ...{ list: 0, slot, name: '', rx: 146_000_000, tx: 146_000_000, send: null, expect: null },
    ...{ mode: 'FM', power: 50_000, scan: false },
  };
  const channels =
    set === null ? others : [...others, { ...fresh, ...before, ...set }].sort((a, b) => a.slot - b.slot);
  return encodeImage({ ...held.value, channels }, image, model);
};
const heard = (image: Uint8Array, of: Plan, since = agreed) => {
  const found = fromRadio(since, image, of, model, 'OR900113', newId);
  if (!found.ok) throw new Error(found.reason);
  return found.value;
};
const sent = (of: Plan, image: Uint8Array, apart: Parameters<typeof toRadio>[2] = []) => {
  const made = toRadio(of, image, apart, model);
  if (!made.ok) throw new Error(made.reason);
  return made.value;
};

test('what was done on the keys becomes one edit, called by what it is', () => {
  const { edit, said, apart } = heard(keyed(agreed.image, 4, { rx: 433_450_000, tx: 433_450_000 }), own);
  expect(apart).toEqual([]);
  expect(said).toEqual(['004 Call 70: 433.450, sends where it receives']);
  expect(edit).toMatchObject({
    name: 'together',
    label: 'On the keys of OR900113: 004 Call 70: 433.450, sends where it receives',
  });
  const after = edited(own, edit!);
  expect(after.channels.find(({ slot }) => slot === 4)).toMatchObject({
    rx: 433_450_000,
    tx: 433_450_000,
    name: 'Call 70',
  });
});

/** The radio once a setting was changed on its keys. */
const setOn = (image: Uint8Array, set: Record<string, string | number | boolean>): Uint8Array => {
  const held = decodeImage(image, model);
  if (!held.ok) throw new Error(held.reason);
  return encodeImage({ ...held.value, settings: { ...held.value.settings, ...set } }, image, model);
};

test('a setting that was changed on the keys becomes the plan’s where the plan sets it, and is said in any case', () => {
  // The beep of this unit is on; the plan leaves it to the radio.
  const left = heard(setOn(agreed.image, { beep: false }), own);
  expect([left.said, left.edit, left.apart]).toEqual([['Key beep: off'], null, []]);

  const sets = edited(own, {
    name: 'describe',
    set: { settings: { [model.id]: { beep: true, shows: 'name' } } },
  });
  const since: Agreed = { plan: sets, values: {}, image: written(sets) };
  const turned = setOn(since.image, { beep: false, greeting: 'HELLO' });
  const found = heard(turned, sets, since);
  expect(found.said).toEqual(['Key beep: off', 'Power-on text: HELLO']);
  const after = edited(sets, found.edit!);
  expect(after.settings[model.id]).toEqual({ beep: false, shows: 'name' });
  // So the radio keeps what was done on it.
  expect(sent(after, turned)).toEqual(turned);
  expect(found.agreed).toEqual({ plan: after, values: {}, image: turned });

  // Where the plan has set it otherwise meanwhile the plan's stays, and that is said.
  const shows = edited(sets, { name: 'describe', set: { settings: { [model.id]: { shows: 'slot' } } } });
  const both = heard(setOn(since.image, { shows: 'frequency' }), shows, since);
  expect([both.edit, both.said]).toEqual([
    null,
    ['Display shows: frequency on the radio; the plan sets slot by now'],
  ]);
});

test('a value that is the unit’s own goes into the radio from the unit, and back to the unit, never into the plan', () => {
  const sets = edited(own, {
    name: 'describe',
    set: { settings: { [model.id]: { beep: true, greeting: 'CLUB' } } },
  });
  const greetingIn = (image: Uint8Array) => {
    const held = decodeImage(image, model);
    return held.ok && held.value.settings.greeting;
  };
  const wanted = (values: UnitValues) => {
    const made = toRadio(sets, agreed.image, [], model, values);
    if (!made.ok) throw new Error(made.reason);
    return made.value;
  };
  expect(greetingIn(wanted({}))).toBe('CLUB');
  expect(greetingIn(wanted({ greeting: 'UNIT 7' }))).toBe('UNIT 7');

  // Changed on its keys, with a value of the unit before, and with that of the plan alone.
  for (const values of [{ greeting: 'UNIT 7' }, {}] as UnitValues[]) {
    const since: Agreed = { plan: sets, values, image: wanted(values) };
    const turned = setOn(since.image, { greeting: 'HELLO', beep: false });
    const found = fromRadio(since, turned, sets, model, 'OR900113', newId, values);
    if (!found.ok) throw new Error(found.reason);
    expect(found.value.values).toEqual({ greeting: 'HELLO' });
    expect(found.value.said).toEqual(['Key beep: off', 'Power-on text: HELLO']);
    const after = edited(sets, found.value.edit!);
    expect(after.settings[model.id]).toEqual({ beep: false, greeting: 'CLUB' });
    expect(found.value.agreed).toEqual({ plan: after, values: { greeting: 'HELLO' }, image: turned });
  }

  // Where it was set otherwise on the Bench meanwhile that stays, and it is said.
  const since: Agreed = { plan: sets, values: {}, image: wanted({}) };
  const both = fromRadio(since, setOn(since.image, { greeting: 'HELLO' }), sets, model, 'OR900113', newId, {
    greeting: 'NEW',
  });
  expect(both.ok && [both.value.values, both.value.edit, both.value.said]).toEqual([
    null,
    null,
    ['Power-on text: HELLO on the radio; the value of this unit is NEW by now'],
  ]);
});

test('where both went another way neither is taken: the radio keeps its own until it is decided', () => {
  const image = keyed(agreed.image, 2, { name: 'RADIO' });
  const mine = edited(own, { name: 'change', changes: [{ id: id(2), set: { name: 'Plan' } }] });
  const { edit, apart, agreed: now } = heard(image, mine);
  expect(edit).toBeNull();
  expect(apart).toMatchObject([{ at: { list: 0, slot: 2 }, radio: 'RADIO', plan: 'Plan' }]);
  expect(sent(mine, image, apart)).toEqual(image);
  expect(stillApart(apart, mine, image, model)).toEqual(apart);
  // Taken: the plan says what the radio has. Or let go of: the radio gets what the plan has.
  expect(stillApart(apart, edited(mine, apart[0]!.edit), image, model)).toEqual([]);
  expect(heldIn(sent(mine, image)).find(({ slot }) => slot === 2)!.name).toBe('Plan');
  // Heard of once: what is left to be decided is no news.
  expect(heard(image, mine, now).apart).toEqual([]);
});

test('a channel that a stop holds back stays in the radio as it was', () => {
  const stopped = edited(own, {
    name: 'change',
    changes: [
      { id: id(2), set: { access: { kind: 'analogue', send: { kind: 'tone', tone: 886 }, expect: null } } },
    ],
  });
  expect(contentToWrite(stopped, model).heldBack.map((one) => one.id)).toEqual([id(2)]);
  expect(sent(stopped, agreed.image)).toEqual(agreed.image);
  // Nor is it taken for something that was done on the radio's keys.
  expect(heard(agreed.image, stopped, { plan: stopped, image: agreed.image })).toMatchObject({
    edit: null,
    apart: [],
  });
});

test('channels that the plan moved, and the radio has there by now, are no news', () => {
  const moved = edited(own, {
    name: 'arrange',
    how: 'swap',
    moves: [
      { id: id(1), from: 1, to: 4 },
      { id: id(4), from: 4, to: 1 },
    ],
  });
  // The line was gone after the radio had it, before that was kept.
  expect(heard(sent(moved, agreed.image), moved)).toMatchObject({ edit: null, apart: [] });
});

test('a change whose answer went with the line is not taken for something that was done on the keys', () => {
  const typed = edited(own, {
    name: 'change',
    changes: [
      { id: id(1), set: { name: 'Typed' } },
      { id: id(2), set: { name: 'Too' } },
    ],
  });
  const sentAs: Agreed = { plan: typed, image: sent(typed, agreed.image) };
  // In the radio, of which a key has changed one place since: the other tells.
  const inIt = keyed(sentAs.image, 2, { name: 'KEY' });
  const later = edited(typed, { name: 'change', changes: [{ id: id(1), set: { name: 'Later' } }] });
  expect(heard(inIt, later, agreedAfter(agreed, sentAs, inIt, model))).toMatchObject({
    said: ['002 Too: KEY'],
    apart: [],
  });
  // Not in it: what both had before is what both had last.
  const notInIt = keyed(agreed.image, 4, { name: 'KEY' });
  expect(agreedAfter(agreed, sentAs, notInIt, model)).toBe(agreed);
  expect(agreedAfter(agreed, sentAs, sentAs.image, model)).toBe(sentAs);
});

const slot = fc.integer({ min: 1, max: 6 });
const doings = fc.array(
  fc.record({
    slot,
    hz: fc.integer({ min: 0, max: 40 }).map((n) => 146_000_000 + n * 25_000),
    gone: fc.boolean(),
  }),
  { maxLength: 4 },
);
test('whatever was done on both sides: what one side did is on both, what both did is left to be decided, nothing else is touched', () => {
  const seen = fc.tally();
  fc.assert(
    fc.property(doings, doings, (onKeys, inPlan) => {
      let image = agreed.image;
      for (const { slot: at, hz, gone } of onKeys) image = keyed(image, at, gone ? null : { rx: hz, tx: hz });
      let mine = own;
      for (const { slot: at, hz, gone } of inPlan) {
        const there = mine.channels.find((one) => one.slot === at);
        if (gone && there) mine = edited(mine, { name: 'remove', ids: [there.id] });
        else if (there)
          mine = edited(mine, { name: 'change', changes: [{ id: there.id, set: { rx: hz, tx: hz } }] });
        else if (!gone) {
          const { slot: _, list: __, ...fresh } = channel(at + 20, hz, { power: 50_000 });
          mine = edited(mine, {
            name: 'place',
            channels: [fresh],
            placement: 'next-free',
            at: 1,
            range: { first: 1, count: 120 },
            slots: [at],
          });
        }
      }
      const { edit, apart } = heard(image, mine);
      const after = edit ? edited(mine, edit) : mine;
      const radio = sent(after, image, apart);
      const at = (channels: readonly { slot: number; rx: number; tx: number | null }[], n: number) => {
        const one = channels.find((channel_) => channel_.slot === n);
        return one ? `${one.rx} ${one.tx}` : 'nothing';
      };
      for (let n = 1; n <= 6; n++) {
        const [was, keys, plans] = [at(own.channels, n), at(heldIn(image), n), at(mine.channels, n)];
        const [inRadio, inOwn] = [at(heldIn(radio), n), at(after.channels, n)];
        if (keys === plans) {
          expect([n, inRadio, inOwn]).toEqual([n, keys, keys]);
        } else if (plans === was) {
          seen.count('the radio alone', true);
          expect([n, inRadio, inOwn]).toEqual([n, keys, keys]);
        } else if (keys === was) {
          seen.count('the plan alone', true);
          expect([n, inRadio, inOwn]).toEqual([n, plans, plans]);
        } else {
          seen.count('both', true);
          expect([n, inRadio, inOwn]).toEqual([n, keys, plans]);
          expect(apart.map((one) => one.at.slot)).toContain(n);
        }
      }
    }),
    { numRuns: 300 },
  );
  for (const kind of ['the radio alone', 'the plan alone', 'both']) seen.expectTimes(kind, 31);
});
