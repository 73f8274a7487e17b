import * as fc from '../property.test.kit';
import { contentToWrite } from '../check';
import { compareContents } from '../compare';
import { decodeImage, encodeImage, type RadioContent } from '../image';
import { ternP2 } from '../models/tern-p2';
import { applyEdit, makeId, type Plan } from '../plan';
import { channel, id, plan } from '../samples.test.kit';
import { newMemory, UNITS } from '../../sim/bench/units';
import { changedByHand as changed } from './by-hand';

/** A radio that was written and then changed on its own keys, held against the plan as it is now. */

const memory = newMemory(UNITS[0]!);
/** What the radio holds once a plan has been written to it. */
const heldAfter = (of: Plan): RadioContent => {
  const held = decodeImage(encodeImage(contentToWrite(of, ternP2), memory, ternP2), ternP2);
  if (!held.ok) throw new Error(held.reason);
  return held.value;
};
const newId = ({ list, slot }: { list: number; slot: number }) =>
  makeId('ch', Uint8Array.of(7, 7, 7, 7, list, slot));
const take = (own: Plan, edit: Parameters<typeof applyEdit>[1] | null): Plan => {
  if (edit === null) return own;
  const done = applyEdit(own, edit);
  if (!done.ok) throw new Error(done.reason);
  return done.value;
};

const written = plan([
  channel(0, 145_500_000, { name: 'Calling' }),
  channel(1, 145_612_500, { name: 'Ullsmere', tx: 145_012_500 }),
  channel(2, 433_500_000, { name: 'Call 70' }),
]);
const held = heldAfter(written);
/** By what the plan was written, and what the radio holds. */
const changedByHand = (of: Plan, radio: RadioContent, own: Plan, model: typeof ternP2, ids: typeof newId) =>
  changed(of, { before: heldAfter(of), radio }, own, model, ids);
const changing = (slot: number, set: Partial<RadioContent['channels'][number]>): RadioContent => ({
  ...held,
  channels: held.channels.map((one) => (one.slot === slot ? { ...one, ...set } : one)),
});

test('nothing done, nothing said', () =>
  expect(changedByHand(written, held, written, ternP2, newId)).toEqual({
    changes: [],
    all: null,
    besides: [],
  }));

test('a name and a frequency that were changed on the keys are offered, in words and as one edit', () => {
  const { changes, all } = changedByHand(
    written,
    changing(0, { name: 'SHIPS', rx: 145_525_000, tx: 145_525_000 }),
    written,
    ternP2,
    newId,
  );
  expect(changes).toMatchObject([
    {
      place: '000',
      name: 'Calling',
      what: 'changed',
      plan: null,
      radio: 'SHIPS, 145.525, sends where it receives',
    },
  ]);
  expect(take(written, all).channels[0]).toMatchObject({
    id: id(0),
    name: 'SHIPS',
    rx: 145_525_000,
    tx: 145_525_000,
  });
});

test('where plan and radio went two ways both are said, and neither is taken by itself', () => {
  const own = take(written, { name: 'change', changes: [{ id: id(1), set: { name: 'Ulls' } }] });
  const { changes, all } = changedByHand(
    written,
    changing(1, { name: 'ULLSM2', mode: 'NFM' }),
    own,
    ternP2,
    newId,
  );
  expect(changes).toMatchObject([{ place: '001', radio: 'ULLSM2, NFM', plan: 'ULLS' }]);
  expect(all).toBeNull();
  expect(take(own, changes[0]!.edit).channels[1]).toMatchObject({
    fitted: { 'tern-p2': 'ULLSM2' },
    mode: 'NFM',
  });
});

test('what the plan says likewise is settled; what it removed and the radio changed is said', () => {
  const alike = take(written, { name: 'change', changes: [{ id: id(2), set: { mode: 'NFM' } }] });
  expect(changedByHand(written, changing(2, { mode: 'NFM' }), alike, ternP2, newId).changes).toEqual([]);
  const without = take(written, { name: 'remove', ids: [id(2)] });
  const { changes, all } = changedByHand(written, changing(2, { mode: 'NFM' }), without, ternP2, newId);
  expect(changes).toMatchObject([{ what: 'changed', plan: 'removed', radio: 'NFM' }]);
  expect(all).toBeNull();
});

test('a channel that was put in on the keys where the plan has put another is said with both', () => {
  const own = plan([...written.channels, channel(7, 145_700_000, { name: 'Mine' })]);
  const radio = { ...held, channels: [...held.channels, { ...held.channels[0]!, slot: 7, name: 'THEIRS' }] };
  const { changes, all } = changedByHand(written, radio, own, ternP2, newId);
  expect(changes).toMatchObject([
    { place: '007', what: 'added', plan: expect.stringContaining('MINE') as string },
  ]);
  expect(all).toBeNull();
  // Taken all the same, it stands where the radio has it, and the plan's own waits left over.
  const taken = take(own, changes[0]!.edit);
  expect(taken.channels.map(({ slot, name }) => [slot, name])).toContainEqual([7, 'THEIRS']);
  expect(taken.channels).toHaveLength(own.channels.length);
  expect(taken.leftOver.map(({ name }) => name)).toEqual(['Mine']);
});

test('a name that was written into the radio is one fitted by hand for it; the plan keeps its own', () => {
  const { all } = changedByHand(written, changing(1, { name: 'HERE' }), written, ternP2, newId);
  const after = take(written, all);
  expect(after.channels[1]).toMatchObject({ name: 'Ullsmere', fitted: { 'tern-p2': 'HERE' } });
  expect(heldAfter(after).channels[1]!.name).toBe('HERE');
});

test('settings are told of', () => {
  const { besides } = changedByHand(
    written,
    { ...held, settings: { ...held.settings, greeting: 'BOAT' } },
    written,
    ternP2,
    newId,
  );
  expect(besides).toEqual([expect.objectContaining({ mark: 'changed' })]);
});

const KEYS = fc.array(
  fc.record({
    slot: fc.integer({ min: 0, max: 12 }),
    does: fc.constantFrom('name', 'rx', 'mode', 'scan', 'empty', 'new'),
    name: fc.stringMatching(/^[A-Z0-9]{1,6}$/),
    step: fc.nat({ max: 100 }),
  }),
  { minLength: 1, maxLength: 8 },
);
/** What a hand does on the keys. */
const pressed = (
  content: RadioContent,
  keys: readonly { slot: number; does: string; name: string; step: number }[],
) =>
  keys.reduce((now, { slot, does, name, step }): RadioContent => {
    const rx = 145_200_000 + step * 12_500;
    const there = now.channels.find((one) => one.slot === slot);
    const others = now.channels.filter((one) => one.slot !== slot);
    if (does === 'empty') return { ...now, channels: others };
    if (does === 'new' || !there)
      return { ...now, channels: [...others, { ...held.channels[0]!, slot, name, rx, tx: rx }] };
    const next =
      does === 'name'
        ? { ...there, name }
        : does === 'rx'
          ? { ...there, rx, tx: rx }
          : does === 'mode'
            ? { ...there, mode: there.mode === 'FM' ? ('NFM' as const) : ('FM' as const) }
            : { ...there, scan: !there.scan };
    return { ...now, channels: [...others, next] };
  }, content);
const FIELDS = ['name', 'rx', 'tx', 'mode', 'scan'] as const;
/** What the owner does in the plan meanwhile. */
const OWN = fc.array(
  fc.record({
    at: fc.nat({ max: 9 }),
    does: fc.constantFrom('name', 'mode', 'remove'),
    name: fc.stringMatching(/^[A-Z][a-z]{2,5}$/),
  }),
  { minLength: 2, maxLength: 8 },
);
const ten = plan(
  Array.from({ length: 10 }, (_, n) => channel(n, 145_500_000 + n * 12_500, { name: `Station ${n}` })),
);
const heldTen = heldAfter(ten);

test('all of it taken into a plan that stands as it was written, nothing is left to write', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(KEYS, (keys) => {
      const radio = pressed(heldTen, keys);
      const { changes, all } = changedByHand(ten, radio, ten, ternP2, newId);
      for (const { what } of changes) reached.count(what, true);
      expect(changes.every(({ plan }) => plan === null)).toBe(true);
      const after = heldAfter(take(ten, all));
      const { added, changed, removed } = compareContents(radio.channels, after.channels);
      expect([added, changed, removed]).toEqual([[], [], []]);
    }),
    { numRuns: 150 },
  );
  for (const what of ['changed', 'added', 'removed']) reached.expectShare(what, 0.2);
});

test('nothing is silent: every place where radio and plan differ after the radio was changed is said; what the plan changed stays', () => {
  let clashes = 0;
  fc.assert(
    fc.property(KEYS, OWN, (keys, wishes) => {
      const radio = pressed(heldTen, keys);
      const own = wishes.reduce((now, { at, does, name }) => {
        const one = now.channels.find((channel) => channel.id === id(at));
        if (!one) return now;
        return take(
          now,
          does === 'remove'
            ? { name: 'remove', ids: [one.id] }
            : {
                name: 'change',
                changes: [{ id: one.id, set: does === 'name' ? { name } : { mode: 'NFM' } }],
              },
        );
      }, ten);
      const { changes, all } = changedByHand(ten, radio, own, ternP2, newId);
      const said = new Set(changes.map(({ place }) => Number(place)));
      const nowIn = heldAfter(own).channels;
      for (let slot = 0; slot < 13; slot++) {
        const [was, there, mine] = [heldTen.channels, radio.channels, nowIn].map((of) =>
          of.find((one) => one.slot === slot),
        );
        if (was && there) {
          // Of what the hand changed, something stands otherwise in the plan.
          const open = FIELDS.some((field) => was[field] !== there[field] && mine?.[field] !== there[field]);
          expect([slot, said.has(slot)]).toEqual([slot, open]);
        } else if (was)
          expect([slot, said.has(slot)]).toEqual([slot, own.channels.some((one) => one.id === id(slot))]);
        else expect([slot, said.has(slot)]).toEqual([slot, there !== undefined]);
      }
      const clash = changes.filter(({ plan }) => plan !== null);
      clashes += clash.length;
      // What was done on the keys stands at its place once it is taken; a channel of the plan that was there waits left over.
      for (const { at, edit, what } of changes) {
        const taken = take(own, edit);
        const there = radio.channels.find(({ slot }) => slot === at.slot);
        const is = heldAfter(taken).channels.find(({ slot }) => slot === at.slot);
        const was = heldTen.channels.find(({ slot }) => slot === at.slot);
        const done = FIELDS.filter((field) => was?.[field] !== there?.[field]);
        expect(is && done.map((field) => is[field])).toEqual(there && done.map((field) => there[field]));
        if (what === 'added')
          expect(taken.channels.length + taken.leftOver.length).toBe(
            own.channels.length + own.leftOver.length + 1,
          );
      }
      const after = take(own, all);
      // A place where both went their way is as the plan has it.
      for (const { place } of clash)
        expect(after.channels.find(({ slot }) => slot === Number(place))).toEqual(
          own.channels.find(({ slot }) => slot === Number(place)),
        );
    }),
    { numRuns: 200 },
  );
  fc.expectReached('clashes', clashes, 51);
});
