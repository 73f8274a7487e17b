import { z } from 'zod';
import { contentToWrite } from './check';
import { compareBesides, compareContents, compareStates } from './compare';
import { blankImage } from './format';
import { decodeImage, encodeImage } from './image';
import { lossesOf, writeCsv } from './interchange';
import type { Model } from './models';
import { formatOf } from './models/formats';
import { gannetM8 } from './models/gannet-m8';
import { kestrelC1 } from './models/kestrel-c1';
import { ospreyD7 } from './models/osprey-d7';
import { bringIn, changedByHand, moveToModel, newSide, offersOf } from './organise';
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
  SCHEMAS,
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
  zone: {
    ...{ name: 'Other', members: [id(1), id(2)], scanList: scanId(2) },
    knob: [{ channel: null }, { channel: id(1) }],
  },
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

/** A plan with another value in a field of the first record of a kind. */
function changedIn(of: Plan, { kind, field, value }: Omit<Case, 'after'>): Plan {
  const [first, ...rest] = recordsOf(of, kind) as readonly AnyRecord[];
  const changed = withRecords(of, kind, [{ ...first!, [field]: value } as AnyRecord, ...rest]);
  // Channels stand in the order of their lists and slots.
  return kind === 'channel' && (field === 'slot' || field === 'list')
    ? { ...changed, channels: changed.channels.toReversed() }
    : changed;
}

const cases: Case[] = KIND_NAMES.flatMap((kind) =>
  Object.entries(OTHER[kind]).flatMap(([field, value]) =>
    value === undefined ? [] : [{ kind, field, value, after: changedIn(base, { kind, field, value }) }],
  ),
);

/** The same plan with analogue channels, for radios that have nothing digital. */
const analogue: Plan = {
  ...base,
  modelId: 'gannet-m8',
  channels: [channel(1, 433_500_000, { name: 'One' }), channel(2, 145_500_000, { name: 'Two' })],
};
const RADIOS: readonly { model: Model; of: Plan }[] = [
  { model: kestrelC1, of: base },
  { model: ospreyD7, of: { ...base, modelId: 'osprey-d7' } },
  { model: gannetM8, of: analogue },
];

const imageOf = (of: Plan, model: Model): Uint8Array =>
  encodeImage(contentToWrite(of, model), blankImage(formatOf(model)), model);
const contentOf = (of: Plan, model: Model) => {
  const read = decodeImage(imageOf(of, model), model);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};
/** True where one of the radios notices a change. */
const onSome = (one: Case, notices: (radio: { model: Model; was: Plan; is: Plan }) => boolean) =>
  RADIOS.some(({ model, of }) => notices({ model, was: of, is: changedIn(of, one) }));

/** What an export as rows says of a field that its columns do not carry. */
const LOSSES: Record<string, string> = {
  talkgroup: 'talkgroup',
  receiveList: 'receive list',
  scanList: 'scan list',
  politeness: 'may send',
  fitted: 'fitted by hand',
  unclear: 'not understood',
};

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
  'image of a radio': (one) =>
    onSome(one, ({ model, was, is }) => Buffer.compare(imageOf(was, model), imageOf(is, model)) !== 0),
  'preview of a write': (one) =>
    onSome(one, ({ model, was, is }) => {
      const [before, after] = [contentOf(was, model), contentToWrite(is, model)];
      const { same: _, ...changes } = compareContents(before.channels, after.channels, {
        was: before,
        is: after,
      });
      return (
        Object.values(changes).some((list) => list.length > 0) ||
        compareBesides(before, after, model).length > 0
      );
    }),
  'done on the keys of a radio': (one) =>
    onSome(one, ({ model, was, is }) => {
      const [before, radio] = [contentOf(was, model), contentOf(is, model)];
      const { changes, besides } = changedByHand(was, { before, radio }, was, model, () => id(50));
      return changes.length + besides.length > 0;
    }),
  offers: ({ after }) => offersOf(base, after, base, kestrelC1).offers.length > 0,
  'export as rows': ({ kind, field, after }) =>
    writeCsv(after.channels) !== writeCsv(base.channels) ||
    lossesOf(after, 'csv').some((lost) =>
      lost.includes(
        kind === 'channel'
          ? (LOSSES[field] ?? '-')
          : kind === 'leftOver'
            ? 'left over'
            : KINDS[kind].words.one,
      ),
    ),
  'schema of the interface': ({ kind, field }) => {
    const { properties } = z.toJSONSchema(SCHEMAS[kind].record, { io: 'output', unrepresentable: 'any' });
    return Object.hasOwn(properties ?? {}, field);
  },
};

const radioOwn = 'is of the radio that it comes from: whoever brings a plan in arranges his own';
const noRadio = 'radios hold nothing of it: it is for people, and for the plan';
const noSlot = 'a channel without a slot is in no radio';
const notAChannel = 'no channel leads to it; who brings a plan in wants channels that work';
/** By place, kind and field: why it need not notice. */
const WHY_NOT: Record<string, string> = {
  'move to another model channel list': 'that radio has one list: all comes into it, in its slot',
  ...Object.fromEntries(['name', 'way', 'members'].map((field) => [`bring in skipSet ${field}`, radioOwn])),
  ...Object.fromEntries(
    ['name', 'list', 'from', 'to'].map((field) => [`bring in scanEdge ${field}`, notAChannel]),
  ),
  ...Object.fromEntries(['name', 'sides'].map((field) => [`bring in setUp ${field}`, radioOwn])),
  ...Object.fromEntries(
    ['image of a radio', 'preview of a write', 'done on the keys of a radio'].flatMap((place) =>
      [
        ...['txFixed', 'alwaysOn', 'satellite', 'note', 'tags', 'source'].map((field) => `channel ${field}`),
        ...['talkgroup encrypted', 'scanEdge name'],
      ].map((field) => [`${place} ${field}`, noRadio]),
    ),
  ),
  ...Object.fromEntries(
    ['list', 'slot'].map((field) => [
      `offers channel ${field}`,
      'each plan of a family has slots of its own',
    ]),
  ),
  'offers channel fitted': 'names that are fitted by hand are for the radio of that plan',
  'offers channel unclear': 'is a stop in that plan until somebody puts it right; then the value is offered',
};

/** Places that handle no records of a kind at all, with the reason. */
const NO_SUCH_KIND: Record<string, string> = {
  'image of a radio leftOver': noSlot,
  'preview of a write leftOver': noSlot,
  'done on the keys of a radio leftOver': noSlot,
  'offers leftOver': 'waits in that plan for a slot, and is offered when it has one',
};
const handles = (place: string, { kind }: Case) => !(`${place} ${kind}` in NO_SUCH_KIND);

test.each(Object.keys(PLACES))('%s notices each field of each kind', (place) => {
  const silent = cases
    .filter((of) => handles(place, of) && !PLACES[place]!(of))
    .map(({ kind, field }) => `${place} ${kind} ${field}`)
    .filter((key) => !(key in WHY_NOT));
  expect(silent).toEqual([]);
});

test('what need not be noticed is not noticed, so that no reason outlives its fault', () => {
  const noticed = cases.flatMap((of) =>
    Object.entries(PLACES).flatMap(([place, notices]) => {
      const key = `${place} ${of.kind} ${of.field}`;
      return key in WHY_NOT && handles(place, of) && notices(of) ? key : [];
    }),
  );
  expect(noticed).toEqual([]);
});

test('one cell of twenty has a reason at most', () =>
  expect(Object.keys(WHY_NOT).length).toBeLessThanOrEqual(
    Object.keys(PLACES).reduce((sum, place) => sum + cases.filter((of) => handles(place, of)).length, 0) / 20,
  ));
