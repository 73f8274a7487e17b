import { allocationsOf, formatFrequency, usualShift, type Mode, type Rules } from '../radio';
import { fail, ok, type Result } from '../result';
import { lengthOf } from '../text';
import {
  fillTemplate,
  NAME_LIMIT,
  TAG_LIMITS,
  type Channel,
  type ChannelChange,
  type ChannelSet,
} from '../plan';
import type { LetterCase } from './words';

/** What a change of many channels comes to: the changes, and how many it has nothing for, with the reason. */
export interface ManyChanges {
  changes: ChannelChange[];
  /** Channels that stay as they are, since it cannot be done with them. */
  left: number;
  /** Why, of the first of those. */
  reason: string | null;
}

/** What can be done to all that is chosen, in one stroke. */
export type ManyWish =
  | { what: 'listen only' }
  | { what: 'same as receive' }
  | { what: 'usual shift' }
  | {
      what: 'set';
      set: Pick<ChannelSet, 'access' | 'mode' | 'power' | 'scan' | 'note' | 'alwaysOn' | 'satellite'>;
    }
  | { what: 'name'; template: string }
  | { what: 'case'; to: LetterCase }
  | { what: 'tag'; tag: string; on: boolean };

/** The fields that a name template has of a channel; `n` counts from 1. */
export function nameFields(channel: Channel, n: number, rules: Rules): Record<string, string> {
  const { rx, source } = channel;
  return {
    name: channel.name,
    call: source?.call ?? '',
    place: source?.place ?? '',
    service: source?.service ?? '',
    band: allocationsOf(rules).find(({ from, to }) => rx >= from && rx <= to)?.band ?? '',
    mhz: formatFrequency(rx),
    mode: channel.mode,
    slot: String(channel.slot),
    n: String(n),
  };
}

function cased(name: string, to: LetterCase): string {
  if (to === 'capitals') return name.toLocaleUpperCase('en');
  if (to === 'small') return name.toLocaleLowerCase('en');
  // What has figures in it is a call sign or a number: it stays.
  return name.replace(/[\p{L}\p{N}'’]+/gu, (word) =>
    /\p{N}/u.test(word)
      ? word
      : word.slice(0, 1).toLocaleUpperCase('en') + word.slice(1).toLocaleLowerCase('en'),
  );
}

function setFor(channel: Channel, wish: ManyWish, n: number, rules: Rules): Result<ChannelSet> {
  switch (wish.what) {
    case 'listen only':
      return ok({ tx: null });
    case 'same as receive':
      return ok({ tx: channel.rx, txFixed: false });
    case 'usual shift': {
      const usual = usualShift(channel.rx, rules.region);
      return usual
        ? ok({ tx: channel.rx + usual.shift, txFixed: false })
        : fail(`There is no usual shift at ${formatFrequency(channel.rx)}.`);
    }
    case 'set':
      return ok(wish.set);
    case 'name': {
      const name = fillTemplate(wish.template, nameFields(channel, n, rules));
      if (!name.ok) return name;
      if (lengthOf(name.value) > NAME_LIMIT)
        return fail(
          `“${name.value}” has ${lengthOf(name.value)} characters; a name has ${NAME_LIMIT} at most.`,
        );
      return ok({ name: name.value });
    }
    case 'case':
      return ok({ name: cased(channel.name, wish.to) });
    case 'tag': {
      const tags = channel.tags ?? [];
      const has = tags.some((tag) => tag.toLowerCase() === wish.tag.toLowerCase());
      if (wish.on === has) return ok({});
      if (!wish.on) return ok({ tags: tags.filter((tag) => tag.toLowerCase() !== wish.tag.toLowerCase()) });
      return tags.length >= TAG_LIMITS.count
        ? fail(`A channel has ${TAG_LIMITS.count} tags at most.`)
        : ok({ tags: [...tags, wish.tag] });
    }
  }
}

/** True where a channel stands so already. */
const standsSo = (channel: Channel, set: ChannelSet): boolean =>
  (Object.keys(set) as (keyof ChannelSet)[]).every(
    (field) => JSON.stringify(channel[field] ?? null) === JSON.stringify(set[field] ?? null),
  );

/** Works out a change of many channels; those that stand so already are no change. */
export function changesFor(channels: readonly Channel[], wish: ManyWish, rules: Rules): ManyChanges {
  const all: ManyChanges = { changes: [], left: 0, reason: null };
  channels.forEach((channel, at) => {
    const set = setFor(channel, wish, at + 1, rules);
    if (!set.ok) {
      all.left++;
      all.reason ??= set.reason;
    } else if (!standsSo(channel, set.value)) all.changes.push({ id: channel.id, set: set.value });
  });
  return all;
}

/** What all of them have in a field, where that is one; `mixed` where they differ. */
export type Common<V> = { kind: 'all'; value: V } | { kind: 'mixed' };

/** What the chosen have in common, field by field. */
export interface CommonFields {
  shift: Common<number | null>;
  access: Common<Channel['access']>;
  mode: Common<Mode>;
  power: Common<number>;
  scan: Common<boolean>;
  note: Common<string>;
  tags: { tag: string; n: number }[];
}

function common<V>(channels: readonly Channel[], of: (channel: Channel) => V): Common<V> {
  const value = of(channels[0]!);
  const text = JSON.stringify(value);
  return channels.every((channel) => JSON.stringify(of(channel)) === text)
    ? { kind: 'all', value }
    : { kind: 'mixed' };
}

/** What the channels, one at least, have in common. */
export function commonFields(channels: readonly Channel[]): CommonFields {
  const tags = new Map<string, number>();
  for (const channel of channels)
    for (const tag of channel.tags ?? []) tags.set(tag, (tags.get(tag) ?? 0) + 1);
  return {
    shift: common(channels, ({ rx, tx }) => (tx === null ? null : tx - rx)),
    access: common(channels, ({ access }) => access),
    mode: common(channels, ({ mode }) => mode),
    power: common(channels, ({ power }) => power),
    scan: common(channels, ({ scan }) => scan),
    note: common(channels, ({ note }) => note),
    tags: [...tags].map(([tag, n]) => ({ tag, n })).sort((a, b) => b.n - a.n || a.tag.localeCompare(b.tag)),
  };
}
