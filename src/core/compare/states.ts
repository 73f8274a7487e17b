import equal from 'fast-deep-equal';
import { formatFrequency } from '../radio';
import {
  cellText,
  COLUMNS,
  countOf,
  FIELD_NAMES,
  KIND_NAMES,
  KINDS,
  recordsOf,
  type AnyRecord,
  type Channel,
  type ChannelId,
  type Edit,
  type Kind,
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

/** The fields of a channel that are no columns, as people read them. */
const OTHERS: Partial<Record<keyof Channel, (channel: Channel) => string>> = {
  note: ({ note }) => note,
  tags: ({ tags = [] }) => tags.join(', '),
  alwaysOn: ({ alwaysOn }) => yesNo(alwaysOn),
  satellite: ({ satellite }) => yesNo(satellite),
  fitted: ({ fitted }) => Object.values(fitted).join(', '),
  list: ({ list }) => String(list + 1),
  unclear: ({ unclear = {} }) =>
    Object.entries(unclear)
      .map(([column, text]) => `${FIELD_NAMES[column as keyof typeof FIELD_NAMES]} “${text}”`)
      .join(', '),
};

/** Cell by cell, the slot among them. */
function fieldsOf(then: Channel, now: Channel): FieldDifference[] {
  const columns = COLUMNS.map((column) => ({
    field: FIELD_NAMES[column],
    then: cellText(then, column),
    now: cellText(now, column),
  }));
  const others = (Object.keys(OTHERS) as (keyof typeof OTHERS)[]).map((field) => ({
    field: FIELD_NAMES[field],
    then: OTHERS[field]!(then),
    now: OTHERS[field]!(now),
  }));
  return [...columns, ...others].filter((one) => one.then !== one.now);
}

const called = (channel: Channel) => channel.name || formatFrequency(channel.rx);

function besidesOf(then: Plan, now: Plan): string[] {
  const said: string[] = [];
  if (then.name !== now.name) said.push(`The plan was called “${then.name}”`);
  if (then.modelId !== now.modelId) said.push(`The plan was for ${then.modelId}`);
  if (!equal(then.owner, now.owner)) said.push('Whose plan it is was otherwise');
  if (!equal(then.settings, now.settings)) said.push('Settings were otherwise');
  for (const kind of KIND_NAMES.filter((one: Kind) => one !== 'channel')) {
    const [was, is] = [then, now].map(
      (plan) =>
        new Map<string, AnyRecord>(
          (recordsOf(plan, kind) as readonly AnyRecord[]).map((one) => [one.id, one]),
        ),
    ) as [Map<string, AnyRecord>, Map<string, AnyRecord>];
    const added = [...is.keys()].filter((id) => !was.has(id)).length;
    const gone = [...was.keys()].filter((id) => !is.has(id)).length;
    const changed = [...is].filter(([id, one]) => was.has(id) && !equal(was.get(id), one)).length;
    for (const [n, word] of [
      [added, 'new'],
      [gone, 'gone'],
      [changed, 'changed'],
    ] as const)
      if (n > 0) said.push(`${countOf(n, KINDS[kind])} ${word}`);
  }
  return said;
}

/** Holds how a plan was against how it is. */
export function compareStates(then: Plan, now: Plan): StateComparison {
  const was = new Map(then.channels.map((channel) => [channel.id, channel]));
  const is = new Map(now.channels.map((channel) => [channel.id, channel]));
  const channels: (ChannelState & { list: number })[] = [];
  for (const channel of now.channels) {
    const before = was.get(channel.id);
    const { id, slot, list } = channel;
    if (!before) channels.push({ id, what: 'added', name: called(channel), slot, list, fields: [] });
    else if (before !== channel) {
      const fields = fieldsOf(before, channel);
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
    besides: besidesOf(then, now),
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
