import { id, placing, three } from '../samples.test.kit';
import {
  editLabel,
  labelOfEdit,
  labelPartsSchema,
  labelWords,
  rebaseEdit,
  type ChannelSet,
  type Edit,
  type ZoneId,
} from '.';
import { run } from '../samples.test.kit';

const change = (set: ChannelSet, ...numbers: number[]): Edit => ({
  name: 'change',
  changes: numbers.map((n) => ({ id: id(n), set })),
});
const moves = [{ id: id(1), from: 1, to: 3 }];

const ZONE = { id: 'zn_test0001' as ZoneId, name: 'Day', members: [] };
const zoned = { ...three, zones: [ZONE, { ...ZONE, id: 'zn_test0002' as ZoneId, name: 'Night' }] };

test.each<[Edit, string]>([
  [{ name: 'put', kind: 'zone', records: [ZONE], before: null }, 'Add the zone “Day”'],
  [{ name: 'put', kind: 'zone', records: [ZONE, { ...ZONE, name: 'Night' }], before: null }, 'Add 2 zones'],
  [{ name: 'order', kind: 'zone', ids: [ZONE.id], before: null }, 'Order 1 zone'],
  [{ name: 'describe', set: { settings: {} } }, 'Change the radio’s settings'],
  [{ name: 'set', settings: { 'tern-p2': { beep: true } } }, 'Change a setting of the radio'],
  [{ name: 'set', settings: { 'tern-p2': { beep: true, squelch: null } } }, 'Change 2 settings of the radio'],
  [{ name: 'restore', settings: { 'tern-p2': { beep: true } } }, 'Restore settings of the radio'],
  [{ name: 'describe', set: { uses: [] } }, 'Change the documents that the plan uses'],
  [{ name: 'describe', set: { origin: null } }, 'Part from the plan that it came from'],
  [change({ rx: 145_700_000 }, 2), 'Set receive of “Ullsmere Hill” to 145.700'],
  [change({ tx: null }, 2), 'Set “Ullsmere Hill” to listen only'],
  [change({ tx: 145_000_000, txFixed: true }, 2), 'Set transmit of “Ullsmere Hill” to 145.000'],
  [change({ mode: 'NFM' }, 1, 2, 5), 'Set mode of 3 channels to NFM'],
  [change({ power: 500 }, 2), 'Set power of “Ullsmere Hill” to 0.5 W'],
  [
    change({ access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null } }, 2),
    'Set access of “Ullsmere Hill” to 88.5',
  ],
  [
    change({ access: { kind: 'analogue', send: null, expect: null } }, 2),
    'Set access of “Ullsmere Hill” to open',
  ],
  [change({ scan: true }, 2), 'Scan: “Ullsmere Hill”'],
  [change({ scan: false }, 1, 2), 'Leave out of the scan: 2 channels'],
  [change({ name: 'Hill' }, 2), 'Rename “Ullsmere Hill” to “Hill”'],
  [change({ note: 'x' }, 2), 'Change note of “Ullsmere Hill”'],
  [change({ satellite: true }, 2), 'Mark “Ullsmere Hill” as working a satellite'],
  [change({ satellite: false }, 2), 'Mark “Ullsmere Hill” as not working a satellite'],
  [change({ mode: 'NFM', power: 500 }, 2), 'Change “Ullsmere Hill”'],
  [
    {
      name: 'change',
      changes: [
        { id: id(1), set: { power: 500 } },
        { id: id(2), set: { power: 1000 } },
      ],
    },
    'Set power of 2 channels',
  ],
  [placing(8), 'Place “Station 8”'],
  [placing(8, 9), 'Place 2 channels'],
  [{ name: 'remove', ids: [id(2)] }, 'Remove “Ullsmere Hill”'],
  [{ name: 'remove', ids: [id(1), id(2)] }, 'Remove 2 channels'],
  [{ name: 'arrange', how: 'move', moves }, 'Move 1 channel'],
  [{ name: 'arrange', how: 'swap', moves }, 'Swap 1 channel'],
  [{ name: 'arrange', how: 'close gaps', moves }, 'Close gaps: 1 channel'],
  [{ name: 'arrange', how: 'sort', moves }, 'Sort 1 channel'],
  [{ name: 'arrange', how: 'renumber', moves }, 'Renumber 1 channel'],
  [{ name: 'describe', set: { name: 'Autumn' } }, 'Rename the plan to “Autumn”'],
  [{ name: 'describe', set: { owner: { strict: true } } }, 'Change the plan’s details'],
])('%j reads: %s', (edit, label) => {
  expect(editLabel(edit, three)).toBe(label);
  // What the log has of it comes to the same.
  const saved: unknown = JSON.parse(JSON.stringify(labelOfEdit(edit, three)));
  expect(labelWords(labelPartsSchema.parse(saved))).toBe(label);
});

test('a label reads the same whatever order the database gives its parts', () => {
  for (const records of [
    { channel: 1, zone: 2 },
    { zone: 2, channel: 1 },
  ])
    expect(labelWords({ of: 'restore', rest: 'nothing', records })).toBe('Restore 1 channel and 2 zones');
});

test('a channel without a name goes by its frequency', () => {
  const nameless = run(three, change({ name: '' }, 2));
  expect(editLabel(change({ tx: null }, 2), nameless)).toBe('Set “145.6125” to listen only');
});

describe('a field that may be missing', () => {
  test('set to two things at once is a conflict like any other', () => {
    const newest = run(three, change({ satellite: false }, 2));
    expect(rebaseEdit(change({ satellite: true }, 2), three, newest)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('working a satellite'),
    });
  });
  test('is none beside another field', () => {
    const newest = run(three, change({ power: 500 }, 2));
    expect(rebaseEdit(change({ satellite: true }, 2), three, newest)).toMatchObject({ ok: true });
  });
});

test.each<[Edit, string]>([
  [
    { name: 'change', kind: 'zone', changes: [{ id: ZONE.id, set: { name: 'Dawn' } }] },
    'Change name of the zone “Day”',
  ],
  [
    { name: 'change', kind: 'zone', changes: [{ id: ZONE.id, set: { name: 'Dawn', members: [] } }] },
    'Change the zone “Day”',
  ],
  [
    {
      name: 'change',
      kind: 'zone',
      changes: zoned.zones.map(({ id: one }) => ({ id: one, set: { members: [] } })),
    },
    'Change channels of 2 zones',
  ],
  [{ name: 'remove', kind: 'zone', ids: [ZONE.id] }, 'Remove the zone “Day”'],
  [{ name: 'remove', kind: 'zone', ids: zoned.zones.map(({ id: one }) => one) }, 'Remove 2 zones'],
])('of a zone: %j', (edit, label) => expect(editLabel(edit, zoned)).toBe(label));
