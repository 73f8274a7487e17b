import { onAirKey, type ChannelId, type NewChannel, type Plan } from '../plan';
import { leaveOver, placeInSlots, type ListRanges, type Placing } from '../table';
import { editsOf, without } from './placing';

/** Channels of one kind that are to stand together: calling from 0, weather from 10. */
export interface Block {
  name: string;
  channels: readonly NewChannel[];
  /** The slot to begin with; null for the one after those before. */
  from: number | null;
}

/** What becomes of a block. */
export interface Filled {
  name: string;
  /** The slots that its channels take, in their order. */
  slots: number[];
  /** Channels that the plan has already, the same in all that matters on air. */
  known: number;
  /** Channels that find no slot. */
  over: NewChannel[];
}

export interface Filling {
  blocks: Filled[];
  placing: Placing | null;
}

/**
 * Fills a list of a radio in blocks. Each takes the free slots from where it begins, up to where another begins that was given a slot of
 * its own; what does not fit between goes behind all of them, in the order of the blocks, until the radio is full; the rest is left over.
 * What the plan has already is not placed again, nor what an earlier block has. Channels that are `going` make room, and wait left over.
 *
 * @example fillBlocks(plan, [{ name: 'Calling', channels, from: 0 }, { name: 'Weather', channels: more, from: 10 }], lists)
 */
export function fillBlocks(
  whole: Plan,
  blocks: readonly Block[],
  lists: ListRanges,
  going: ReadonlySet<ChannelId> = new Set(),
): Filling {
  const plan = without(whole, going);
  const [main] = lists;
  if (!main) return { blocks: [], placing: null };
  const { list, range } = main;
  const taken = new Set(plan.channels.filter((channel) => channel.list === list).map(({ slot }) => slot));
  const starts = blocks.flatMap(({ from }) => (from === null ? [] : [from])).sort((a, b) => a - b);
  const there = new Set(plan.channels.map(onAirKey));
  const placed = new Map<ChannelId, number>();
  let cursor = range.first;
  const waiting: { block: number; channel: NewChannel }[] = [];
  const filled = blocks.map(({ name, channels, from }, block): Filled => {
    const start = Math.max(range.first, from ?? cursor);
    const end = Math.min(starts.find((one) => one > start) ?? Infinity, range.first + range.count);
    const fresh = channels.filter((channel) => {
      const key = onAirKey(channel);
      if (there.has(key)) return false;
      there.add(key);
      return true;
    });
    let slot = start;
    for (const channel of fresh) {
      slot = nextFree(taken, slot, end);
      if (slot < end) put(channel, slot);
      else waiting.push({ block, channel });
    }
    cursor = Math.min(slot + 1, end);
    return { name, slots: [], known: channels.length - fresh.length, over: [] };
  });
  // Until full: what found no room in its own stretch.
  const last = [...placed.values()].reduce((most, slot) => Math.max(most, slot), range.first - 1);
  let behind = Math.max(cursor, last + 1);
  let before = range.first;
  const end = range.first + range.count;
  for (const { block, channel } of waiting) {
    behind = nextFree(taken, behind, end);
    before = nextFree(taken, before, end);
    const slot = behind < end ? behind : before;
    if (slot < end) put(channel, slot);
    else filled[block]!.over.push(channel);
  }
  blocks.forEach(({ channels }, block) => {
    filled[block]!.slots = channels.flatMap(({ id }) => placed.get(id) ?? []);
  });
  const all = blocks.flatMap(({ channels }, block) =>
    channels.filter((channel) => placed.has(channel.id) || filled[block]!.over.includes(channel)),
  );
  if (all.length === 0) return { blocks: filled, placing: null };
  const slots = new Map([...placed].map(([id, at]) => [id, { slot: at, list }]));
  // Nothing but what has a slot is placed: there is no room for the others.
  const placing = placeInSlots(plan, all, slots, [{ list, range }]);
  if (going.size === 0) return { blocks: filled, placing };
  const edits = [...editsOf(leaveOver(whole, going)), ...editsOf(placing.edit)];
  const label = `Place ${placing.placed} channels, ${going.size + placing.over} left over`;
  return { blocks: filled, placing: { ...placing, edit: { name: 'together', label, edits } } };

  function put({ id }: NewChannel, at: number) {
    taken.add(at);
    placed.set(id, at);
  }
}

function nextFree(taken: ReadonlySet<number>, from: number, end: number): number {
  let slot = from;
  while (slot < end && taken.has(slot)) slot++;
  return slot;
}

/** Slots as people write them, runs together: `0–2, 7`. */
export function runsOf(slots: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const slot of [...slots].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last?.[1] === slot - 1) last[1] = slot;
    else runs.push([slot, slot]);
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}–${to}`)).join(', ');
}
