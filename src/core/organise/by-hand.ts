import equal from 'fast-deep-equal';
import { contentToWrite, type WriteContent } from '../check';
import { compareBesides, type BesideChange } from '../compare';
import { recordsHeld, type RecordsHeld } from '../fit';
import { politenessOf, type RadioContent } from '../image';
import { placeText, slotsOf, type FittedChannel, type Model } from '../models';
import {
  channelDefaults,
  NAME_LIMIT,
  POLITENESS_WORDS,
  type Channel,
  type ChannelId,
  type ChannelSet,
  type Edit,
  type NewChannel,
  type PlainEdit,
  type Plan,
  withoutSlot,
} from '../plan';
import { formatAccess, formatFrequency, formatPower } from '../radio';
import { cutText } from '../text';
import { byPlace, keyOf } from './by-place';

/**
 * Three ways: what a plan wrote into a radio, what the radio holds now, and the plan as it is now. What was done on the radio's own keys
 * is offered to the plan as edits; where the plan has gone another way meanwhile both are said side by side, and nothing is taken by itself.
 */

/** Something that was done on a radio's own keys, as an edit of the plan. */
export interface ByHand {
  at: { list: number; slot: number };
  /** Where in the radio: `007`, `Left 007`. */
  place: string;
  name: string;
  what: 'changed' | 'added' | 'removed';
  /** What the radio says now, in words. */
  radio: string;
  /** What the plan says now; null where that is still what was written. */
  plan: string | null;
  edit: Edit;
}

export interface ByHandChanges {
  changes: ByHand[];
  /** All that the plan has not changed otherwise, as one edit; null where that is nothing. */
  all: Edit | null;
  /** Banks, sets and settings that are other than they were written, in words. */
  besides: BesideChange[];
}

/** Most characters of what an edit is called. */
export const LABEL_LIMIT = 120;

const FIELDS = [
  'name',
  'rx',
  'tx',
  'access',
  'mode',
  'talkgroup',
  'receiveList',
  'politeness',
  'scanList',
  'power',
  'scan',
] as const;
type Field = (typeof FIELDS)[number];
/** Fields that are judged together: a new receive frequency with a transmit that somebody else forbade is a matter for a person. */
const TOGETHER: readonly (readonly Field[])[] = [
  ['rx', 'tx'],
  ['mode', 'access'],
];
/** The fields, with those that each is judged together with; in the order of all fields. */
const withTheirs = (fields: readonly Field[]) =>
  FIELDS.filter(
    (field) =>
      fields.includes(field) ||
      TOGETHER.some((group) => group.includes(field) && group.some((one) => fields.includes(one))),
  );

const accessOf = ({ send, expect, digital }: FittedChannel): Channel['access'] =>
  digital
    ? { kind: 'dmr', colourCode: digital.colourCode, timeSlot: digital.timeSlot }
    : { kind: 'analogue', send, expect };

/** A channel of a radio, and the records of the plan that the radio's numbers stand for. */
interface Held extends FittedChannel {
  records: RecordsHeld;
}
/** A talkgroup or a list by its id in the plan; by the radio's number where no record of the plan stands there. */
const linkOf = (number: number | null | undefined, ids: ReadonlyMap<number, string>) =>
  number ? (ids.get(number) ?? number) : null;

/** A field of what a radio holds, as a plan has it. */
function valueOf(held: Held, field: Field) {
  if (field === 'access') return accessOf(held);
  if (field === 'talkgroup' || field === 'receiveList')
    return linkOf(held.digital?.[field], held.records[field].ids);
  if (field === 'scanList') return linkOf(held.scanList, held.records.scanList.ids);
  if (field === 'politeness') return held.digital && [held.digital.politeness, held.digital.level];
  return held[field];
}

const linkWords = (number: number | null | undefined, names: ReadonlyMap<number, string>, what: string) =>
  number ? `${what} ${names.get(number) ?? number}` : '';

const WORDS: Record<Field, (held: Held) => string> = {
  name: ({ name }) => name.trim() || 'no name',
  rx: ({ rx }) => formatFrequency(rx),
  tx: ({ tx, rx }) =>
    tx === null ? 'listen only' : tx === rx ? 'sends where it receives' : `sends on ${formatFrequency(tx)}`,
  access: (held) => formatAccess(accessOf(held)) || 'open',
  mode: ({ mode }) => mode,
  talkgroup: ({ digital, records }) =>
    linkWords(digital?.talkgroup, records.talkgroup.names, 'calls') || 'calls nobody',
  receiveList: ({ digital, records }) =>
    linkWords(digital?.receiveList, records.receiveList.names, 'receive list') || 'no receive list',
  politeness: ({ digital }) =>
    digital
      ? `${POLITENESS_WORDS[digital.politeness]}${digital.level === null ? '' : ` from ${digital.level} dBm on`}`
      : 'analogue',
  scanList: ({ scanList, records }) =>
    linkWords(scanList, records.scanList.names, 'scan list') || 'no scan list',
  power: ({ power }) => formatPower(power),
  scan: ({ scan }) => (scan ? 'in the scan' : 'not in the scan'),
};
const inWords = (held: Held, fields: readonly Field[]) =>
  fields.map((field) => WORDS[field](held)).join(', ');
const whole = (held: Held) =>
  inWords(held, ['name', 'rx', 'tx', 'access', ...(held.digital ? (['talkgroup'] as const) : [])]);

/** What a channel refers to, as far as it is in the plan. */
function linksOf(held: Held, own: Plan): Partial<Pick<Channel, 'talkgroup' | 'receiveList' | 'scanList'>> {
  const link = <Id extends string>(field: Field, records: readonly { id: Id }[]) => {
    const value = valueOf(held, field);
    return records.find(({ id }) => id === value)?.id ?? null;
  };
  return {
    ...(held.digital && {
      talkgroup: link('talkgroup', own.talkgroups),
      receiveList: link('receiveList', own.receiveLists),
    }),
    ...(held.scanList !== undefined && { scanList: link('scanList', own.scanLists) }),
  };
}
/** True where a channel of a radio refers to what is not in the plan. */
const refersElsewhere = (held: Held, own: Plan, fields: readonly Field[]) =>
  (['talkgroup', 'receiveList', 'scanList'] as const).some(
    (field) => fields.includes(field) && valueOf(held, field) !== null && !linksOf(held, own)[field],
  );

/** What a channel is set to, to be as the radio has it in some fields. */
function setOf(held: Held, fields: readonly Field[], own: Channel, plan: Plan, model: Model): ChannelSet {
  const set: ChannelSet = {};
  const links = linksOf(held, plan);
  for (const field of ['talkgroup', 'receiveList', 'scanList'] as const)
    if (fields.includes(field)) Object.assign(set, { [field]: links[field] ?? null });
  if (fields.includes('politeness') && held.digital) set.politeness = politenessOf(held.digital, model);
  if (fields.includes('rx')) set.rx = held.rx;
  // What follows receive in the plan would follow it there too: both are said.
  if (fields.includes('tx') || fields.includes('rx')) Object.assign(set, { tx: held.tx, txFixed: false });
  if (fields.includes('access')) set.access = accessOf(held);
  if (fields.includes('mode')) set.mode = held.mode;
  if (fields.includes('power')) set.power = held.power;
  if (fields.includes('scan')) set.scan = held.scan;
  if (fields.includes('name')) {
    const name = cutText(held.name.trim(), NAME_LIMIT);
    // What somebody wrote into this radio is a name fitted by hand for it, and stands there as it is; the plan's own, which is longer, stays
    // unless it is another station now.
    set.fitted = { ...own.fitted, [model.id]: name };
    if (fields.includes('rx')) set.name = name;
  }
  return set;
}

const newChannel = (held: Held, id: ChannelId, own: Plan, model: Model): NewChannel => ({
  ...channelDefaults(held.rx),
  id,
  name: cutText(held.name.trim(), NAME_LIMIT),
  fitted: { [model.id]: held.name.trim() },
  tx: held.tx,
  access: accessOf(held),
  ...linksOf(held, own),
  ...(held.digital && { politeness: politenessOf(held.digital, model) }),
  mode: held.mode,
  power: held.power,
  scan: held.scan,
});

/**
 * What was done on the keys of a radio since `written`, the plan as it was written there, after which it held `before`. `newId` gives a
 * new channel its id, the same each time for the same place.
 */
export function changedByHand(
  written: Plan,
  { before, radio }: { before: RadioContent; radio: RadioContent },
  own: Plan,
  model: Model,
  newId: (place: { list: number; slot: number }) => ChannelId,
): ByHandChanges {
  const base: WriteContent = contentToWrite(written, model);
  const now = contentToWrite(own, model);
  // The radio's numbers are those that the write gave it.
  const [thenRecords, nowRecords] = [written, own].map((plan) => recordsHeld(plan, model));
  const having = <C extends FittedChannel>(channels: readonly C[], records: RecordsHeld) =>
    channels.map((channel) => ({ ...channel, records }));
  const [then, held] = [
    byPlace(having(base.channels, thenRecords!)),
    byPlace(having(radio.channels, thenRecords!)),
  ];
  const ownById = new Map(own.channels.map((channel) => [channel.id, channel]));
  const nowChannels = having(now.channels, nowRecords!);
  const nowById = new Map(nowChannels.map((channel) => [channel.id, channel]));
  const nowByPlace = byPlace(nowChannels);
  const ownByPlace = new Map(own.channels.map((channel) => [keyOf(channel), channel]));
  const changes: ByHand[] = [];
  const fieldsThat = (differ: (field: Field) => boolean) =>
    FIELDS.filter((field) => (model.storesPower || field !== 'power') && differ(field));
  const LACKS = 'its talkgroup or list is not in the plan';

  /** Puts what the radio has at its place; what the plan has there waits left over then. */
  const put = (there: Held): Edit => {
    const { first, count } = slotsOf(model, there.list)!;
    const place = {
      name: 'place' as const,
      channels: [newChannel(there, newId(there), own, model)],
      placement: 'next-free' as const,
      at: first,
      range: { first, count },
      ...(there.list > 0 && { list: there.list }),
      slots: [there.slot],
    };
    const here = ownByPlace.get(keyOf(there));
    if (!here) return place;
    return {
      name: 'together',
      label: cutText(`Take ${placeText(model, there)} as the radio has it`, LABEL_LIMIT),
      edits: [
        { name: 'remove', ids: [here.id] },
        { name: 'put', kind: 'leftOver', records: [withoutSlot(here)], before: null },
        place,
      ],
    };
  };
  /** What the plan puts there likewise is settled, whichever channel it is. */
  const settled = (key: string, there: Held | undefined) => {
    const mine = nowByPlace.get(key);
    return there && mine
      ? fieldsThat((field) => !equal(valueOf(mine, field), valueOf(there, field))).length === 0
      : !there && !ownByPlace.has(key);
  };
  for (const [key, was] of then) {
    const there = held.get(key);
    if (settled(key, there)) continue;
    const at = { list: was.list, slot: was.slot };
    const mine = ownById.get(was.id);
    const mineNow = nowById.get(was.id);
    const place = placeText(model, was);
    if (!there) {
      // The plan has something there, or it would be settled: what was written, as it was or changed, or another channel by now.
      const here = ownByPlace.get(key)!;
      const hereNow = nowById.get(here.id);
      const kept =
        hereNow === undefined
          ? []
          : fieldsThat((field) => here.id !== was.id || !equal(valueOf(hereNow, field), valueOf(was, field)));
      changes.push({
        ...{ at, place, name: here.name, what: 'removed', radio: 'nothing there any more' },
        plan: kept.length > 0 ? inWords(hereNow!, kept) : here.id === was.id ? null : here.name,
        edit: { name: 'remove', ids: [here.id] },
      });
      continue;
    }
    const fields = fieldsThat((field) => !equal(valueOf(there, field), valueOf(was, field)));
    if (fields.length === 0) continue;
    if (!mine) {
      changes.push({
        ...{ at, place, name: there.name.trim(), what: 'changed', radio: inWords(there, fields) },
        plan: 'removed',
        edit: put(there),
      });
      continue;
    }
    // What the plan says likewise is settled.
    const open = fields.filter((field) => !mineNow || !equal(valueOf(mineNow, field), valueOf(there, field)));
    if (open.length === 0) continue;
    const otherwise = mineNow
      ? withTheirs(open).filter((field) => !equal(valueOf(mineNow, field), valueOf(was, field)))
      : [];
    changes.push({
      ...{ at, place, name: mine.name, what: 'changed', radio: inWords(there, open) },
      plan:
        otherwise.length > 0
          ? inWords(mineNow!, otherwise)
          : refersElsewhere(there, own, open)
            ? LACKS
            : null,
      edit: { name: 'change', changes: [{ id: mine.id, set: setOf(there, open, mine, own, model) }] },
    });
  }
  for (const [key, there] of held) {
    if (then.has(key) || settled(key, there)) continue;
    const mine = ownByPlace.get(key);
    const mineNow = mine && nowById.get(mine.id);
    changes.push({
      at: { list: there.list, slot: there.slot },
      ...{ place: placeText(model, there), name: there.name.trim(), what: 'added', radio: whole(there) },
      plan: mine
        ? mineNow
          ? whole(mineNow)
          : mine.name
        : refersElsewhere(there, own, FIELDS)
          ? LACKS
          : null,
      edit: put(there),
    });
  }
  const taken = changes.filter(({ plan }) => plan === null).map(({ edit }) => edit);
  return { changes, all: asOne(taken), besides: compareBesides(before, radio, model) };
}

/** Edits of one kind as one: what is changed, removed or placed in slots of its own goes into one edit of its kind and list. */
function asOne(edits: readonly Edit[]): Edit | null {
  const changes = edits.flatMap((edit) =>
    edit.name === 'change' && edit.kind === undefined ? edit.changes : [],
  );
  const ids = edits.flatMap((edit) => (edit.name === 'remove' && edit.kind === undefined ? edit.ids : []));
  const places = new Map<number, Extract<Edit, { name: 'place' }>>();
  for (const edit of edits) {
    if (edit.name !== 'place') continue;
    const before = places.get(edit.list ?? 0);
    places.set(
      edit.list ?? 0,
      before
        ? {
            ...before,
            channels: [...before.channels, ...edit.channels],
            slots: [...before.slots!, ...edit.slots!],
          }
        : edit,
    );
  }
  const all: PlainEdit[] = [
    // Slots are emptied first: what is new may be meant for one of them.
    ...(ids.length > 0 ? [{ name: 'remove' as const, ids }] : []),
    ...(changes.length > 0 ? [{ name: 'change' as const, changes }] : []),
    ...places.values(),
  ];
  if (all.length === 0) return null;
  if (all.length === 1) return all[0]!;
  const n = edits.length;
  return {
    name: 'together',
    label: `Take ${n === 1 ? '1 change' : `${n} changes`} of the radio`,
    edits: all,
  };
}
