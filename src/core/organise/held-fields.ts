import {
  POLITENESS_WORDS,
  CALLS,
  channelDefaults,
  makeId,
  NAME_LIMIT,
  TALKGROUP_NAME_LIMIT,
  type Channel,
  type ChannelId,
  type ChannelSet,
  type NewChannel,
  type Plan,
  type Talkgroup,
  type TalkgroupId,
} from '../plan';
import type { RecordsHeld } from '../fit';
import { politenessOf } from '../image';
import type { FittedChannel, FittedTalkgroup, Model } from '../models';
import { formatAccess, formatFrequency, formatPower } from '../radio';
import { cutText } from '../text';

/** The fields of a channel as a radio holds it: what each is in the plan, in words, and as an edit. */

export const FIELDS = [
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
export type Field = (typeof FIELDS)[number];
/** Fields that are judged together: a new receive frequency with a transmit that somebody else forbade is a matter for a person. */
const TOGETHER: readonly (readonly Field[])[] = [
  ['rx', 'tx'],
  ['mode', 'access'],
];
/** The fields and all fields of their groups, in the order of FIELDS. */
export const withTheirs = (fields: readonly Field[]) =>
  FIELDS.filter(
    (field) =>
      fields.includes(field) ||
      TOGETHER.some((group) => group.includes(field) && group.some((one) => fields.includes(one))),
  );

const accessOf = ({ send, expect, digital }: FittedChannel): Channel['access'] =>
  digital
    ? { kind: 'dmr', colourCode: digital.colourCode, timeSlot: digital.timeSlot }
    : { kind: 'analogue', send, expect };

/** A channel of a radio, with the plan's lists and the radio's talkgroups by number. */
export interface Held extends FittedChannel {
  records: RecordsHeld;
  groups: ReadonlyMap<number, FittedTalkgroup>;
}
const groupOf = ({ digital, groups }: Held) => groups.get(digital?.talkgroup ?? 0);

/** The id of a list in the plan, or the radio's number where the plan has no such list. */
const linkOf = (number: number | null | undefined, ids: ReadonlyMap<number, string>) =>
  number ? (ids.get(number) ?? number) : null;

/** A field of what a radio holds, as a plan has it. */
export function valueOf(held: Held, field: Field) {
  if (field === 'access') return accessOf(held);
  if (field === 'talkgroup') {
    // By whom it calls on air: a talkgroup may stand under another number by now.
    const group = groupOf(held);
    return group ? `${group.call} ${group.address}` : (held.digital?.talkgroup ?? null);
  }
  if (field === 'receiveList') return linkOf(held.digital?.receiveList, held.records.receiveList.ids);
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
  talkgroup: (held) => {
    const group = groupOf(held);
    return group ? `calls ${group.name || group.address}` : 'calls nobody';
  },
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
export const inWords = (held: Held, fields: readonly Field[]) =>
  fields.map((field) => WORDS[field](held)).join(', ');
export const whole = (held: Held) =>
  inWords(held, ['name', 'rx', 'tx', 'access', ...(held.digital ? (['talkgroup'] as const) : [])]);

/** The talkgroup of the plan that a channel of a radio calls, or one to be made; undefined where the radio itself has none of that number. */
export function talkgroupFor(
  held: Held,
  own: Plan,
): { id: TalkgroupId; made?: Talkgroup } | null | undefined {
  if (!held.digital?.talkgroup) return null;
  const group = groupOf(held);
  if (!group) return undefined;
  const { address, call } = group;
  const known = own.talkgroups.find((one) => one.number === address && one.call === call);
  if (known) return { id: known.id };
  // The same each time, so that two channels that call it make one of it.
  const figures = Array.from({ length: 10 }, (_, n) => Math.floor(address / 36 ** n) % 36);
  const id = makeId('tg', Uint8Array.of(7, CALLS.indexOf(call), ...figures));
  const name = cutText(group.name.trim(), TALKGROUP_NAME_LIMIT) || `Talkgroup ${address}`;
  return { id, made: { id, name, number: address, call } };
}

/** The talkgroup and lists of a channel that the plan has, or that can be added to it. */
function linksOf(held: Held, own: Plan): Partial<Pick<Channel, 'talkgroup' | 'receiveList' | 'scanList'>> {
  const link = <Id extends string>(field: Field, records: readonly { id: Id }[]) => {
    const value = valueOf(held, field);
    return records.find(({ id }) => id === value)?.id ?? null;
  };
  return {
    ...(held.digital && {
      talkgroup: talkgroupFor(held, own)?.id ?? null,
      receiveList: link('receiveList', own.receiveLists),
    }),
    ...(held.scanList !== undefined && { scanList: link('scanList', own.scanLists) }),
  };
}
/** True where a channel of a radio refers to what is not in the plan. */
export const refersElsewhere = (held: Held, own: Plan, fields: readonly Field[]) =>
  (['talkgroup', 'receiveList', 'scanList'] as const).some(
    (field) => fields.includes(field) && valueOf(held, field) !== null && !linksOf(held, own)[field],
  );

/** What a channel is set to, to be as the radio has it in some fields. */
export function setOf(
  held: Held,
  fields: readonly Field[],
  own: Channel,
  plan: Plan,
  model: Model,
): ChannelSet {
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

export const newChannel = (held: Held, id: ChannelId, own: Plan, model: Model): NewChannel => ({
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
