import * as fc from '../property.test.kit';
import { wiredIn } from '../check/wired.test.kit';
import { anyDigitalPlan, anyRemovalOn, digital, groupId, scanId, zoneIdOf } from '../digital.test.kit';
import { fit } from '../fit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import type { Model } from '../models';
import { applyEdit, danglingFault, inverseOf, type Plan } from '../plan';
import { channel, id, plan, run } from '../samples.test.kit';
import {
  canWire,
  copiedTo,
  joining,
  MATRIX_KINDS,
  matrixOf,
  outOfReach,
  positionsOf,
  putAt,
  roomOf,
  swapped,
  wireEdit,
  wireKey,
  wiringOf,
  type MatrixKind,
} from '.';

/** Zones, knobs, lists and the wires between them, whatever is done to them. */

const MODELS: readonly Model[] = [kestrelC1, ospreyD7];
const anyPlanOn = fc
  .constantFrom(...MODELS)
  .chain((model) => fc.tuple(fc.constant(model), anyDigitalPlan(model.id)));

/** What the radio would hold refers to nothing that it does not hold, and nothing in it is larger than the radio has room for. */
function sound(p: Plan, model: Model): void {
  const held = fit(p, model);
  const slots = new Set(held.channels.map(({ slot }) => slot));
  const numbers = (of: readonly { number: number }[]) =>
    new Set<number | null>(of.map(({ number }) => number));
  const [groups, lists, scans] = [held.talkgroups, held.receiveLists, held.scanLists].map(numbers);
  for (const set of [groups!, lists!, scans!]) set.add(null);
  for (const { digital: own, scanList = null } of held.channels) {
    if (
      !groups!.has(own?.talkgroup ?? null) ||
      !lists!.has(own?.receiveList ?? null) ||
      !scans!.has(scanList)
    )
      throw new Error(`A channel names what the radio does not hold: ${JSON.stringify({ own, scanList })}`);
  }
  for (const { slots: of, knob = [], scanList = null } of held.zones) {
    expect(of.every((slot) => slots.has(slot)) && new Set(of).size === of.length).toBe(true);
    expect(of.length).toBeLessThanOrEqual(model.zones!.members!);
    expect(knob.every((slot) => slot === 0 || of.includes(slot)) && knob.length <= 16).toBe(true);
    expect(scans!.has(scanList)).toBe(true);
  }
  for (const { slots: of, first, second } of held.scanLists) {
    expect(
      [...of, first ?? of[0], second ?? of[0]].every((slot) => slot === undefined || slots.has(slot)),
    ).toBe(true);
    expect(of.length).toBeLessThanOrEqual(model.scanLists!.members);
  }
  for (const { members } of held.receiveLists) {
    expect(members.every((number) => groups!.has(number))).toBe(true);
    expect(members.length).toBeLessThanOrEqual(model.digital!.receiveLists.members);
  }
}

test('whatever is joined, parted or taken away: nothing refers to what is gone, no list outgrows the radio, and it can be taken back', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlanOn.chain(([model, p]) =>
        fc.tuple(
          fc.constant(model),
          fc.constant(p),
          fc.constantFrom(...MATRIX_KINDS),
          fc.boolean(),
          fc.infiniteStream(fc.nat(1000)),
          fc.option(anyRemovalOn(p), { freq: 2 }),
        ),
      ),
      ([model, p, kind, on, dice, removal]) => {
        const { rows, columns } = matrixOf(p, model, kind);
        const pick = <T>(of: readonly T[]) => of[(dice.next().value as number) % of.length]!;
        const cells = Array.from({ length: 100 }, () => ({
          column: pick(columns)?.id,
          row: pick(rows)?.id,
        })).filter(
          (cell): cell is { column: string; row: string } =>
            cell.column !== undefined && cell.row !== undefined,
        );
        const { edit, done, over } = joining(p, model, kind, cells, on);
        let now = p;
        if (edit) {
          now = run(p, edit);
          const after = matrixOf(now, model, kind).columns;
          const most = roomOf(kind, model)!.members!;
          let [changed, missing] = [0, 0];
          for (const [at, column] of after.entries()) {
            const before = columns[at]!.members;
            changed += Math.abs(column.members.size - before.size);
            if (on) expect(column.members.size).toBeLessThanOrEqual(Math.max(most, before.size));
            const wanted = new Set(cells.filter((cell) => cell.column === column.id).map(({ row }) => row));
            for (const row of wanted) if (column.members.has(row) !== on) missing++;
          }
          expect([done, over]).toEqual([changed, missing]);
          expect(run(now, inverseOf(p, now))).toEqual(p);
        } else expect(done).toBe(0);
        sound(now, model);
        if (removal) {
          const gone = run(p, removal);
          expect(danglingFault(gone)).toBeNull();
          sound(gone, model);
          expect(run(gone, inverseOf(p, gone))).toEqual(p);
        }
        reached.count('joined', edit !== null && on);
        reached.count('parted', edit !== null && !on);
        reached.count('without room', over > 0);
        reached.count('taken away', removal !== null);
      },
    ),
    { numRuns: 300 },
  );
  reached.expectShare('joined', 0.2);
  reached.expectShare('parted', 0.2);
  reached.expectShare('without room', 0.03);
  reached.expectShare('taken away', 0.3);
});

test('channels of one plan are placed, or left over, in another: nothing comes along that leads nowhere', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyDigitalPlan('kestrel-c1'),
      anyDigitalPlan('kestrel-c1'),
      fc.boolean(),
      (p, other, waits) => {
        const own: Plan = { ...p, channels: [], scanLists: [], zones: [] };
        const channels = other.channels.map(({ slot: _, list: _list, ...fields }) => fields);
        const range = kestrelC1.slots;
        const after = run(
          own,
          waits
            ? { name: 'put', kind: 'leftOver', records: channels, before: null }
            : { name: 'place', channels, placement: 'next-free', at: 1, range },
        );
        expect(danglingFault(after)).toBeNull();
        const there = new Set<unknown>(own.talkgroups.map((group) => group.id));
        for (const [at, channel] of (waits ? after.leftOver : after.channels).entries()) {
          const was = other.channels[at]!;
          // What is there under the same id is called on.
          expect(channel.talkgroup ?? null).toBe(there.has(was.talkgroup) ? was.talkgroup : null);
          expect(channel.name).toBe(was.name);
          reached.count('lost', (was.talkgroup ?? null) !== (channel.talkgroup ?? null));
          reached.count('kept', Boolean(channel.talkgroup));
        }
      },
    ),
    { numRuns: 150 },
  );
  reached.expectShare('lost', 0.05);
  reached.expectShare('kept', 0.05);
});

describe('the knob', () => {
  const p: Plan = {
    ...plan([1, 2, 3, 4].map((slot) => digital(slot))),
    modelId: 'kestrel-c1',
    zones: [
      { id: zoneIdOf(1), name: 'Team', members: [id(1), id(2)] },
      { id: zoneIdOf(2), name: 'Water', members: [id(3)], knob: [{ channel: null }, { channel: id(3) }] },
    ],
  };
  const knob = (now: Plan, at: number) => positionsOf(now.zones[at]!, kestrelC1);

  test('without an arrangement it turns to the members in their order, and has sixteen positions', () => {
    expect(knob(p, 0)).toEqual([id(1), id(2), ...Array.from({ length: 14 }, () => null)]);
    expect(knob(p, 1).slice(0, 3)).toEqual([null, id(3), null]);
    expect(fit(p, kestrelC1).zones.map((zone) => zone.knob)).toEqual([
      [1, 2],
      [0, 3],
    ]);
  });
  test('several places at once, over what is there; what was elsewhere goes from there', () => {
    const now = run(p, putAt(p.zones[0]!, kestrelC1, 2, [id(1), null, id(4)]));
    expect(knob(now, 0).slice(0, 5)).toEqual([null, id(1), null, id(4), null]);
    // what lost its position stays in the zone, out of the knob's reach
    expect(outOfReach(now.zones[0]!, now, kestrelC1)).toEqual([id(2)]);
    expect(now.zones[0]!.members).toEqual([id(1), id(2), id(4)]);
    expect(fit(now, kestrelC1).besides.map(({ text }) => text)).toContain(
      'One channel is out of the knob’s reach',
    );
  });
  test('what went from the zone is at no position, whoever took it out', () => {
    const knobbed = run(p, putAt(p.zones[0]!, kestrelC1, 1, [id(1), id(2), id(4)]));
    // By rule or by hand: the members alone are set, and the knob still names it.
    const set = { members: [id(1), id(4)] };
    const now = run(knobbed, { name: 'change', kind: 'zone', changes: [{ id: zoneIdOf(1), set }] });
    expect(knob(now, 0).slice(0, 4)).toEqual([id(1), null, id(4), null]);
    expect(fit(now, kestrelC1).zones[0]).toMatchObject({ slots: [1, 4], knob: [1, 0, 4] });
  });
  test('beyond the last position nothing is taken', () => {
    const now = run(p, putAt(p.zones[0]!, kestrelC1, 16, [id(3), id(4)]));
    expect(knob(now, 0)[15]).toBe(id(3));
    expect(now.zones[0]!.members).not.toContain(id(4));
  });
  test('two are swapped, and the arrangement is copied to the next zone', () => {
    const now = run(p, swapped(p.zones[0]!, kestrelC1, 1, 5));
    expect(knob(now, 0).slice(0, 5)).toEqual([null, id(2), null, null, id(1)]);
    const copied = run(now, copiedTo(now.zones[0]!, now.zones[1]!, kestrelC1));
    expect(knob(copied, 1)).toEqual(knob(now, 0));
    expect(outOfReach(copied.zones[1]!, copied, kestrelC1)).toEqual([id(3)]);
  });
});

describe('the wiring', () => {
  test('a wire is drawn and taken away again between whatever two things, and the plan is sound', () => {
    const reached = fc.tally();
    fc.assert(
      fc.property(
        anyPlanOn.chain(([model, p]) => {
          const keys = wiringOf(p, model, { focus: null }).columns.flatMap(({ kind, nodes }) =>
            nodes.map((node) => wireKey(kind, node.id)),
          );
          return fc.tuple(
            fc.constant(model),
            fc.constant(p),
            fc.constantFrom(...keys),
            fc.constantFrom(...keys),
          );
        }),
        ([model, p, a, b]) => {
          const drawn = wireEdit(p, model, a, b);
          if (!drawn) return;
          expect(canWire(a, b, model)).toBe(true);
          const now = run(p, drawn.edit);
          const has = (of: Plan) =>
            wiringOf(of, model, { focus: null }).wires.some(
              ({ from, to }) => (from === a && to === b) || (from === b && to === a),
            );
          sound(now, model);
          const again = wireEdit(now, model, a, b);
          reached.count('drawn', drawn.on);
          if (!again) return;
          expect(again.on).toBe(!drawn.on);
          expect([has(p), has(now)]).toEqual([!drawn.on, drawn.on]);
        },
      ),
      { numRuns: 400 },
    );
    reached.expectShare('drawn', 0.3);
  });

  const chain: Plan = {
    ...plan([
      digital(1, { talkgroup: groupId(1), scanList: scanId(1) }),
      digital(2),
      channel(3, 433_500_000),
    ]),
    modelId: 'kestrel-c1',
    talkgroups: [{ id: groupId(1), name: 'Isles', number: 416, call: 'group' }],
    scanLists: [
      {
        id: scanId(1),
        name: 'Round',
        members: [id(1), id(2)],
        first: null,
        second: null,
        answers: 'begun',
        startsItself: false,
      },
    ],
    zones: [{ id: zoneIdOf(1), name: 'Team', members: [id(2), id(1)] }],
  };

  test('from a zone on it is followed to what its channels call and scan; the rest is there, and not followed', () => {
    const { columns, wires } = wiringOf(chain, kestrelC1, { focus: wireKey('zone', zoneIdOf(1)) });
    expect(columns.map(({ kind, nodes }) => [kind, nodes.map(({ name, on }) => `${name} ${on}`)])).toEqual([
      ['zone', ['Team true']],
      // by the knob
      ['channel', ['Digital 2 true', 'Digital 1 true', 'Station 3 false']],
      ['talkgroup', ['Isles true']],
      ['receiveList', []],
      ['scanList', ['Round true']],
      ['member', ['Digital 1 true', 'Digital 2 true', 'Station 3 false']],
    ]);
    expect(columns[1]!.nodes[0]!.detail).toBe('knob 1 · 002 · 439.4125');
    expect(columns[2]!.nodes[0]!.detail).toBe('416 (0x1A0)');
    expect(wires).toHaveLength(6);
  });
  test('a silent scan is told of, and the mend makes it heard', () => {
    const said = wiredIn(chain, kestrelC1).find(({ rule }) => rule === 'silent-scan')!;
    expect(said).toMatchObject({ kind: 'channel', id: id(2), severity: 'caution' });
    expect(said.text).toBe(
      'A scan begun on “Digital 2” is silent: the channel has no scan list, though “Round” has the channel.',
    );
    const mended = run(chain, said.mends[0]!.edit);
    expect(mended.channels[1]!.scanList).toBe(scanId(1));
    expect(wiredIn(mended, kestrelC1).some(({ rule }) => rule === 'silent-scan')).toBe(false);
  });
});

test('every mend of what is said of the wiring holds, and takes what was said away', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anyPlanOn, ([model, p]) => {
      for (const { rule, id: about, mends } of wiredIn(p, model))
        for (const { edit } of mends) {
          const mended = applyEdit(p, edit);
          expect([rule, mended.ok]).toEqual([rule, true]);
          if (!mended.ok) continue;
          expect(danglingFault(mended.value)).toBeNull();
          const still = wiredIn(mended.value, model).filter(
            (one) => one.rule === rule && one.id === about && one.mends.length > 0,
          );
          // A list may stop on several stations, each with a mend of its own.
          const before = wiredIn(p, model).filter((one) => one.rule === rule && one.id === about);
          expect([rule, still.length < before.length]).toEqual([rule, true]);
          reached.count(rule, true);
        }
    }),
    { numRuns: 150 },
  );
  for (const rule of [
    'silent-scan',
    'scan-list-unused',
    'group-not-in-list',
    'talkgroup-doubled',
    'alike-in-name',
  ])
    reached.expectTimes(rule, 1);
});

test.each(['zone', 'scanList', 'receiveList'] as const)(
  'the matrix of %ss counts what is taken',
  (kind: MatrixKind) => {
    const p = {
      ...plan([digital(1)]),
      modelId: 'kestrel-c1',
      zones: [{ id: zoneIdOf(1), name: 'A', members: [id(1)] }],
    };
    const { rows, columns, most } = matrixOf(p, kestrelC1, kind);
    expect([rows.length, columns.length, most]).toEqual(
      { zone: [1, 1, 48], scanList: [1, 0, 64], receiveList: [0, 0, 64] }[kind],
    );
  },
);
