import equal from 'fast-deep-equal';
import { slotsOf, type Model } from '../models';
import { plainEditSchema } from '../plan/edits/plain.schema';
import {
  CHANNEL_REFS,
  FIELD_NAMES,
  KIND_NAMES,
  keptReferences,
  KINDS,
  placesOf,
  previewPlacing,
  recordsOf,
  withLostReferences,
  type AnyRecord,
  type Channel,
  type ChannelFields,
  type Edit,
  type Kind,
  type PlainEdit,
  type Plan,
} from '../plan';

/** A change of another plan of the family, offered to this one as an edit: to take or to leave. */
export interface Offer {
  kind: Kind;
  /** The record, in both plans. */
  id: string;
  /** Its name there, or here where it is gone there. */
  name: string;
  what: 'changed' | 'added' | 'removed';
  /** What changed, in words. */
  text: string;
  /** Changed here too since then: taking it overwrites that. */
  clash: boolean;
  edit: Edit;
}

/** Offers that are alike but for the record: to be told of once, and taken at once. */
export interface OfferGroup extends Pick<Offer, 'kind' | 'what' | 'text' | 'clash' | 'edit'> {
  ids: string[];
}

/** What is offered, one by one, in groups, and as one edit all that does not clash; null where that is nothing. */
export interface Offers {
  offers: Offer[];
  groups: OfferGroup[];
  all: Edit | null;
  /** How many more there are: they are offered when these are taken or left. */
  more: number;
}

/** Most that is offered at once: what is taken goes over the wire. */
export const MOST_OFFERS = 500;

/** What is offered: what has no room in one radio says nothing to another. */
const OFFERED = KIND_NAMES.filter((kind) => kind !== 'leftOver');

/** What goes along from plan to plan: all of a channel but its place, and the names by hand that are of one radio. */
const SHARED = [
  'name',
  'rx',
  'tx',
  'txFixed',
  'access',
  'mode',
  'power',
  'scan',
  'alwaysOn',
  'satellite',
  'talkgroup',
  'receiveList',
  'scanList',
  'politeness',
  'note',
  'tags',
  'source',
] as const satisfies readonly (keyof ChannelFields)[];

/** Fields of a kind that are judged together: where both sides touched some of them a person decides. */
const TOGETHER: Partial<Record<Kind, readonly (readonly string[])[]>> = {
  channel: [
    ['rx', 'tx', 'txFixed'],
    ['mode', 'access'],
  ],
  zone: [['members', 'knob']],
};
/** The fields and all fields of their groups. */
const withTheirs = (kind: Kind, fields: readonly string[]): string[] => [
  ...new Set(fields.flatMap((field) => TOGETHER[kind]?.find((group) => group.includes(field)) ?? [field])),
];

/** The fields of a record that go along, with their words. */
function sharedFields(kind: Kind): readonly (readonly [string, string])[] {
  if (kind === 'channel') return SHARED.map((field) => [field, FIELD_NAMES[field]]);
  return Object.entries(KINDS[kind].words.fields).filter(([field]) => field !== 'id');
}
const fieldOf = (record: AnyRecord, field: string) => (record as unknown as Record<string, unknown>)[field];
const differing = (kind: Kind, one: AnyRecord, other: AnyRecord) =>
  sharedFields(kind).filter(([field]) => !equal(fieldOf(one, field), fieldOf(other, field)));
const wordsOf = (fields: readonly (readonly [string, string])[]) =>
  fields
    .filter(([field]) => field !== 'txFixed' || fields.length === 1)
    .map(([, words]) => words)
    .join(', ');

const byId = (plan: Plan, kind: Kind) =>
  new Map<string, AnyRecord>(
    (recordsOf(plan, kind) as readonly AnyRecord[]).map((record) => [record.id, record]),
  );

type There = (kind: Kind, id: string) => boolean;

interface Whereabouts {
  /** Records of this plan. */
  isHere: There;
  /** Those, and what is new there and would come. */
  isThere: There;
  /** Records that have gone there. */
  isGone: There;
}

/** An offer before it is an edit: what is set depends on what else is there to refer to. */
interface Piece extends Omit<Offer, 'edit'> {
  /** The record as it is there; null where it is gone there. */
  record: AnyRecord | null;
  /** The fields to set of one that is changed. */
  fields: readonly string[];
}

/** The changes of a kind. A record's references are looked at as far as what they lead to is here, or would come. */
function piecesOf(
  kind: Kind,
  [base, source, own]: readonly [Plan, Plan, Plan],
  { isHere, isThere, isGone }: Whereabouts,
): Piece[] {
  const [then, now, here] = [byId(base, kind), byId(source, kind), byId(own, kind)];
  const pieces: Piece[] = [];
  for (const newest of now.values()) {
    const was = then.get(newest.id);
    // What went there is offered by itself: that its references went along is no change of the record, and here they stay.
    const there = was
      ? withLostReferences(kind, newest, was, (to, id) => isGone(to, id) && isHere(to, id))
      : newest;
    const mine = here.get(there.id);
    const piece = { kind, id: there.id, name: there.name, record: there, fields: [] as string[] };
    if (!was && !mine) pieces.push({ ...piece, what: 'added', text: 'new there', clash: false });
    if (!was || !mine) continue;
    const [seen, before] = [keptReferences(kind, there, isThere), keptReferences(kind, was, isHere)];
    const still = keptReferences(kind, was, (to, id) => !isGone(to, id));
    const changed = differing(kind, still, newest).filter(
      ([field]) => !equal(fieldOf(mine, field), fieldOf(seen, field)),
    );
    if (changed.length === 0) continue;
    pieces.push({
      ...piece,
      what: 'changed',
      text: wordsOf(changed),
      clash: withTheirs(
        kind,
        changed.map(([field]) => field),
      ).some((field) => !equal(fieldOf(mine, field), fieldOf(before, field))),
      fields: changed.map(([field]) => field),
    });
  }
  for (const was of then.values()) {
    const mine = here.get(was.id);
    if (now.has(was.id) || !mine) continue;
    pieces.push({
      ...{ kind, id: was.id, name: mine.name, what: 'removed', text: 'removed there' },
      clash: differing(kind, keptReferences(kind, was, isHere), mine).length > 0,
      record: null,
      fields: [],
    });
  }
  return pieces;
}

/** A piece, with those that are new there and that it refers to, and so on. */
function withNeeded(piece: Piece, added: ReadonlyMap<string, Piece>, so = new Set<Piece>()): Set<Piece> {
  // A channel and its scan list refer to one another.
  if (so.has(piece)) return so;
  so.add(piece);
  if (piece.record)
    keptReferences(piece.kind, piece.record, (to, id) => {
      const needed = added.get(keyOf(to, id));
      if (needed) withNeeded(needed, added, so);
      return true;
    });
  return so;
}
const keyOf = (kind: Kind, id: string) => `${kind} ${id}`;

function setOf(kind: Kind, record: AnyRecord, fields: readonly string[]): object {
  // Whether transmit was entered by itself goes along with it.
  const whole =
    kind === 'channel' && fields.some((field) => ['tx', 'txFixed', 'rx'].includes(field))
      ? ['tx', 'txFixed']
      : [];
  return Object.fromEntries([...fields, ...whole].map((field) => [field, fieldOf(record, field)]));
}

/** The edits that take some pieces: few, however many those are, in an order in which each finds what it refers to. */
function takingOf(pieces: readonly Piece[], own: Plan, model: Model, isHere: There): PlainEdit[] {
  const of = (kind: Kind, what: Offer['what']) =>
    pieces.filter((piece) => piece.kind === kind && piece.what === what);
  const keysOf = (of: Offer['what']) =>
    new Set(pieces.flatMap(({ kind, id, what }) => (what === of ? [keyOf(kind, id)] : [])));
  const [coming, going] = [keysOf('added'), keysOf('removed')];
  const kept = ({ kind, record }: Piece) =>
    keptReferences(kind, record!, (to, id) =>
      isHere(to, id) ? !going.has(keyOf(to, id)) : coming.has(keyOf(to, id)),
    );
  // A channel may refer to what comes with it, and that to the channel: it is told of that when both are there.
  const placing = placingOf(
    of('channel', 'added').map((piece) => keptReferences('channel', kept(piece) as Channel, isHere)),
    own,
    model,
  );
  // Channels that find no room do not come, so that nothing may refer to them.
  const placed = new Set(placing.flatMap((edit) => edit.channels.map(({ id }) => keyOf('channel', id))));
  for (const key of coming) if (key.startsWith('channel ') && !placed.has(key)) coming.delete(key);

  const edits: unknown[] = [];
  const refs = new Set<string>(Object.keys(CHANNEL_REFS));
  const changing = (kind: Kind, wanted: (field: string) => boolean = () => true) => {
    const changes = of(kind, 'changed').flatMap((piece) => {
      const fields = piece.fields.filter(wanted);
      return fields.length > 0 ? [{ id: piece.id, set: setOf(kind, kept(piece), fields) }] : [];
    });
    if (changes.length > 0) edits.push({ name: 'change', kind, changes });
  };
  changing('channel', (field) => !refs.has(field));
  for (const kind of KIND_NAMES) {
    const ids = of(kind, 'removed').map(({ id }) => id);
    if (ids.length > 0) edits.push({ name: 'remove', kind, ids });
  }
  edits.push(...placing);
  const others = KIND_NAMES.filter((kind) => kind !== 'channel');
  for (const kind of others) {
    const records = of(kind, 'added').map(kept);
    if (records.length > 0) edits.push({ name: 'put', kind, records, before: null });
  }
  for (const kind of others) changing(kind);
  changing('channel', (field) => refs.has(field));
  const linking = of('channel', 'added').flatMap((piece) => {
    const record = kept(piece);
    const fields = [...refs].filter((field) => {
      const id = fieldOf(record, field);
      return typeof id === 'string' && coming.has(keyOf(field as Kind, id));
    });
    return placed.has(keyOf('channel', piece.id)) && fields.length > 0
      ? [{ id: piece.id, set: setOf('channel', record, fields) }]
      : [];
  });
  if (linking.length > 0) edits.push({ name: 'change', kind: 'channel', changes: linking });
  return edits.map((edit) => plainEditSchema.parse(edit));
}

/** Channels that are new there go to the next free slots, of their own list where the model has that. */
function placingOf(channels: readonly Channel[], own: Plan, model: Model) {
  const lists = new Map<number, Channel[]>();
  for (const channel of channels) {
    const list = slotsOf(model, channel.list) ? channel.list : 0;
    lists.set(list, [...(lists.get(list) ?? []), channel]);
  }
  return [...lists].flatMap(([list, going]) => {
    const range = slotsOf(model, list)!;
    // Alone it is refused where there is no room, and says so; of several some stay behind.
    const room =
      going.length === 1
        ? 1
        : previewPlacing(own.channels, going.length, 'next-free', range.first, range, list).assigned.length;
    const placed = going.slice(0, room).map(({ slot: _, list: _list, ...fields }) => fields);
    if (placed.length === 0) return [];
    const where = { placement: 'next-free' as const, at: range.first, range, ...(list > 0 && { list }) };
    return [{ name: 'place' as const, channels: placed, ...where }];
  });
}

/**
 * What changed in another plan of the family since `base`, which it was then, as far as this one has not the same already. Where
 * `removals` is false, what is gone there is offered one by one alone: a plan that was made of this one leaves out what its radio
 * should not have.
 */
export function offersOf(
  base: Plan,
  source: Plan,
  own: Plan,
  model: Model,
  { removals = true } = {},
): Offers {
  const [then, now, here] = [base, source, own].map(
    (plan) => new Map(KIND_NAMES.map((kind) => [kind, byId(plan, kind)])),
  );
  const isHere: There = (kind, id) => here!.get(kind)!.has(id);
  const isThere: There = (kind, id) =>
    isHere(kind, id) || (now!.get(kind)!.has(id) && !then!.get(kind)!.has(id));
  const isGone: There = (kind, id) => then!.get(kind)!.has(id) && !now!.get(kind)!.has(id);
  const where = { isHere, isThere, isGone };
  const every = OFFERED.flatMap((kind) => piecesOf(kind, [base, source, own], where));
  const pieces = every.slice(0, MOST_OFFERS);
  const added = new Map(
    every.flatMap((piece) => (piece.what === 'added' ? [[keyOf(piece.kind, piece.id), piece]] : [])),
  );
  const asOne = (edits: PlainEdit[], n: number): Edit =>
    edits.length === 1 ? edits[0]! : { ...together(edits, n, source.name) };
  const offers = pieces.map((piece): Offer => {
    const { record: _, fields: _fields, ...offer } = piece;
    const taken = [...withNeeded(piece, added)];
    return { ...offer, edit: asOne(takingOf(taken, own, model, isHere), taken.length) };
  });
  const groups = [...groupsOf(pieces)].map((alike): OfferGroup => {
    const { kind, what, text, clash } = alike[0]!;
    const taken = [...new Set(alike.flatMap((piece) => [...withNeeded(piece, added)]))];
    const edit = asOne(takingOf(taken, own, model, isHere), taken.length);
    return { kind, what, text, clash, ids: alike.map(({ id }) => id), edit };
  });
  const taken = pieces.filter(({ clash, what }) => !clash && (removals || what !== 'removed'));
  const all = takingOf(taken, own, model, isHere);
  const more = every.length - pieces.length;
  return { offers, groups, all: all.length === 0 ? null : asOne(all, taken.length), more };
}

/** Pieces that are alike but for the record, together; in the order in which they first come. */
function groupsOf(pieces: readonly Piece[]): Iterable<Piece[]> {
  const groups = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const key = `${piece.kind} ${piece.what} ${piece.text} ${piece.clash}`;
    const alike = groups.get(key);
    if (alike) alike.push(piece);
    else groups.set(key, [piece]);
  }
  return groups.values();
}

const together = (edits: PlainEdit[], n: number, from: string): Edit => ({
  name: 'together',
  label: `Take ${n === 1 ? '1 change' : `${n} changes`} of “${from}”`,
  edits,
});

/** A difference of a plan from the one that it was made of; `id` is the record's, or a word for what is of the plan as a whole. */
export interface OwnDifference {
  id: string;
  name: string;
  text: string;
}

/** How a plan differs from the one that it was made of: its own call sign, slots, and differences record by record. */
export function ownDifferences(source: Plan, own: Plan): OwnDifference[] {
  const there = placesOf(source.channels);
  const elsewhere = own.channels.filter(({ id, list, slot }) => {
    const other = source.channels[there.get(id) ?? -1];
    return other && (other.list !== list || other.slot !== slot);
  }).length;
  const whole: OwnDifference[] = [];
  if (own.owner.callSign !== source.owner.callSign)
    whole.push({
      id: 'call sign',
      name: 'Call sign',
      text: `${own.owner.callSign || 'none'}, there ${source.owner.callSign || 'none'}`,
    });
  if (elsewhere > 0)
    whole.push({
      id: 'slots',
      name: 'Slots',
      text: elsewhere === 1 ? '1 channel has another' : `${elsewhere} channels have others`,
    });
  return [...whole, ...OFFERED.flatMap((kind) => recordDifferences(kind, source, own))];
}

function recordDifferences(kind: Kind, source: Plan, own: Plan): OwnDifference[] {
  const [there, here] = [byId(source, kind), byId(own, kind)];
  const known = new Map<Kind, Map<string, AnyRecord>>([[kind, here]]);
  const isHere: There = (of, id) => {
    if (!known.has(of)) known.set(of, byId(own, of));
    return known.get(of)!.has(id);
  };
  const called = (name: string) => (kind === 'channel' ? name : `${KINDS[kind].words.one} “${name}”`);
  const mine = [...here.values()].flatMap((record): OwnDifference[] => {
    const other = there.get(record.id);
    if (!other) return [{ id: record.id, name: called(record.name), text: 'only here' }];
    const fields = differing(kind, keptReferences(kind, other, isHere), record);
    return fields.length > 0 ? [{ id: record.id, name: called(record.name), text: wordsOf(fields) }] : [];
  });
  const gone = [...there.values()].filter(({ id }) => !here.has(id));
  return [...mine, ...gone.map(({ id, name }) => ({ id, name: called(name), text: 'left out here' }))];
}
