import equal from 'fast-deep-equal';
import { formatFrequency } from '../radio';
import { valueWords, type Setting } from '../settings';
import { capital } from '../text';
import {
  cellText,
  COLUMNS,
  countOf,
  FIELD_NAMES,
  HEAD_FIELDS,
  KIND_NAMES,
  KINDS,
  POLITENESS_WORDS,
  recordsOf,
  settingChanges,
  type AnyRecord,
  type Channel,
  type ChannelId,
  type Edit,
  type Kind,
  type Owner,
  type Plan,
  type PlainEdit,
} from '../plan';

/** A field of a channel that is another one now, as people read it. */
export interface FieldDifference {
  field: string;
  then: string;
  now: string;
}

/** A channel that came, went, or is another one. */
export interface ChannelState {
  id: ChannelId;
  what: 'added' | 'removed' | 'changed';
  name: string;
  slot: number;
  fields: FieldDifference[];
}

/** How a plan was, held against how it is. */
export interface StateComparison {
  /** By slot: removed ones where they stood. */
  channels: ChannelState[];
  /** What came, went or changed beside the channels, in words. */
  besides: string[];
}

const yesNo = (yes: boolean | undefined) => (yes ? 'yes' : 'no');

type Column = (typeof COLUMNS)[number];

const nameIn = (records: readonly { id: string; name: string }[], id: string | null | undefined): string =>
  (id && records.find((one) => one.id === id)?.name) || '';

const politenessWords = (politeness: Channel['politeness']): string =>
  politeness === undefined
    ? ''
    : politeness.to === 'all'
      ? `${POLITENESS_WORDS.all} from ${politeness.level} dBm`
      : POLITENESS_WORDS[politeness.to];

/** The fields of a channel that are no columns, as people read them. A new field without words is a type error. */
const OTHERS: Record<Exclude<keyof Channel, Column | 'id'>, (channel: Channel, plan: Plan) => string> = {
  note: ({ note }) => note,
  tags: ({ tags = [] }) => tags.join(', '),
  alwaysOn: ({ alwaysOn }) => yesNo(alwaysOn),
  satellite: ({ satellite }) => yesNo(satellite),
  fitted: ({ fitted }) => Object.values(fitted).join(', '),
  list: ({ list }) => String(list + 1),
  txFixed: ({ txFixed }) => yesNo(!txFixed),
  talkgroup: ({ talkgroup }, { talkgroups }) => nameIn(talkgroups, talkgroup),
  receiveList: ({ receiveList }, { receiveLists }) => nameIn(receiveLists, receiveList),
  scanList: ({ scanList }, { scanLists }) => nameIn(scanLists, scanList),
  politeness: ({ politeness }) => politenessWords(politeness),
  source: ({ source }) =>
    source ? [source.call, source.place, source.directory, source.entry].filter(Boolean).join(', ') : '',
  unclear: ({ unclear = {} }) =>
    Object.entries(unclear)
      .map(([column, text]) => `${FIELD_NAMES[column as keyof typeof FIELD_NAMES]} “${text}”`)
      .join(', '),
};

/** Cell by cell, the slot among them. */
function fieldsOf(before: Channel, after: Channel, then: Plan, now: Plan): FieldDifference[] {
  const columns = COLUMNS.map((column) => ({
    field: FIELD_NAMES[column],
    then: cellText(before, column),
    now: cellText(after, column),
  }));
  const others = (Object.keys(OTHERS) as (keyof typeof OTHERS)[]).map((field) => ({
    field: field === 'txFixed' ? 'transmit follows receive' : FIELD_NAMES[field],
    then: OTHERS[field](before, then),
    now: OTHERS[field](after, now),
  }));
  return [...columns, ...others].filter((one) => one.then !== one.now);
}

const called = (channel: Channel) => channel.name || formatFrequency(channel.rx);

/** Records of one kind that are named one by one; of more their number is said. */
const MOST_NAMED = 5;

/** The fields of two of a kind that are not the same, in words: `name, channels`. */
function fieldsIn(kind: Kind, was: AnyRecord, is: AnyRecord): string {
  const words = KINDS[kind].words.fields as Readonly<Record<string, string>>;
  const differs = Object.keys(words).filter(
    (field) =>
      !equal(
        (was as unknown as Record<string, unknown>)[field],
        (is as unknown as Record<string, unknown>)[field],
      ),
  );
  return [...new Set(differs.map((field) => words[field]))].join(', ');
}

/** What came, went or changed of the records of a kind, and whether those that stayed stand in another order. */
function recordsSaid(kind: Kind, then: Plan, now: Plan): string[] {
  const { words } = KINDS[kind];
  const [before, after] = [recordsOf(then, kind), recordsOf(now, kind)] as readonly (readonly AnyRecord[])[];
  const was = new Map<string, AnyRecord>(before!.map((one) => [one.id, one]));
  const is = new Map<string, AnyRecord>(after!.map((one) => [one.id, one]));
  const said = (some: readonly AnyRecord[], what: (one: AnyRecord) => string, many: string) =>
    some.length === 0
      ? []
      : some.length > MOST_NAMED
        ? [`${countOf(some.length, KINDS[kind])} ${many}`]
        : some.map((one) => `${capital(words.one)} “${one.name}” ${what(one)}`);
  const order = (of: readonly AnyRecord[]) =>
    of.filter(({ id }) => was.has(id) && is.has(id)).map(({ id }) => id);
  return [
    ...said(
      after!.filter(({ id }) => !was.has(id)),
      () => 'is new',
      'are new',
    ),
    ...said(
      before!.filter(({ id }) => !is.has(id)),
      () => 'is gone',
      'are gone',
    ),
    ...said(
      after!.filter((one) => was.has(one.id) && !equal(was.get(one.id), one)),
      (one) => `has changed: ${fieldsIn(kind, was.get(one.id)!, one)}`,
      'have changed',
    ),
    ...(equal(order(before!), order(after!)) ? [] : [`The ${words.many} were in another order`]),
  ];
}

const OWNER_WORDS: Record<keyof Owner, string> = {
  callSign: 'call sign',
  region: 'region',
  grade: 'grade',
  strict: 'how strictly it is guarded',
  locator: 'locator',
  additions: 'what the country has beyond its region',
  marine: 'whether it is a ship’s',
};

/** The settings of a model, as far as they are known. */
export type KnownSettings = (model: string) => readonly Pick<Setting, 'key' | 'name' | 'value'>[];

/** What a record of a plan is called, by its kind and id. */
const calledIn = (plan: Plan) => (kind: string, id: string) =>
  (recordsOf(plan, kind as Kind) as readonly AnyRecord[]).find((one) => one.id === id)?.name;

/** What of the plan as a whole was otherwise. A new field of it without words is a type error. */
const HEAD_SAID: Record<
  (typeof HEAD_FIELDS)[number],
  (then: Plan, now: Plan, known: KnownSettings) => string | readonly string[] | null
> = {
  name: (then) => `The plan was called “${then.name}”`,
  modelId: (then) => `The plan was for ${then.modelId}`,
  owner: (then, now) => {
    const fields = (Object.keys(OWNER_WORDS) as (keyof Owner)[]).filter(
      (field) => !equal(then.owner[field], now.owner[field]),
    );
    return `Whose plan it is was otherwise: ${fields.map((field) => OWNER_WORDS[field]).join(', ')}`;
  },
  settings: (then, now, known) => {
    const changed = Object.entries(settingChanges(then.settings, now.settings) ?? {}).flatMap(
      ([model, values]) => Object.keys(values).map((key) => ({ model, key })),
    );
    const said = changed.slice(0, MOST_NAMED).map(({ model, key }) => {
      const setting = known(model).find((one) => one.key === key);
      const was = then.settings[model]?.[key];
      const words =
        was === undefined
          ? 'not set'
          : setting
            ? valueWords(setting.value, was, calledIn(then))
            : String(was);
      return `${setting?.name ?? `The setting “${key}”`} was ${words}`;
    });
    const more = changed.length - said.length;
    return more > 0 ? [...said, `${more} more settings were otherwise`] : said;
  },
  abbreviations: () => 'The abbreviations were others',
  origin: () => 'It was made of another plan',
  uses(then, now) {
    const had = new Map(then.uses.map(({ document, revision }) => [document, revision]));
    const has = new Map(now.uses.map(({ document, revision }) => [document, revision]));
    return [...new Set([...had.keys(), ...has.keys()])]
      .filter((id) => had.get(id) !== has.get(id))
      .map((id) => (had.has(id) ? `It used ${id} at revision ${had.get(id)}` : `It did not use ${id}`));
  },
  unit: (then) => (then.unit ? `It was for ${then.unit.called}` : 'It was for any radio of its model'),
  // Up to where other plans have been looked at says nothing of this one.
  lookedAt: () => null,
};

const besidesOf = (then: Plan, now: Plan, known: KnownSettings): string[] => [
  ...HEAD_FIELDS.flatMap((field) =>
    equal(then[field], now[field]) ? [] : (HEAD_SAID[field](then, now, known) ?? []),
  ),
  ...KIND_NAMES.filter((kind) => kind !== 'channel').flatMap((kind) => recordsSaid(kind, then, now)),
];

/** Compares how a plan was with how it is. `known` are the settings of models by their ids: without them a setting is called by its key. */
export function compareStates(then: Plan, now: Plan, known: KnownSettings = () => []): StateComparison {
  const was = new Map(then.channels.map((channel) => [channel.id, channel]));
  const is = new Map(now.channels.map((channel) => [channel.id, channel]));
  const channels: (ChannelState & { list: number })[] = [];
  for (const channel of now.channels) {
    const before = was.get(channel.id);
    const { id, slot, list } = channel;
    if (!before) channels.push({ id, what: 'added', name: called(channel), slot, list, fields: [] });
    else if (before !== channel) {
      const fields = fieldsOf(before, channel, then, now);
      if (fields.length > 0)
        channels.push({ id, what: 'changed', name: called(channel), slot, list, fields });
    }
  }
  for (const channel of then.channels)
    if (!is.has(channel.id)) {
      const { id, slot, list } = channel;
      channels.push({ id, what: 'removed', name: called(channel), slot, list, fields: [] });
    }
  return {
    channels: channels
      .sort((a, b) => a.list - b.list || a.slot - b.slot)
      .map(({ list: _, ...channel }) => channel),
    besides: besidesOf(then, now, known),
  };
}

/**
 * The edit that makes a channel what it was, and leaves all else as it is: one that was changed gets its cells and, where that is
 * free, its slot back; one that went comes back, to its slot or the next that is free; one that came goes.
 */
export function takeBack(then: Plan, now: Plan, id: ChannelId, since: string): Edit {
  const before = then.channels.find((channel) => channel.id === id);
  const after = now.channels.find((channel) => channel.id === id);
  const name = called((before ?? after)!);
  const edits: PlainEdit[] = [];
  if (!before) edits.push({ name: 'remove', ids: [id] });
  else {
    const taken = new Set(
      now.channels.filter((one) => one.list === before.list && one.id !== id).map(({ slot }) => slot),
    );
    let { slot } = before;
    if (taken.has(slot) && after && after.list === before.list) slot = after.slot;
    while (taken.has(slot)) slot++;
    const waits = now.leftOver.some((one) => one.id === id);
    edits.push({
      name: 'restore',
      records: {
        channel: { put: [{ ...before, slot }], remove: [] },
        ...(waits && { leftOver: { put: [], remove: [id] } }),
      },
    });
  }
  return { name: 'together', label: `Take “${name}” back to ${since}`, edits };
}
