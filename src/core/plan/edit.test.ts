import * as fc from '../property.test.kit';
import {
  anyPlan,
  channel,
  id,
  placing,
  plan,
  RANGE,
  renaming,
  run,
  three,
  zoneId,
} from '../samples.test.kit';
import { anyEditOn, EDIT_NAMES, hostileEditOn } from './edit.test.kit';
import {
  ABBREVIATIONS,
  abbreviationsOf,
  applyEdit,
  editLabel,
  editSchema,
  inverseOf,
  newPlan,
  orderedChannels,
  outcomeFault,
  planSchema,
  previewPlacing,
  PLACEMENTS,
  readDocument,
  rebaseEdit,
  type ChannelId,
  type ChannelSet,
  type Edit,
  type PlainEdit,
  type Plan,
} from '.';

const slotsOf = (p: Plan) => p.channels.map((c) => c.slot);

/** References to channels that are not there, found the plain way. */
const lostReferences = (p: Plan) =>
  p.zones.flatMap(({ members }) => members.filter((one) => !p.channels.some((c) => c.id === one)));

describe('edits', () => {
  test('edit then inverse is the old plan; the new one is sound; the old one is untouched', () => {
    const reached = fc.tally();
    fc.assert(
      fc.property(
        anyPlan.chain((p) => fc.tuple(fc.constant(p), anyEditOn(p))),
        ([before, edit]) => {
          const copy = structuredClone(before);
          const result = applyEdit(before, edit);
          expect(before).toEqual(copy);
          reached.count(edit.name, result.ok);
          if (!result.ok) return expect(result.reason).toMatch(/\.$/);
          const places = result.value.channels.map(({ list, slot }) => list * 10_000 + slot);
          expect(new Set(places).size).toBe(places.length);
          expect([...places].sort((a, b) => a - b)).toEqual(places);
          expect(lostReferences(result.value)).toEqual([]);
          reached.count('with zones', result.value.zones.length > 0);
          const inverse = inverseOf(before, result.value);
          expect(editSchema.safeParse(inverse).success).toBe(true);
          const back = run(result.value, inverse);
          expect(back).toEqual(before);
          // and forth again: redo is the inverse of the inverse
          expect(run(back, inverseOf(result.value, back))).toEqual(result.value);
        },
      ),
      { numRuns: 600 },
    );
    for (const name of EDIT_NAMES) reached.expectShare(name, 0.6);
  });

  test('whatever an edit gives is a valid plan, also at the edges of what its schema accepts', () => {
    const reached = fc.tally();
    fc.assert(
      fc.property(
        anyPlan.chain((p) => fc.tuple(fc.constant(p), hostileEditOn(p))),
        ([before, edit]) => {
          expect(editSchema.safeParse(edit).error).toBeUndefined();
          const result = applyEdit(before, editSchema.parse(edit));
          reached.count(edit.name, result.ok);
          if (!result.ok) return expect(result.reason).toMatch(/\.$/);
          expect(planSchema.safeParse(result.value)).toEqual({ success: true, data: result.value });
          expect(lostReferences(result.value)).toEqual([]);
          expect(orderedChannels(result.value.channels)).toEqual(result.value.channels);
          expect(outcomeFault(before, result.value)).toBe(null);
          const inverse = inverseOf(before, result.value);
          expect(editSchema.safeParse(JSON.parse(JSON.stringify(inverse))).data).toEqual(inverse);
        },
      ),
      { numRuns: 1000 },
    );
    for (const name of EDIT_NAMES) reached.expectShare(name, 0.15);
  });

  test.each(['next-free', 'at-slot', 'push-down', 'overwrite'] as const)(
    'placing (%s) ends at the highest slot that a plan has, whatever the range says',
    (placement) => {
      const { channels, ...rest } = placing(11, 12) as Extract<Edit, { name: 'place' }>;
      const edge = { ...rest, placement, at: 9999, range: { first: 9999, count: 10_000 } };
      expect(slotsOf(run(three, { ...edge, channels: channels.slice(0, 1) }))).toEqual([1, 2, 5, 9999]);
      expect(applyEdit(three, { ...edge, channels })).toMatchObject({
        ok: false,
        reason: '1 channel finds no slot. Choose fewer, or another way to place them.',
      });
    },
  );

  test('an outcome that is no plan is told from one that is, by what is new in it', () => {
    const [first, second, third] = three.channels;
    const outcome = (channels: Plan['channels'], details: Partial<Plan> = {}) =>
      outcomeFault(three, { ...three, ...details, channels });
    expect(outcome([first!, second!])).toBe(null);
    expect(outcome([first!, second!, { ...third!, slot: 10_000 }])).toContain('channels.2.slot');
    expect(outcome([first!, { ...second!, tx: 1 }])).toContain('is not a frequency');
    expect(outcome([second!, first!])).toBe('The channels would not be in slot order.');
    expect(outcome([first!, { ...second!, slot: 1 }])).toBe('Slot 1 is taken by “Calling”.');
    expect(outcome([first!, first!])).toContain('would be there twice');
    expect(outcome([], { name: 'a\0' })).toContain('name holds a character that cannot be kept');
    expect(outcome(Array.from({ length: 10_001 }, (_, n) => ({ ...first!, id: id(n), slot: n })))).toMatch(
      /10000 channels at most; this would make 10001/,
    );
  });

  test('one change for many channels, with its label', () => {
    const edit: Edit = { name: 'change', changes: [1, 2].map((n) => ({ id: id(n), set: { tx: null } })) };
    expect(run(three, edit).channels.map((c) => c.tx)).toEqual([null, null, null]);
    expect(editLabel(edit, three)).toBe('Set 2 channels to listen only');
    expect(editLabel({ name: 'change', changes: [{ id: id(2), set: { tx: 145_000_000 } }] }, three)).toBe(
      'Set transmit of “Ullsmere Hill” to 145.000',
    );
  });

  test('transmit is fixed where it was given as a frequency of its own, and nowhere else', () => {
    const after = (set: ChannelSet, n = 2) =>
      run(three, { name: 'change', changes: [{ id: id(n), set }] }).channels.find((c) => c.id === id(n))!;
    expect(after({ tx: 144_900_000, txFixed: true })).toMatchObject({ tx: 144_900_000, txFixed: true });
    expect(after({ tx: 144_900_000, txFixed: false }).txFixed).toBe(false);
    expect(after({ tx: 144_900_000 }).txFixed).toBe(false);
    // what sends where it hears, or nowhere, has no transmit of its own
    expect(after({ tx: 145_612_500, txFixed: true }).txFixed).toBe(false);
    expect(after({ rx: 144_900_000, tx: 144_900_000, txFixed: true }).txFixed).toBe(false);
    expect(after({ tx: null, txFixed: true })).toMatchObject({ tx: null, txFixed: false });
    // and what says nothing of transmit leaves it as it is
    expect(after({ power: 500 })).toMatchObject({ tx: 145_012_500, txFixed: false });
    const fixed = run(three, {
      name: 'change',
      changes: [{ id: id(2), set: { tx: 144_900_000, txFixed: true } }],
    });
    expect(run(fixed, renaming(2, 'X')).channels[1]).toMatchObject({ tx: 144_900_000, txFixed: true });
  });

  test('changing receive carries the shift along', () => {
    const after = run(three, { name: 'change', changes: [{ id: id(2), set: { rx: 145_700_000 } }] });
    expect(after.channels[1]).toMatchObject({ rx: 145_700_000, tx: 145_100_000 });
  });

  test('an edit fails whole: nothing is half applied', () => {
    const result = applyEdit(three, {
      name: 'change',
      changes: [
        { id: id(1), set: { tx: null } },
        { id: id(77), set: { tx: null } },
      ],
    });
    expect(result).toMatchObject({ ok: false, reason: expect.stringContaining('not in the plan any more') });
  });

  test('fields that nobody knows, ids of another kind and odd frequencies are refused at the edge', () => {
    const posted = (set: object, one: string = id(1)) =>
      editSchema.safeParse({ name: 'change', changes: [{ id: one, set }] }).success;
    expect(posted({ tx: null })).toBe(true);
    expect(posted({ frequency: 1 })).toBe(false);
    expect(posted({ rx: 145.6 })).toBe(false);
    expect(posted({ rx: 145_600_001 })).toBe(false);
    expect(posted({ txFixed: true })).toBe(false);
    expect(posted({ tx: null }, 'pl_test0001')).toBe(false);
  });
});

describe('an edit made on an old revision', () => {
  const rename: Edit = { name: 'change', changes: [{ id: id(2), set: { name: 'Hill' } }] };
  test('is run on the newest where it still holds', () => {
    const newest = run(three, {
      name: 'change',
      changes: [
        { id: id(2), set: { power: 1000 } },
        { id: id(1), set: { name: 'A' } },
      ],
    });
    const result = rebaseEdit(rename, three, newest);
    expect(result).toMatchObject({ ok: true });
    expect(result.ok && result.value.channels[1]).toMatchObject({ name: 'Hill', power: 1000 });
  });
  test('is refused where the same field was changed, or the channel removed', () => {
    const changed = run(three, { name: 'change', changes: [{ id: id(2), set: { name: 'Other' } }] });
    expect(rebaseEdit(rename, three, changed)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('changed meanwhile (name)'),
    });
    const removed = run(three, { name: 'remove', ids: [id(2)] });
    expect(rebaseEdit(rename, three, removed)).toMatchObject({ ok: false });
    // a channel that somebody has just worked on is not taken away unseen
    expect(rebaseEdit({ name: 'remove', ids: [id(2)] }, three, changed)).toMatchObject({ ok: false });
    expect(rebaseEdit({ name: 'remove', ids: [id(1)] }, three, changed)).toMatchObject({ ok: true });
  });

  test('the members of a zone are somebody’s work too; what went with a channel that is gone is not', () => {
    const zone = (members: ChannelId[]): Edit => ({
      name: 'change',
      kind: 'zone',
      changes: [{ id: zoneId(1), set: { members } }],
    });
    const base = run(three, {
      name: 'put',
      kind: 'zone',
      records: [{ id: zoneId(1), name: 'Day 1', members: [id(1), id(2)] }],
      before: null,
    });
    const adding = zone([id(1), id(2), id(5)]);
    expect(rebaseEdit(adding, base, run(base, zone([id(1)])))).toMatchObject({
      ok: false,
      reason: '“Day 1” was changed meanwhile (channels). Look at it and try again.',
    });
    const renamed: Edit = { name: 'change', kind: 'zone', changes: [{ id: zoneId(1), set: { name: 'D1' } }] };
    // channel 2 was removed meanwhile, and went from the zone: renaming it holds all the same
    const without = run(base, { name: 'remove', ids: [id(2)] });
    expect(rebaseEdit(renamed, base, without)).toMatchObject({ ok: true });
    expect(rebaseEdit(zone([id(2)]), base, without)).toMatchObject({ ok: false });
    expect(rebaseEdit(zone([id(1), id(5)]), base, without)).toMatchObject({ ok: true });
  });
});

describe('placing', () => {
  const at = (placement: (typeof PLACEMENTS)[number], count: number, from = 0, range = RANGE) =>
    previewPlacing(three.channels, count, placement, from, range);
  const slots = (p: ReturnType<typeof at>) => p.assigned.map((a) => a.slot);
  test('next free slots skip what is taken', () => expect(slots(at('next-free', 4))).toEqual([0, 3, 4, 6]));
  test('one run ends at the first taken slot; the rest is listed', () => {
    const preview = at('at-slot', 4, 3);
    expect(slots(preview)).toEqual([3, 4]);
    expect(preview.leftOver).toEqual([2, 3]);
  });
  test('gaps only lie below the last one used', () => {
    expect(slots(at('fill-gaps', 9))).toEqual([0, 3, 4]);
    expect(at('fill-gaps', 9).leftOver).toHaveLength(6);
  });
  test('pushing moves no further than it must', () => {
    const preview = at('push-down', 2, 2);
    expect(slots(preview)).toEqual([2, 3]);
    expect(preview.pushed).toEqual([{ id: id(2), from: 2, to: 4 }]);
    expect(at('push-down', 4, 1).pushed).toEqual([
      { id: id(1), from: 1, to: 5 },
      { id: id(2), from: 2, to: 6 },
      { id: id(5), from: 5, to: 7 },
    ]);
  });
  test('nothing is pushed off the end', () => {
    const preview = at('push-down', 4, 2, { first: 0, count: 7 });
    expect(slots(preview)).toEqual([2, 3, 4]);
    expect(preview.pushed).toEqual([
      { id: id(2), from: 2, to: 5 },
      { id: id(5), from: 5, to: 6 },
    ]);
    expect(preview.leftOver).toEqual([3]);
  });
  test.each(PLACEMENTS)('in a full radio nothing finds a slot but by overwriting (%s)', (placement) => {
    const full = plan(Array.from({ length: 150 }, (_, slot) => channel(slot, 145_500_000)));
    const preview = previewPlacing(full.channels, 2, placement, 0, RANGE);
    const over = placement === 'overwrite';
    expect(preview).toEqual({
      assigned: over ? [0, 1].map((n) => ({ index: n, slot: n })) : [],
      pushed: [],
      overwritten: over ? [id(0), id(1)] : [],
      leftOver: over ? [] : [0, 1],
    });
    const { channels, ...rest } = placing(201, 202) as Extract<Edit, { name: 'place' }>;
    const result = applyEdit(full, { ...rest, channels, placement });
    expect(result.ok ? slotsOf(result.value) : result.reason).toEqual(
      over ? slotsOf(full) : '2 channels find no slot. Choose fewer, or another way to place them.',
    );
  });
  test('overwriting names what goes', () =>
    expect(at('overwrite', 2, 1).overwritten).toEqual([id(1), id(2)]));
  test('an edit is refused when the slots are no longer those of the preview', () => {
    const { slot: _slot, ...fresh } = channel(9, 433_500_000);
    const edit: Edit = {
      name: 'place',
      channels: [fresh],
      placement: 'next-free',
      at: 0,
      range: RANGE,
      expect: [0],
    };
    expect(slotsOf(run(three, edit))).toEqual([0, 1, 2, 5]);
    expect(applyEdit(three, { ...edit, expect: [3] })).toMatchObject({
      ok: false,
      reason: expect.stringContaining('since the preview'),
    });
  });
  test('no entry is lost: each is assigned or left over, in free or freed slots of the radio', () => {
    fc.assert(
      fc.property(
        anyPlan,
        fc.constantFrom(...PLACEMENTS),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 160 }),
        (p, placement, n, from) => {
          const preview = previewPlacing(p.channels, n, placement, from, RANGE);
          const indexes = [...preview.assigned.map((a) => a.index), ...preview.leftOver].sort(
            (a, b) => a - b,
          );
          expect(indexes).toEqual(Array.from({ length: n }, (_, i) => i));
          const after = new Map<number, ChannelId | 'new'>();
          const moved = new Map(preview.pushed.map((m) => [m.id, m.to]));
          for (const c of p.channels)
            if (!preview.overwritten.includes(c.id)) after.set(moved.get(c.id) ?? c.slot, c.id);
          const given = preview.assigned.map(({ slot }) => slot);
          expect(given.filter((slot) => slot < 0 || slot >= 150 || after.has(slot))).toEqual([]);
          for (const slot of given) after.set(slot, 'new');
          expect(after.size).toBe(p.channels.length - preview.overwritten.length + preview.assigned.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('abbreviations', () => {
  const own: Edit = { name: 'describe', set: { abbreviations: [['Ketterby', 'KY']] } };
  test('a plan has the usual ones until it has its own; taken back it has the usual ones again', () => {
    expect(abbreviationsOf(three)).toBe(ABBREVIATIONS);
    const after = run(three, own);
    expect(abbreviationsOf(after)).toEqual([['Ketterby', 'KY']]);
    expect(editLabel(own, three)).toBe('Change the abbreviations');
    expect(run(after, inverseOf(three, after))).toEqual(three);
  });
  test('plans and logs from before there were any are read as they were', () => {
    const { abbreviations: _, ...old } = three;
    expect(readDocument({ ...old, format: 1, zones: undefined })).toEqual({ ok: true, value: three });
    const details = { name: 'Then', modelId: 'tern-p2', owner: three.owner };
    const back = editSchema.parse({ name: 'restore', put: [], remove: [], details });
    expect(run(run(three, own), back)).toMatchObject({ name: 'Then', abbreviations: [['Ketterby', 'KY']] });
  });
  test.each([
    [
      [
        ['Hill', 'HL'],
        ['hill', 'H'],
      ],
      'has a word twice',
    ],
    [[['Old Hill', 'OH']], 'is more than one word'],
    [[['Hill', '']], 'is empty'],
  ])('%j is refused: %s', (abbreviations, why) => {
    const parsed = editSchema.safeParse({ name: 'describe', set: { abbreviations } });
    expect(parsed.error?.issues[0]?.message).toBe(why);
  });
});

test('a new plan is one that the schema takes', () =>
  expect(
    planSchema.safeParse(newPlan(three.id, { name: 'Ketterby', modelId: 'tern-p2', owner: three.owner }))
      .success,
  ).toBe(true));

test('several edits as one are done whole or not at all, and taken back at once', () => {
  const before = plan([channel(1, 145_500_000, { name: 'One' }), channel(2, 145_525_000, { name: 'Two' })]);
  const edit = (...edits: PlainEdit[]): Edit => ({ name: 'together', label: 'Two things', edits });
  const remove: PlainEdit = { name: 'remove', ids: [id(1)] };
  const rename: PlainEdit = { name: 'change', changes: [{ id: id(1), set: { name: 'Other' } }] };
  const done = run(before, edit(rename, remove));
  expect(done.channels.map(({ name }) => name)).toEqual(['Two']);
  expect(run(done, inverseOf(before, done))).toEqual(before);
  expect(editLabel(edit(rename, remove), before)).toBe('Two things');
  // each is run on what the one before it made
  expect(applyEdit(before, edit(remove, rename))).toMatchObject({ ok: false });
  expect(editSchema.safeParse(edit(edit(remove) as PlainEdit)).success).toBe(false);
});
