import equal from 'fast-deep-equal';
import { contentToWrite } from '../check';
import { decodeImage, encodeImage, type RadioContent } from '../image';
import type { FittedChannel } from '../models';
import { kestrelC1 } from '../models/kestrel-c1';
import { ternP2 } from '../models/tern-p2';
import { ternP3 } from '../models/tern-p3';
import { applyEdit, makeId, type Channel, type Edit, type Plan } from '../plan';
import * as fc from '../property.test.kit';
import { channel, plan } from '../samples.test.kit';
import { newMemory, UNITS } from '../../sim/bench/units';
import { changedByHand } from './by-hand';
import { offersOf } from './offers';

/**
 * Merges field by field against an oracle of two sentences: what one side changed and the other did not touch survives; receive and
 * transmit, and mode and access, are judged together, and where both sides touched such a group a person decides.
 */

type Fields = Pick<Channel, 'rx' | 'tx' | 'mode' | 'access' | 'power' | 'scan'>;
const GROUPS: (keyof Fields)[][] = [['rx', 'tx'], ['mode', 'access'], ['power'], ['scan']];

const open: Channel['access'] = { kind: 'analogue', send: null, expect: null };
const toned: Channel['access'] = { ...open, send: { kind: 'tone', tone: 885 } };
/** Few values, so that both sides often set the same field, and sometimes to the same value. */
const anyFields: fc.Arbitrary<Partial<Fields>> = fc.record(
  {
    rx: fc.constantFrom(145_500_000, 145_525_000, 145_612_500),
    tx: fc.constantFrom(null, 145_500_000, 145_525_000, 145_012_500),
    mode: fc.constantFrom('FM' as const, 'NFM' as const),
    access: fc.constantFrom(open, toned),
    power: fc.constantFrom(4000, 1000),
    scan: fc.boolean(),
  },
  { requiredKeys: [], noNullPrototype: true },
);
const BASE: Fields = { rx: 145_500_000, tx: 145_500_000, mode: 'FM', access: open, power: 4000, scan: true };

/** What is to stand after all that is free has been taken, and what is left to a person. */
function merged(base: Fields, theirs: Fields, mine: Fields) {
  const after = { ...mine };
  let clash = false;
  for (const group of GROUPS) {
    const touched = (side: Fields) => group.some((field) => !equal(side[field], base[field]));
    // What this side has likewise is settled.
    const open = group.filter((field) => ![base, mine].some((side) => equal(theirs[field], side[field])));
    if (open.length === 0) continue;
    if (touched(mine)) clash = true;
    else for (const field of group) Object.assign(after, { [field]: theirs[field] });
  }
  return { after, clash };
}

const fieldsOf = ({ rx, tx, mode, access, power, scan }: Channel): Fields => ({
  ...{ rx, tx, mode, access, power, scan },
});
const planWith = (fields: Fields): Plan => plan([channel(1, fields.rx, { ...fields, name: 'Hill' })]);
const taken = (own: Plan, edit: Edit | null): Plan => {
  const result = edit ? applyEdit(own, edit) : { ok: true as const, value: own };
  if (!result.ok) throw new Error(result.reason);
  return result.value;
};
const anySides = fc
  .tuple(anyFields, anyFields)
  .map(([theirs, mine]) => ({ theirs: { ...BASE, ...theirs }, mine: { ...BASE, ...mine } }));

test('offers of a sister plan: what one side changed survives, a group that both touched is a clash', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anySides, ({ theirs, mine }) => {
      const { offers, all } = offersOf(planWith(BASE), planWith(theirs), planWith(mine), ternP3);
      const { after, clash } = merged(BASE, theirs, mine);
      // An offer is taken whole or not at all: where a part of it clashes nothing is taken by itself.
      expect(offers.some((offer) => offer.clash)).toBe(clash);
      expect(fieldsOf(taken(planWith(mine), all).channels[0]!)).toEqual(clash ? mine : after);
      reached.count('clash', clash);
      reached.count('listen only here', mine.tx === null && theirs.rx !== BASE.rx);
      reached.count('free', all !== null);
    }),
    { numRuns: 1000 },
  );
  for (const kind of ['clash', 'free']) reached.expectShare(kind, 0.1);
  reached.expectShare('listen only here', 0.05);
});

const memory = newMemory(UNITS[0]!);
const heldAfter = (of: Plan): RadioContent => {
  const held = decodeImage(encodeImage(contentToWrite(of, ternP2), memory, ternP2), ternP2);
  if (!held.ok) throw new Error(held.reason);
  return held.value;
};
const byRadio = (held: RadioContent, { access, ...fields }: Fields): RadioContent => ({
  ...held,
  channels: held.channels.map((one): FittedChannel => ({
    ...one,
    ...fields,
    ...(access.kind === 'analogue' && { send: access.send, expect: access.expect }),
  })),
});

test('what was done on the keys of a radio: what one side changed survives, a group that both touched is a clash', () => {
  const reached = fc.tally();
  const written = planWith(BASE);
  const before = heldAfter(written);
  fc.assert(
    fc.property(anySides, ({ theirs, mine }) => {
      const { changes, all } = changedByHand(
        written,
        { before, radio: byRadio(before, theirs) },
        planWith(mine),
        ternP2,
        ({ slot }) => makeId('ch', Uint8Array.of(7, 7, 7, 7, 7, slot)),
      );
      const { after, clash } = merged(BASE, theirs, mine);
      expect(changes.some((change) => change.plan !== null)).toBe(clash);
      expect(fieldsOf(taken(planWith(mine), all).channels[0]!)).toEqual(clash ? mine : after);
      reached.count('clash', clash);
      reached.count('listen only here', mine.tx === null && theirs.rx !== BASE.rx);
      reached.count('free', all !== null);
    }),
    { numRuns: 1000 },
  );
  for (const kind of ['clash', 'free']) reached.expectShare(kind, 0.1);
  reached.expectShare('listen only here', 0.05);
});

/** What the keys of a digital radio change on a channel; talkgroups and lists by their number in the radio, 0 is none. */
interface Digital {
  colourCode: number;
  timeSlot: 1 | 2;
  talkgroup: number;
  receiveList: number;
  scanList: number;
  politeness: 'impolite' | 'own colour code' | 'all';
}
const DIGITAL: Digital = {
  ...{ colourCode: 1, timeSlot: 1, talkgroup: 1, receiveList: 1, scanList: 1, politeness: 'impolite' },
};
const DIGITAL_GROUPS: (keyof Digital)[][] = [
  // Colour code and time slot are one field: how the channel is opened.
  ['colourCode', 'timeSlot'],
  ['talkgroup'],
  ['receiveList'],
  ['scanList'],
  ['politeness'],
];
const anyDigital: fc.Arbitrary<Partial<Digital>> = fc.record(
  {
    colourCode: fc.constantFrom(1, 7),
    timeSlot: fc.constantFrom(1 as const, 2 as const),
    talkgroup: fc.constantFrom(0, 1, 2, 3),
    receiveList: fc.constantFrom(0, 1, 2),
    scanList: fc.constantFrom(0, 1, 2),
    politeness: fc.constantFrom('impolite' as const, 'own colour code' as const, 'all' as const),
  },
  { requiredKeys: [], noNullPrototype: true },
);
const idOf = (prefix: 'tg' | 'rl' | 'sl', number: number) => `${prefix}_test000${number}`;
const link = (prefix: 'tg' | 'rl' | 'sl', number: number) => (number === 0 ? null : idOf(prefix, number));

const digitalPlan = (of: Digital): Plan => ({
  ...plan([
    channel(1, 438_000_000, {
      ...{ name: 'Hill', tx: 430_400_000, mode: 'DMR', power: 4000 },
      access: { kind: 'dmr', colourCode: of.colourCode, timeSlot: of.timeSlot },
      talkgroup: link('tg', of.talkgroup) as Channel['talkgroup'],
      receiveList: link('rl', of.receiveList) as Channel['receiveList'],
      scanList: link('sl', of.scanList) as Channel['scanList'],
      politeness: of.politeness === 'all' ? { to: 'all', level: -100 } : { to: of.politeness },
    }),
  ]),
  modelId: 'kestrel-c1',
  ...JSON.parse(
    JSON.stringify({
      talkgroups: [1, 2, 3].map((n) => ({
        ...{ id: idOf('tg', n), name: `Group ${n}`, number: 100 + n, call: 'group', encrypted: false },
      })),
      receiveLists: [1, 2].map((n) => ({ id: idOf('rl', n), name: `List ${n}`, members: [idOf('tg', n)] })),
      scanLists: [1, 2].map((n) => ({
        ...{ id: idOf('sl', n), name: `Scan ${n}`, members: [], first: null, second: null },
        ...{ answers: 'heard', startsItself: false },
      })),
    }),
  ),
});
const digitalOf = (one: Channel): Digital => {
  if (one.access.kind !== 'dmr') throw new Error('It has become analogue');
  const number = (linked: string | null | undefined) => Number(linked?.slice(-1) ?? 0);
  return {
    ...{ colourCode: one.access.colourCode, timeSlot: one.access.timeSlot },
    talkgroup: number(one.talkgroup),
    receiveList: number(one.receiveList),
    scanList: number(one.scanList),
    politeness: one.politeness?.to ?? 'impolite',
  };
};

test('on a digital radio too: colour code and time slot, talkgroup, lists and politeness', () => {
  const reached = fc.tally();
  const written = digitalPlan(DIGITAL);
  const before = heldOf(written);
  expect(before.channels).toHaveLength(1);
  const none = (number: number) => (number === 0 ? null : number);
  const after = ({ talkgroup, receiveList, scanList, ...of }: Digital): RadioContent => ({
    ...before,
    channels: before.channels.map((one) => ({
      ...one,
      scanList: none(scanList),
      digital: {
        ...one.digital!,
        ...of,
        ...{ talkgroup: none(talkgroup), receiveList: none(receiveList) },
        level: of.politeness === 'all' ? -100 : null,
      },
    })),
  });
  fc.assert(
    fc.property(anyDigital, anyDigital, (theirs, mine) => {
      const [radio, own] = [
        { ...DIGITAL, ...theirs },
        { ...DIGITAL, ...mine },
      ];
      const { changes, all } = changedByHand(
        written,
        { before, radio: after(radio) },
        digitalPlan(own),
        kestrelC1,
        ({ slot }) => makeId('ch', Uint8Array.of(7, 7, 7, 7, 7, slot)),
      );
      const wanted = { ...own };
      let clash = false;
      for (const group of DIGITAL_GROUPS) {
        const touched = (side: Digital) => group.some((field) => side[field] !== DIGITAL[field]);
        if (!touched(radio) || group.every((field) => radio[field] === own[field])) continue;
        if (touched(own)) clash = true;
        else for (const field of group) Object.assign(wanted, { [field]: radio[field] });
      }
      expect(changes.some((change) => change.plan !== null)).toBe(clash);
      expect(digitalOf(taken(digitalPlan(own), all).channels[0]!)).toEqual(clash ? own : wanted);
      reached.count('clash', clash);
      reached.count('free', all !== null);
    }),
    { numRuns: 500 },
  );
  for (const kind of ['clash', 'free']) reached.expectShare(kind, 0.1);
});

test('a digital channel that was put in on the keys comes back digital, with whom it calls', () => {
  const empty = { ...digitalPlan(DIGITAL), channels: [] };
  const [there] = contentToWrite(
    digitalPlan({ ...DIGITAL, colourCode: 7, talkgroup: 2 }),
    kestrelC1,
  ).channels;
  const none = heldOf(empty);
  const { changes, all } = changedByHand(
    empty,
    { before: none, radio: { ...none, channels: [there!] } },
    empty,
    kestrelC1,
    ({ slot }) => makeId('ch', Uint8Array.of(7, 7, 7, 7, 7, slot)),
  );
  expect(changes).toMatchObject([{ what: 'added', plan: null }]);
  expect(changes[0]!.radio).toMatch(/calls Group 2/);
  expect(digitalOf(taken(empty, all).channels[0]!)).toEqual({ ...DIGITAL, colourCode: 7, talkgroup: 2 });
});

test('a talkgroup that the plan does not have comes along, once for all channels that call it', () => {
  const two = digitalPlan(DIGITAL);
  const second = { ...two.channels[0]!, id: makeId('ch', Uint8Array.of(9, 9, 9, 9, 9, 9)), slot: 2 };
  const written = { ...two, channels: [...two.channels, second] };
  const before = heldOf(written);
  const radio: RadioContent = {
    ...before,
    talkgroups: [...before.talkgroups, { number: 4, name: 'Harbour', address: 777, call: 'group' }],
    channels: before.channels.map((one) => ({ ...one, digital: { ...one.digital!, talkgroup: 4 } })),
  };
  const changed = (own: Plan) =>
    changedByHand(written, { before, radio }, own, kestrelC1, ({ slot }) =>
      makeId('ch', Uint8Array.of(7, 7, 7, 7, 7, slot)),
    );
  const { changes, all } = changed(written);
  expect(changes.map(({ radio: says, plan: own }) => [says, own])).toEqual([
    ['calls Harbour', null],
    ['calls Harbour', null],
  ]);
  const after = taken(written, all);
  expect(after.talkgroups.slice(3)).toMatchObject([{ name: 'Harbour', number: 777, call: 'group' }]);
  const id = after.talkgroups[3]!.id;
  expect(after.channels.map(({ talkgroup }) => talkgroup)).toEqual([id, id]);
  // Each alone brings it too, and once it is taken nothing is left to say.
  expect(taken(written, changes[0]!.edit).channels[0]!.talkgroup).toBe(id);
  expect(changed(after).changes).toEqual([]);
});

function heldOf(of: Plan): RadioContent {
  const unit = UNITS.find(({ id }) => id === 'kestrel-1')!;
  const held = decodeImage(encodeImage(contentToWrite(of, kestrelC1), newMemory(unit), kestrelC1), kestrelC1);
  if (!held.ok) throw new Error(held.reason);
  return held.value;
}
