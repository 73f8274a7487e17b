import * as fc from '../property.test.kit';
import { anyAccess, anyFrequency, channel, id, RANGE, zoneId } from '../samples.test.kit';
import { MODES } from '../radio';
import {
  applyEdit,
  CHANNEL_LIMIT,
  inverseOf,
  PLACEMENTS,
  previewArrangement,
  reorder,
  ROOMS,
  SLOT_LIMIT,
  SORT_KEYS,
  sortInPlace,
  type Channel,
  type ChannelId,
  type ChannelSet,
  type Edit,
  type PlainEdit,
  type SettingValue,
  type Plan,
} from '.';

/** Generators of edits: those that people make, and those at the edges of what the schema accepts. */

export const EDIT_NAMES = [
  'change',
  'place',
  'put',
  'remove',
  'order',
  'arrange',
  'describe',
  'restore',
  'set',
  'together',
] as const;

const fresh = (n: number, fields: Partial<Channel> = {}) => {
  const { slot: _slot, list: _list, ...rest } = channel(2000 + n, 145_500_000, fields);
  return rest;
};

const anySet: fc.Arbitrary<ChannelSet> = fc.oneof(
  fc.constant({ tx: null }),
  fc.string({ maxLength: 32 }).map((name) => ({ name: name.trim() })),
  anyFrequency.map((rx) => ({ rx })),
  anyFrequency.map((tx) => ({ tx, txFixed: true })),
  fc.constant({ scan: false, power: 1000 }),
  fc.constantFrom(...MODES).map((mode) => ({ mode })),
  anyAccess.map((access) => ({ access })),
  fc.constant({ note: 'Heard on Brannoch.\nWeak.', alwaysOn: true }),
  fc.constantFrom({ unclear: { access: 'loud', tx: '145.x' } }, { unclear: {} }),
);

/** Some of the ids; where there are none, one that is not there. */
const someOf = (p: Plan): fc.Arbitrary<ChannelId[]> =>
  p.channels.length === 0
    ? fc.constant<ChannelId[]>([id(999)])
    : fc.shuffledSubarray(
        p.channels.map((c) => c.id),
        { minLength: 1, maxLength: Math.min(8, p.channels.length) },
      );

/** Orders of the plan's channels that can be had: sorted, carried, moved, numbered, closed up. */
function anyArrangementOf(p: Plan, chosen: readonly ChannelId[]): fc.Arbitrary<PlainEdit> {
  const ids = new Set(chosen);
  const how = fc.oneof(
    fc.record({ how: fc.constant('move' as const), at: fc.nat(149), room: fc.constantFrom(...ROOMS) }),
    fc.record({ how: fc.constant('renumber' as const), start: fc.nat(140), step: fc.constantFrom(1, 2) }),
    fc.constant({ how: 'close gaps' as const }),
  );
  return fc.tuple(how, fc.constantFrom(...SORT_KEYS), fc.boolean()).map(([wish, key, carry]): PlainEdit => {
    const wished = previewArrangement(p, ids, wish, RANGE);
    const other = carry ? reorder(p, ids, null) : sortInPlace(p, new Set(p.channels.map((c) => c.id)), key);
    if (wished.ok && wished.value.length > 0) return { name: 'arrange', how: wish.how, moves: wished.value };
    if (other.length > 0) return { name: 'arrange', how: 'sort', moves: other };
    // Nothing can be moved about: a channel goes to a slot that nobody has.
    const from = p.channels[0]?.slot ?? 0;
    return { name: 'arrange', how: 'move', moves: [{ id: chosen[0]!, from, to: 200 }] };
  });
}

/** What is done to zones: put, changed, taken away, brought into another order. */
function anyZoneEditOn(p: Plan): fc.Arbitrary<PlainEdit> {
  const some = (most: number) =>
    fc.shuffledSubarray(
      p.channels.map((c) => c.id),
      { maxLength: Math.min(most, p.channels.length) },
    );
  const there = p.zones.map((zone) => zone.id);
  const before = fc.constantFrom(null, ...there);
  const put = fc
    .tuple(some(5), before, fc.integer({ min: 1, max: 3 }))
    .map(([members, at, n]): PlainEdit => ({
      name: 'put',
      kind: 'zone',
      records: Array.from({ length: n }, (_, i) => ({ id: zoneId(100 + i), name: `Zone ${i}`, members })),
      before: at,
    }));
  if (there.length === 0) return put;
  const chosen = fc.shuffledSubarray(there, { minLength: 1 });
  return fc.oneof(
    put,
    fc.tuple(chosen, some(40), fc.boolean()).map(([ids, members, rename]): PlainEdit => ({
      name: 'change',
      kind: 'zone',
      changes: ids.map((one) => ({ id: one, set: rename ? { name: 'Other' } : { members } })),
    })),
    chosen.map((ids): PlainEdit => ({ name: 'remove', kind: 'zone', ids })),
    fc
      .tuple(chosen, before)
      .map(([ids, at]): PlainEdit => ({ name: 'order', kind: 'zone', ids, before: at })),
  );
}

/** What waits without a slot: put there, changed, dropped. */
function anyLeftOverEditOn(p: Plan): fc.Arbitrary<PlainEdit> {
  const put = fc.nat(20).map((n): PlainEdit => ({
    name: 'put',
    kind: 'leftOver',
    records: [fresh(500 + n, { name: `Waits ${n}` }), fresh(600 + n)],
    before: p.leftOver[0]?.id ?? null,
  }));
  if (p.leftOver.length === 0) return put;
  const chosen = fc.shuffledSubarray(
    p.leftOver.map((one) => one.id),
    { minLength: 1 },
  );
  return fc.oneof(
    put,
    chosen.map((ids): PlainEdit => ({ name: 'remove', kind: 'leftOver', ids })),
    chosen.map((ids): PlainEdit => ({ name: 'order', kind: 'leftOver', ids, before: null })),
    chosen.map((ids): PlainEdit => ({
      name: 'change',
      kind: 'leftOver',
      changes: ids.map((one) => ({ id: one, set: { note: 'for the other radio', tags: ['later'] } })),
    })),
  );
}

/** What a person does to this plan: mostly possible, sometimes late; sometimes two things as one. */
export function anyEditOn(p: Plan): fc.Arbitrary<Edit> {
  const plain = anyPlainEditOn(p);
  const two = plain.chain((first) => {
    const done = applyEdit(p, first);
    return fc.tuple(fc.constant(first), anyPlainEditOn(done.ok ? done.value : p));
  });
  return fc.oneof({ weight: 8, arbitrary: plain }, { weight: 1, arbitrary: asOne(two) });
}

const asOne = (edits: fc.Arbitrary<PlainEdit[]>): fc.Arbitrary<Edit> =>
  edits.map((of): Edit => ({ name: 'together', label: 'Two things', edits: of }));

function anyPlainEditOn(p: Plan): fc.Arbitrary<PlainEdit> {
  return fc.oneof(
    fc.tuple(someOf(p), anySet).map(([chosen, set]): PlainEdit => ({
      name: 'change',
      changes: chosen.map((one) => ({ id: one, set })),
    })),
    someOf(p).map((ids): PlainEdit => ({ name: 'remove', ids })),
    fc
      .record({
        placement: fc.constantFrom(...PLACEMENTS),
        at: fc.nat(100),
        n: fc.integer({ min: 1, max: 5 }),
      })
      .map(({ n, ...rest }): PlainEdit => ({
        name: 'place',
        ...rest,
        range: RANGE,
        channels: Array.from({ length: n }, (_, i) => fresh(i)),
      })),
    anyZoneEditOn(p),
    anyZoneEditOn(p),
    anyLeftOverEditOn(p),
    // To the radio's other side, and back.
    someOf(p).map((chosen): PlainEdit => ({
      name: 'arrange',
      how: 'move',
      moves: p.channels
        .filter((c) => chosen.includes(c.id))
        .map(({ id: one, slot, list }) => ({ id: one, from: slot, to: slot, list: 1 - list })),
    })),
    someOf(p).chain((chosen) => anyArrangementOf(p, chosen)),
    fc.constantFrom<PlainEdit>(
      { name: 'describe', set: { name: 'Other name', owner: { strict: true } } },
      { name: 'describe', set: { abbreviations: [['Ketterby', 'KY']] } },
      { name: 'set', settings: { 'tern-p2': { beep: false, squelch: 4 } } },
      { name: 'set', settings: { 'tern-p2': { beep: null } } },
    ),
    someOf(p).map((gone): PlainEdit =>
      inverseOf(
        {
          ...p,
          name: 'As it was',
          channels: p.channels.filter((c) => !gone.includes(c.id)),
          zones: p.zones.slice(1),
        },
        p,
      ),
    ),
  );
}

const edgeSlot = fc.oneof(
  fc.constantFrom(0, 1, SLOT_LIMIT - 1, SLOT_LIMIT),
  fc.integer({ min: 0, max: SLOT_LIMIT }),
);
const edgeText = (most: number) =>
  fc.oneof(
    fc.constantFrom('', ' '.repeat(most), 'x'.repeat(most), '𝄞'.repeat(most), '=1+1\n', '__proto__'),
    fc.anyText(most).map((text) => text.replaceAll('\0', '')),
  );
const edgeFields: fc.Arbitrary<Partial<Channel>> = fc.record(
  {
    name: edgeText(32),
    fitted: fc.dictionary(
      edgeText(40).filter((key) => key !== '__proto__'),
      edgeText(32),
      { maxKeys: 32, noNullPrototype: true },
    ),
    rx: fc.constantFrom(8_300, 275_000_000_000, 118_008_333),
    tx: fc.constantFrom(null, 8_300, 275_000_000_000),
    power: fc.constantFrom(1, 1_000_000),
    note: edgeText(500),
    access: anyAccess,
  },
  { noNullPrototype: true, requiredKeys: [] },
);

/** Edits that the schema accepts, with parameters at its edges; much of it is refused when it is run. */
export function hostileEditOn(p: Plan): fc.Arbitrary<Edit> {
  const plain = hostilePlainEditOn(p);
  return fc.oneof({ weight: 8, arbitrary: plain }, { weight: 1, arbitrary: asOne(fc.tuple(plain, plain)) });
}

function hostilePlainEditOn(p: Plan): fc.Arbitrary<PlainEdit> {
  const strangers: fc.Arbitrary<ChannelId[]> = fc.oneof(
    { weight: 4, arbitrary: someOf(p) },
    fc.constant<ChannelId[]>([id(999)]),
  );
  const zones = fc.constantFrom(
    ...p.zones.map((zone) => zone.id),
    ...p.zones.map((zone) => zone.id),
    zoneId(7),
  );
  const removing = strangers.map((ids): PlainEdit => ({ name: 'remove', ids: [...ids, ...ids.slice(0, 1)] }));
  // Where there is nothing to order there is little to learn of ordering it.
  const ordering = fc.tuple(zones, fc.option(zones)).map(([one, before]): PlainEdit => ({
    name: 'order',
    kind: 'zone',
    ids: [one, one],
    before,
  }));
  return fc.oneof(
    fc.tuple(strangers, edgeFields).map(([chosen, set]): PlainEdit => ({
      name: 'change',
      changes: chosen.map((one) => ({ id: one, set })),
    })),
    removing,
    fc.tuple(strangers, edgeText(32), fc.nat(4)).map(([members, name, n]): PlainEdit => ({
      name: 'put',
      kind: 'zone',
      records: [{ id: zoneId(n), name: name.trim() || 'x', members }],
      before: n === 3 ? zoneId(9) : null,
    })),
    fc.tuple(fc.nat(4), strangers).map(([n, members]): PlainEdit => ({
      name: 'change',
      kind: 'zone',
      changes: [{ id: zoneId(n), set: { members } }],
    })),
    p.zones.length > 0 ? ordering : fc.oneof(ordering, { weight: 5, arbitrary: removing }),
    fc
      .record({
        placement: fc.constantFrom(...PLACEMENTS),
        at: edgeSlot,
        first: edgeSlot,
        count: fc.constantFrom(1, 2, CHANNEL_LIMIT, CHANNEL_LIMIT),
        n: fc.integer({ min: 1, max: 4 }),
        fields: edgeFields,
      })
      .map(({ n, first, count, fields, ...rest }): PlainEdit => ({
        name: 'place',
        ...rest,
        range: { first, count },
        channels: Array.from({ length: n }, (_, i) => fresh(i % 3, fields)),
      })),
    fc.tuple(strangers, edgeSlot, fc.boolean()).map(([chosen, to, wrong]): PlainEdit => ({
      name: 'arrange',
      how: 'move',
      moves: chosen.map((one, i) => ({
        id: one,
        from: (p.channels.find((c) => c.id === one)?.slot ?? 0) + (wrong && i > 0 ? 1 : 0),
        to: Math.min(SLOT_LIMIT, to + i),
      })),
    })),
    fc
      .tuple(edgeText(60), fc.constantFrom('tern-p2', 'no such model', '__proto__'))
      .map(([name, modelId]): PlainEdit => ({
        name: 'describe',
        set: { name: name.trim() || 'x', modelId },
      })),
    fc
      .dictionary(
        fc.constantFrom('tern-p2', 'constructor', 'x'.repeat(40)),
        fc.dictionary(
          fc.constantFrom('beep', 'toString', 'k'.repeat(40)),
          fc.constantFrom<SettingValue | null>(true, -1, '', 'v'.repeat(64), null),
          { minKeys: 1 },
        ),
        { minKeys: 1 },
      )
      .map((settings): PlainEdit => ({ name: 'set', settings })),
    fc
      .record({
        slots: fc.array(edgeSlot, { maxLength: 3 }),
        twice: fc.boolean(),
        fields: edgeFields,
        remove: strangers,
      })
      .map(({ slots, twice, fields, remove }): PlainEdit => ({
        name: 'restore',
        records: {
          channel: {
            put: slots.map((slot, i) => ({ ...fresh(twice ? 0 : i, fields), list: i % 2, slot })),
            remove,
          },
          zone: { put: [{ id: zoneId(0), name: 'Back', members: remove }], remove: [], order: [zoneId(3)] },
        },
      })),
  );
}
