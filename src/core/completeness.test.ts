import { compareStates } from './compare';
import { kestrelC1 } from './models/kestrel-c1';
import { ospreyD7 } from './models/osprey-d7';
import { bringIn, moveToModel, newSide } from './organise';
import { digital, groupId, receiveId, scanId, zoneIdOf } from './digital.test.kit';
import {
  applyEdit,
  FIELD_NAMES,
  idsOf,
  inverseOf,
  isNoDifference,
  difference,
  KIND_NAMES,
  KINDS,
  readDocument,
  rebaseEdit,
  recordsOf,
  withRecords,
  type AnyRecord,
  type Channel,
  type Edit,
  type Kind,
  type Plan,
  type ScanEdgeId,
  type SetUpId,
  type SkipSetId,
} from './plan';
import { channel, id, plan, run } from './samples.test.kit';

/**
 * Every field of every kind by every place that handles records: each field is changed alone, and each place has to notice. A field without
 * a sample here is a type error; a place that need not notice it is a row in WHY_NOT with its reason.
 */

const skipId = (n: number) => `sk_test000${n}` as SkipSetId;
const edgeId = (n: number) => `se_test000${n}` as ScanEdgeId;
const setUpId = (n: number) => `qs_test000${n}` as SetUpId;

const one: Channel = {
  ...digital(1, { talkgroup: groupId(1), receiveList: receiveId(1), scanList: scanId(1) }),
  ...{ politeness: { to: 'impolite' }, name: 'One' },
};
const two = digital(2, {
  talkgroup: groupId(2),
  receiveList: receiveId(2),
  scanList: scanId(2),
  name: 'Two',
});
const waiting = (({ slot: _, list: _list, ...rest }) => ({ ...rest, id: id(9), name: 'Waits' }))(
  channel(3, 433_500_000, {}),
);
const base: Plan = {
  ...plan([one, two]),
  modelId: 'kestrel-c1',
  leftOver: [waiting],
  talkgroups: [
    { id: groupId(1), name: 'Isles', number: 100, call: 'group' },
    { id: groupId(2), name: 'Boats', number: 200, call: 'group' },
  ],
  receiveLists: [
    { id: receiveId(1), name: 'All', members: [groupId(1)] },
    { id: receiveId(2), name: 'Some', members: [groupId(2)] },
  ],
  scanLists: [1, 2].map((n) => ({
    ...{ id: scanId(n), name: `Round ${n}`, members: [id(1)], first: null, second: null },
    ...{ answers: 'heard' as const, startsItself: false },
  })),
  zones: [{ id: zoneIdOf(1), name: 'Team', members: [id(1)] }],
  skipSets: [{ id: skipId(1), name: 'Set', way: 'all but', members: [id(1)] }],
  scanEdges: [{ id: edgeId(1), name: 'Edge', list: 0, from: 144_000_000, to: 146_000_000 }],
  setUps: [{ id: setUpId(1), name: 'Day', sides: [newSide()] }],
};

/** Another value for each field that a person sets. */
const channelFields: Record<Exclude<keyof Channel, 'id' | 'list' | 'slot'>, unknown> = {
  name: 'Other',
  fitted: { 'kestrel-c1': 'OTHER' },
  rx: 439_425_000,
  tx: null,
  txFixed: true,
  access: { kind: 'dmr', colourCode: 9, timeSlot: 2 },
  mode: 'NFM',
  power: 1000,
  scan: false,
  alwaysOn: true,
  satellite: true,
  talkgroup: groupId(2),
  receiveList: receiveId(2),
  scanList: scanId(2),
  politeness: { to: 'all', level: -100 },
  note: 'A note',
  tags: ['net'],
  source: { directory: 'Relay Register', entry: 'RR-1', service: 'amateur', call: 'Q7ABC' },
  unclear: { rx: '14x' },
};
const OTHER: { [K in Kind]: Record<Exclude<keyof (typeof KINDS)[K]['words']['fields'], 'id'>, unknown> } = {
  channel: { ...channelFields, list: 1, slot: 9 },
  leftOver: { ...channelFields, list: undefined, slot: undefined },
  zone: { name: 'Other', members: [id(1), id(2)], knob: [{ channel: id(1) }], scanList: scanId(2) },
  skipSet: { name: 'Other', way: 'only', members: [id(2)] },
  scanEdge: { name: 'Other', list: 1, from: 144_500_000, to: 145_500_000 },
  setUp: { name: 'Other', sides: [{ ...newSide(), scanning: true }] },
  talkgroup: { name: 'Other', number: 999, call: 'private', encrypted: true },
  receiveList: { name: 'Other', members: [groupId(1), groupId(2)] },
  scanList: {
    ...{ name: 'Other', members: [id(1), id(2)], first: id(1), second: id(1) },
    ...{ answers: 'begun', startsItself: true },
  },
};

interface Case {
  kind: Kind;
  field: string;
  value: unknown;
  after: Plan;
}
const cases: Case[] = KIND_NAMES.flatMap((kind) =>
  Object.entries(OTHER[kind]).flatMap(([field, value]) => {
    if (value === undefined) return [];
    const [first, ...rest] = recordsOf(base, kind) as readonly AnyRecord[];
    const changed = withRecords(base, kind, [{ ...first!, [field]: value } as AnyRecord, ...rest]);
    // Channels stand in the order of their lists and slots.
    const after =
      kind === 'channel' && (field === 'slot' || field === 'list')
        ? { ...changed, channels: changed.channels.toReversed() }
        : changed;
    return [{ kind, field, value, after }];
  }),
);

/** The edit by which a person sets the field. */
function editOf({ kind, field, value }: Case): Edit {
  const first = recordsOf(base, kind)[0]!;
  if (kind === 'channel' && (field === 'slot' || field === 'list'))
    return {
      ...{ name: 'arrange', how: 'move' },
      moves: [{ id: id(1), from: 1, to: field === 'slot' ? 9 : 1, ...(field === 'list' && { list: 1 }) }],
    };
  // Transmit of its own is said with transmit.
  const set = field === 'txFixed' ? { tx: one.tx, txFixed: value } : { [field]: value };
  return { name: 'change', kind, changes: [{ id: first.id, set }] } as unknown as Edit;
}

const brought = (source: Plan) => {
  let n = 0;
  const own = { ...plan([]), modelId: 'kestrel-c1', channels: [] };
  const wish = { clear: false, from: 1, sides: {} };
  const { edit } = bringIn(
    own,
    source,
    kestrelC1,
    wish,
    idsOf(() => Uint8Array.from(String(++n).padStart(8, '0'), Number)),
  );
  return edit ? run(own, edit) : own;
};
/** A plan without what only ids say: records by their names. */
function byNames(of: Plan): string {
  const names = new Map(
    KIND_NAMES.flatMap((kind) =>
      (recordsOf(of, kind) as readonly AnyRecord[]).map(({ id: own, name }) => [
        own as string,
        `${kind} ${name}`,
      ]),
    ),
  );
  const text = JSON.stringify(KIND_NAMES.map((kind) => recordsOf(of, kind)));
  return text.replace(/"([a-z]{2}_[a-z0-9]+)"/g, (_, own: string) => JSON.stringify(names.get(own) ?? own));
}

/** Each place: true where it notices the change. */
const PLACES: Record<string, (one: Case) => boolean> = {
  edit: (of) => {
    const result = applyEdit(base, editOf(of));
    if (!result.ok) throw new Error(result.reason);
    const [first] = recordsOf(result.value, of.kind).filter((r) => r.id === recordsOf(base, of.kind)[0]!.id);
    expect((first as unknown as Record<string, unknown>)[of.field]).toEqual(of.value);
    return true;
  },
  difference: ({ after }) => !isNoDifference(difference(base, after)),
  undo: ({ after }) => {
    expect(run(after, inverseOf(base, after))).toEqual(base);
    return true;
  },
  'two at once': (of) => !rebaseEdit(editOf(of), base, run(base, editOf(of))).ok,
  history: ({ kind, field, after }) => {
    const { channels, besides } = compareStates(base, after);
    if (kind !== 'channel') {
      const words = (KINDS[kind].words.fields as Record<string, string>)[field]!;
      return besides.some((said) => said.includes(words));
    }
    const words = field === 'txFixed' ? 'transmit follows receive' : FIELD_NAMES[field as keyof Channel];
    return channels.some(({ fields }) => fields.some((said) => said.field === words));
  },
  document: ({ after }) => {
    const read = readDocument(JSON.parse(JSON.stringify(after)));
    expect(read).toEqual({ ok: true, value: after });
    return read.ok;
  },
  'move to another model': ({ after }) =>
    byNames(moveToModel(after, ospreyD7).plan) !== byNames(moveToModel(base, ospreyD7).plan),
  'bring in': ({ after }) => byNames(brought(after)) !== byNames(brought(base)),
};

const radioOwn = 'is of the radio that it comes from: whoever brings a plan in arranges his own';
const notAChannel = 'no channel leads to it; who brings a plan in wants channels that work';
/** By place, kind and field: why it need not notice. */
const WHY_NOT: Record<string, string> = {
  'move to another model channel list': 'that radio has one list: all comes into it, in its slot',
  ...Object.fromEntries(['name', 'way', 'members'].map((field) => [`bring in skipSet ${field}`, radioOwn])),
  ...Object.fromEntries(
    ['name', 'list', 'from', 'to'].map((field) => [`bring in scanEdge ${field}`, notAChannel]),
  ),
  ...Object.fromEntries(['name', 'sides'].map((field) => [`bring in setUp ${field}`, radioOwn])),
};

test.each(Object.keys(PLACES))('%s notices each field of each kind', (place) => {
  const silent = cases
    .filter((of) => !PLACES[place]!(of))
    .map(({ kind, field }) => `${place} ${kind} ${field}`)
    .filter((key) => !(key in WHY_NOT));
  expect(silent).toEqual([]);
});

test('what need not be noticed is not noticed, so that no reason outlives its fault', () => {
  const noticed = cases.flatMap((of) =>
    Object.entries(PLACES).flatMap(([place, notices]) => {
      const key = `${place} ${of.kind} ${of.field}`;
      return key in WHY_NOT && notices(of) ? key : [];
    }),
  );
  expect(noticed).toEqual([]);
});

test('one cell of twenty has a reason at most', () =>
  expect(Object.keys(WHY_NOT).length).toBeLessThanOrEqual((cases.length * Object.keys(PLACES).length) / 20));
