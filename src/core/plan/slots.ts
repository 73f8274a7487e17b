import { SLOT_LIMIT } from './channel';
import type { Channel } from './channel.schema';
import type { ChannelId } from './ids.schema';
import type { Plan } from './plan.schema';

/** The slots that a radio has: `first` to `first + count - 1`. */
export interface SlotRange {
  first: number;
  count: number;
}

/** A slot as people see it: three figures at least, so that columns align. */
export const slotText = (slot: number): string => String(slot).padStart(3, '0');

/** Ways to place entries; `at` is the slot to begin with. */
export const PLACEMENTS = ['next-free', 'at-slot', 'fill-gaps', 'push-down', 'overwrite'] as const;
export type Placement = (typeof PLACEMENTS)[number];

export const PLACEMENT_NAMES: Record<Placement, string> = {
  'next-free': 'Next free slots',
  'at-slot': 'One run of slots',
  'fill-gaps': 'Gaps only',
  'push-down': 'Push others down',
  overwrite: 'Overwrite',
};

/** A channel that goes from one slot to another. */
export interface Move {
  id: ChannelId;
  from: number;
  to: number;
}

/** What placing will do, before anything is changed. Indexes count the entries as they were handed in. */
export interface PlacementPreview {
  assigned: { index: number; slot: number }[];
  pushed: Move[];
  overwritten: ChannelId[];
  leftOver: number[];
}

/**
 * Works out which entry goes to which slot of a list; channels of other lists have slots of their own.
 * `next-free`: each entry takes the next free slot from `at` up. `at-slot`: one run from `at`, up to the first slot
 * that is taken. `fill-gaps`: only free slots below the last one used. `push-down`: one run from `at`, those in the way
 * move down no further than they must, and no further than the last slot. `overwrite`: one run from `at`, those in
 * the way go. What does not fit, in the range or under the highest slot that a plan has, is in `leftOver`.
 */
export function previewPlacing(
  all: readonly Channel[],
  count: number,
  placement: Placement,
  at: number,
  range: SlotRange,
  list = 0,
): PlacementPreview {
  const channels = all.filter((channel) => channel.list === list);
  const end = Math.min(range.first + range.count, SLOT_LIMIT + 1);
  const start = Math.max(at, range.first);
  const bySlot = new Map(channels.map((channel) => [channel.slot, channel]));
  const preview: PlacementPreview = { assigned: [], pushed: [], overwritten: [], leftOver: [] };
  let slots: number[] = [];

  if (placement === 'next-free' || placement === 'fill-gaps') {
    const last = channels.reduce((highest, { slot }) => Math.max(highest, slot), range.first - 1);
    const limit = placement === 'fill-gaps' ? Math.min(end, last) : end;
    for (let slot = start; slot < limit && slots.length < count; slot++)
      if (!bySlot.has(slot)) slots.push(slot);
  } else if (placement === 'at-slot') {
    for (let slot = start; slot < end && slots.length < count && !bySlot.has(slot); slot++) slots.push(slot);
  } else {
    const wanted = Math.max(0, Math.min(count, end - start));
    slots = Array.from({ length: wanted }, (_, index) => start + index);
    if (placement === 'overwrite') {
      preview.overwritten = slots.flatMap((slot) => bySlot.get(slot)?.id ?? []);
    } else {
      // Those in the way and below them go down no further than `end`: each of them takes a slot of the run.
      const held = channels.filter(({ slot }) => slot >= start && slot < end).length;
      slots = slots.slice(0, Math.max(0, end - start - held));
      preview.pushed = pushDown(channels, start, slots.length, end);
    }
  }
  preview.assigned = slots.map((slot, index) => ({ index, slot }));
  for (let index = slots.length; index < count; index++) preview.leftOver.push(index);
  return preview;
}

/** The moves that free `count` slots from `start`, where there is room for that below `end`. */
function pushDown(channels: readonly Channel[], start: number, count: number, end: number): Move[] {
  const moves: Move[] = [];
  let cursor = start + count;
  for (const channel of [...channels].sort((a, b) => a.slot - b.slot)) {
    if (channel.slot < start || channel.slot >= end) continue;
    if (channel.slot >= cursor) break;
    moves.push({ id: channel.id, from: channel.slot, to: cursor });
    cursor++;
  }
  return moves;
}

/** Moves that bring the channels together from `first` on, in their order. */
export function closeGaps(plan: Plan, first: number): Move[] {
  return moves(plan.channels, (index) => first + index);
}

/** Moves that number the chosen channels `start`, `start + step`, … in slot order. */
export function renumber(plan: Plan, ids: ReadonlySet<ChannelId>, start: number, step: number): Move[] {
  return moves(
    plan.channels.filter((channel) => ids.has(channel.id)),
    (index) => start + index * step,
  );
}

export const SORT_KEYS = ['name', 'rx', 'tx', 'mode', 'power'] as const;
export type SortKey = (typeof SORT_KEYS)[number];

const COMPARE: Record<SortKey, (a: Channel, b: Channel) => number> = {
  name: (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  rx: (a, b) => a.rx - b.rx,
  tx: (a, b) => (a.tx ?? Infinity) - (b.tx ?? Infinity) || 0,
  mode: (a, b) => a.mode.localeCompare(b.mode),
  power: (a, b) => a.power - b.power,
};

/** Moves that sort the chosen channels among the slots that they hold together; equals keep their order. */
export function sortInPlace(plan: Plan, ids: ReadonlySet<ChannelId>, key: SortKey): Move[] {
  const chosen = plan.channels.filter((channel) => ids.has(channel.id));
  const slots = chosen.map((channel) => channel.slot);
  const compare = COMPARE[key];
  return moves(
    [...chosen].sort((a, b) => compare(a, b) || a.slot - b.slot),
    (index) => slots[index]!,
  );
}

/**
 * Moves that take the chosen channels out of the list and put them before another one, or at its end where `before` is
 * null. The slots in use stay the same; those in between go up or down by as many as are carried past them.
 */
export function reorder(
  { channels: all }: Plan,
  ids: ReadonlySet<ChannelId>,
  before: ChannelId | null,
): Move[] {
  // Within the list of the first that is carried; slots of another one are another radio's side.
  const list = all.find(({ id }) => ids.has(id))?.list;
  const plan = { channels: all.filter((channel) => channel.list === list) };
  const slots = plan.channels.map((channel) => channel.slot);
  const found = plan.channels.findIndex(({ id }) => id === before);
  const from = found < 0 ? slots.length : found;
  const chosen = plan.channels.filter(({ id }) => ids.has(id));
  const stays = (channel: Channel) => !ids.has(channel.id);
  const order = [
    ...plan.channels.slice(0, from).filter(stays),
    ...chosen,
    ...plan.channels.slice(from).filter(stays),
  ];
  return moves(order, (index) => slots[index]!);
}

/** Moves that exchange two channels. */
export function swap(a: Channel, b: Channel): Move[] {
  return [
    { id: a.id, from: a.slot, to: b.slot },
    { id: b.id, from: b.slot, to: a.slot },
  ];
}

function moves(channels: readonly Channel[], slotOf: (index: number) => number): Move[] {
  return channels
    .map((channel, index) => ({ id: channel.id, from: channel.slot, to: slotOf(index) }))
    .filter((move) => move.from !== move.to);
}
