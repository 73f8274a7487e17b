import type { Model } from '../models';
import {
  callNumberText,
  slotText,
  type Channel,
  type Edit,
  type PlainEdit,
  type Plan,
  type ReceiveListId,
  type ScanListId,
  type TalkgroupId,
} from '../plan';
import { formatFrequency } from '../radio';
import { knobPositions, positionsOf } from './knob';
import { joining } from './matrix';

/** How knob, channels, talkgroups and lists of a plan are wired, as something that can be drawn and followed. */

/** The kinds of things that are wired; `member` is a channel as one that a scan list looks at, which is not whose list it is. */
export const WIRED = ['zone', 'channel', 'talkgroup', 'receiveList', 'scanList', 'member'] as const;
export type Wired = (typeof WIRED)[number];

/** A thing in the drawing. */
export interface WireNode {
  kind: Wired;
  id: string;
  name: string;
  /** What else is to be known of it: the position of the knob, the number, how many members. */
  detail: string;
  /** It belongs to what is followed; the others are there to be joined. */
  on: boolean;
}

/** A wire between two things: `has` from a channel to what it calls, hears, scans; `holds` from a zone or list to a member. */
export interface Wire {
  from: string;
  to: string;
  what: 'has' | 'holds';
}

export interface Wiring {
  columns: { kind: Wired; nodes: WireNode[]; more: number }[];
  wires: Wire[];
}

/** The name of a thing in the drawing. */
export const wireKey = (kind: Wired, id: string): string => `${kind} ${id}`;

/** The kinds of things that a model wires. */
export const wiredOf = (model: Model): Wired[] =>
  WIRED.filter(
    (kind) =>
      kind === 'channel' ||
      (kind === 'zone' && model.zones) ||
      ((kind === 'scanList' || kind === 'member') && model.scanLists) ||
      ((kind === 'talkgroup' || kind === 'receiveList') && model.digital),
  );

/** All wires of a plan on a model. */
function wiresOf(plan: Plan, model: Model): Wire[] {
  const wires: Wire[] = [];
  const add = (
    what: Wire['what'],
    [kind, id]: [Wired, string],
    [toKind, to]: [Wired, string | null | undefined],
  ) => {
    if (to) wires.push({ from: wireKey(kind, id), to: wireKey(toKind, to), what });
  };
  if (model.zones)
    for (const zone of plan.zones) {
      for (const id of zone.members) add('holds', ['zone', zone.id], ['channel', id]);
      if (model.scanLists?.by === 'zone') add('has', ['zone', zone.id], ['scanList', zone.scanList]);
    }
  for (const channel of plan.channels) {
    if (model.digital) {
      add('has', ['channel', channel.id], ['talkgroup', channel.talkgroup]);
      add('has', ['channel', channel.id], ['receiveList', channel.receiveList]);
    }
    if (model.scanLists?.by === 'channel')
      add('has', ['channel', channel.id], ['scanList', channel.scanList]);
  }
  if (model.digital)
    for (const list of plan.receiveLists)
      for (const id of list.members) add('holds', ['receiveList', list.id], ['talkgroup', id]);
  if (model.scanLists)
    for (const list of plan.scanLists)
      for (const id of list.members) add('holds', ['scanList', list.id], ['member', id]);
  return wires;
}

/** What is followed from a thing: what it has and holds and, the other way, what has and holds it; from a zone on also what its channels have. */
function followed(wires: readonly Wire[], focus: string): Set<string> {
  const on = new Set([focus]);
  const channels = new Set<string>();
  for (const { from, to } of wires) {
    if (from === focus) on.add(to);
    if (to === focus) on.add(from);
  }
  for (const key of on) if (key.startsWith('channel ')) channels.add(key);
  // One step on from the channels of a zone or list: whom they call, what they hear and scan.
  if (!focus.startsWith('channel '))
    for (const { from, to, what } of wires) if (what === 'has' && channels.has(from)) on.add(to);
  // And what the scan lists among them look at.
  for (const { from, to } of wires) if (to.startsWith('member ') && on.has(from)) on.add(to);
  return on;
}

const channelDetail = (channel: Channel) => `${slotText(channel.slot)} · ${formatFrequency(channel.rx)}`;

/**
 * The drawing of a plan's wiring. With a thing in focus what belongs to it comes first in each column and is `on`; `search` leaves what
 * has those letters, and what is followed. No column has more than `most`; how many more there are it says.
 */
export function wiringOf(
  plan: Plan,
  model: Model,
  { focus, search = '', most = 60 }: { focus: string | null; search?: string; most?: number },
): Wiring {
  const wires = wiresOf(plan, model);
  const on = focus === null ? null : followed(wires, focus);
  const wanted = search.trim().toLowerCase();
  const positions = new Map<string, number>();
  const zone = plan.zones.find(({ id }) => focus === wireKey('zone', id));
  if (zone && knobPositions(model) > 0)
    for (const [at, id] of positionsOf(zone, model).entries())
      if (id && !positions.has(id)) positions.set(id, at + 1);
  const of: Record<Wired, () => Omit<WireNode, 'on' | 'kind'>[]> = {
    zone: () => plan.zones.map(({ id, name, members }) => ({ id, name, detail: `${members.length} in it` })),
    channel: () =>
      plan.channels.map((channel) => ({
        id: channel.id,
        name: channel.name || 'no name',
        detail: positions.has(channel.id)
          ? `knob ${positions.get(channel.id)} · ${channelDetail(channel)}`
          : channelDetail(channel),
      })),
    talkgroup: () =>
      plan.talkgroups.map(({ id, name, number }) => ({ id, name, detail: callNumberText(number) })),
    receiveList: () =>
      plan.receiveLists.map(({ id, name, members }) => ({ id, name, detail: `${members.length} heard` })),
    member: () =>
      plan.channels.map((channel) => ({
        id: channel.id,
        name: channel.name || 'no name',
        detail: channelDetail(channel),
      })),
    scanList: () =>
      plan.scanLists.map(({ id, name, members }) => ({ id, name, detail: `${members.length} scanned` })),
  };
  const shown = new Set<string>();
  const columns = wiredOf(model).map((kind) => {
    const nodes = of[kind]()
      .map((node) => ({ ...node, kind, on: on === null || on.has(wireKey(kind, node.id)) }))
      .filter(
        (node) =>
          wanted === '' ||
          (on !== null && node.on) ||
          `${node.name} ${node.detail}`.toLowerCase().includes(wanted),
      );
    const sorted =
      on === null ? nodes : [...nodes.filter((node) => node.on), ...nodes.filter((node) => !node.on)];
    // By the knob, where it is what is followed.
    if (positions.size > 0 && kind === 'channel')
      sorted.sort(
        (a, b) =>
          Number(b.on) - Number(a.on) ||
          (positions.get(a.id) ?? Infinity) - (positions.get(b.id) ?? Infinity) ||
          0,
      );
    const taken = sorted.slice(0, most);
    for (const node of taken) shown.add(wireKey(kind, node.id));
    return { kind, nodes: taken, more: sorted.length - taken.length };
  });
  const drawn = wires.filter(
    ({ from, to }) => shown.has(from) && shown.has(to) && (on === null || (on.has(from) && on.has(to))),
  );
  return { columns, wires: drawn };
}

const parted = (key: string): [Wired, string] => key.split(' ') as [Wired, string];

/** Whether a wire can be drawn between two things on a model, either way round. */
export const canWire = (a: string, b: string, model: Model): boolean => joined(a, b, model) !== null;

type Join =
  | {
      what: 'has';
      kind: 'channel' | 'zone';
      id: string;
      field: 'talkgroup' | 'receiveList' | 'scanList';
      to: string;
    }
  | { what: 'holds'; kind: 'zone' | 'receiveList' | 'scanList'; id: string; member: string };

/** What joining two things comes to. */
function joined(a: string, b: string, model: Model): Join | null {
  const [[one, oneId], [two, twoId]] = [parted(a), parted(b)];
  const has = (from: Wired, to: Wired) =>
    one === from && two === to ? [oneId, twoId] : one === to && two === from ? [twoId, oneId] : null;
  for (const [kind, field] of [
    ['channel', 'talkgroup'],
    ['channel', 'receiveList'],
    [model.scanLists?.by ?? 'channel', 'scanList'],
  ] as const) {
    const pair = has(kind, field);
    if (pair) return { what: 'has', kind, id: pair[0]!, field, to: pair[1]! };
  }
  for (const [kind, member] of [
    ['zone', 'channel'],
    ['receiveList', 'talkgroup'],
    ['scanList', 'member'],
  ] as const) {
    const pair = has(kind, member);
    if (pair) return { what: 'holds', kind, id: pair[0]!, member: pair[1]! };
  }
  return null;
}

/** The edit that draws a wire between two things, or takes it away where it is there; null where none can be, or where there is no room. */
export function wireEdit(plan: Plan, model: Model, a: string, b: string): { edit: Edit; on: boolean } | null {
  const join = joined(a, b, model);
  if (!join) return null;
  if (join.what === 'has') {
    const { kind, id, field, to } = join;
    const records: readonly { id: string; [field: string]: unknown }[] =
      kind === 'channel' ? plan.channels : plan.zones;
    const before = records.find((one) => one.id === id);
    if (!before) return null;
    const on = before[field] !== to;
    const set = { [field]: on ? (to as TalkgroupId | ReceiveListId | ScanListId) : null };
    // The id is that of a record of the kind, which TypeScript cannot follow through the index.
    return { edit: { name: 'change', kind, changes: [{ id, set }] } as unknown as PlainEdit, on };
  }
  const { kind, id, member } = join;
  const lists = { zone: plan.zones, receiveList: plan.receiveLists, scanList: plan.scanLists }[kind];
  const before = lists.find((one) => one.id === id);
  if (!before) return null;
  const members: readonly string[] = before.members;
  const on = !members.includes(member);
  const { edit } = joining(plan, model, kind, [{ column: id, row: member }], on);
  return edit && { edit, on };
}
