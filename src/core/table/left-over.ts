import { fail, ok, type Result } from '../result';
import {
  ARRANGE_WORDS,
  countOf,
  KINDS,
  previewArrangement,
  previewPlacing,
  withIds,
  withoutSlot,
  type Arrangement,
  type Channel,
  type ChannelId,
  type Edit,
  type Move,
  type NewChannel,
  type Placement,
  type PlainEdit,
  type Plan,
  type SlotRange,
} from '../plan';

/**
 * Channels without room wait beside the table: left over, in the plan and without a slot. Everything here comes out as one edit, so
 * that undo takes it back as a whole.
 */

const asOne = (label: string, edits: PlainEdit[]): Edit =>
  edits.length === 1 ? edits[0]! : { name: 'together', label, edits };

const leaving = (channels: readonly Channel[]): PlainEdit[] =>
  channels.length === 0
    ? []
    : [
        { name: 'remove', ids: channels.map(({ id }) => id) },
        { name: 'put', kind: 'leftOver', records: channels.map(withoutSlot), before: null },
      ];

const channelsOf = (n: number) => countOf(n, KINDS.channel);

/** The edit that takes channels out of their slots and leaves them over. */
export const leaveOver = (plan: Plan, ids: ReadonlySet<ChannelId>): Edit => {
  const going = withIds(plan.channels, ids);
  return asOne(`Leave ${channelsOf(going.length)} over`, leaving(going));
};

/** Where channels are to go. */
export interface Wanted {
  placement: Placement;
  at: number;
  range: SlotRange;
  list: number;
}

/** What placing comes to: the edit, how many find a slot, and how many are left over. */
export interface Placing {
  edit: Edit;
  placed: number;
  over: number;
}

/** Places new channels as far as there is room; the others, and those that are overwritten, are left over. */
export function placeWhatFits(plan: Plan, channels: readonly NewChannel[], wanted: Wanted): Placing {
  const { placement, at, range, list } = wanted;
  const preview = previewPlacing(plan.channels, channels.length, placement, at, range, list);
  const fits = preview.assigned.map(({ index }) => channels[index]!);
  const rest = preview.leftOver.map((index) => channels[index]!);
  const inTheWay = withIds(plan.channels, new Set(preview.overwritten));
  const edits: PlainEdit[] = [
    ...leaving(inTheWay),
    ...(fits.length > 0
      ? [{ name: 'place' as const, channels: fits, placement, at, range, ...(list > 0 && { list }) }]
      : []),
    ...(rest.length > 0
      ? [{ name: 'put' as const, kind: 'leftOver' as const, records: rest, before: null }]
      : []),
  ];
  const over = rest.length + inTheWay.length;
  const label = `Place ${channelsOf(fits.length)}${over > 0 ? `, ${over} left over` : ''}`;
  return { edit: asOne(label, edits), placed: fits.length, over };
}

/** The slots that the radio has on each of its lists. */
export type ListRanges = readonly { list: number; range: SlotRange }[];

/**
 * Places new channels in the slots that they name, as far as those are there and free; the others in the next free slots of the first
 * list, and what finds none is left over.
 *
 * @example placeInSlots(plan, channels, slots, [{ list: 0, range: { first: 0, count: 150 } }])
 */
export function placeInSlots(
  plan: Plan,
  channels: readonly NewChannel[],
  slots: ReadonlyMap<ChannelId, { slot: number; list: number }>,
  lists: ListRanges,
): Placing {
  const taken = new Set(plan.channels.map(({ list, slot }) => `${list} ${slot}`));
  const free = (list: number, slot: number) => !taken.has(`${list} ${slot}`);
  const going = new Map<number, { channel: NewChannel; slot: number }[]>();
  const put = (channel: NewChannel, list: number, slot: number) => {
    taken.add(`${list} ${slot}`);
    const own = going.get(list) ?? [];
    going.set(list, own);
    own.push({ channel, slot });
  };
  const others = channels.filter((channel) => {
    const named = slots.get(channel.id);
    const range = lists.find(({ list }) => list === named?.list)?.range;
    if (!named || !range || named.slot < range.first || named.slot >= range.first + range.count) return true;
    if (!free(named.list, named.slot)) return true;
    put(channel, named.list, named.slot);
    return false;
  });
  const [main] = lists;
  let next = main?.range.first ?? 0;
  const over = others.filter((channel) => {
    if (!main) return true;
    const end = main.range.first + main.range.count;
    while (next < end && !free(main.list, next)) next++;
    if (next >= end) return true;
    put(channel, main.list, next);
    return false;
  });
  const edits: PlainEdit[] = lists.flatMap(({ list, range }): PlainEdit[] => {
    const own = going.get(list) ?? [];
    if (own.length === 0) return [];
    const placing = {
      name: 'place' as const,
      channels: own.map(({ channel }) => channel),
      slots: own.map(({ slot }) => slot),
      ...{ placement: 'next-free' as const, at: range.first, range },
    };
    return [list > 0 ? { ...placing, list } : placing];
  });
  if (over.length > 0) edits.push({ name: 'put', kind: 'leftOver', records: over, before: null });
  const placed = channels.length - over.length;
  const label = `Place ${channelsOf(placed)}${over.length > 0 ? `, ${over.length} left over` : ''}`;
  return { edit: asOne(label, edits), placed, over: over.length };
}

/** Places channels that are left over, as far as there is room; the others stay left over. Fails where there is none at all. */
export function placeLeftOver(plan: Plan, ids: ReadonlySet<ChannelId>, wanted: Wanted): Result<Placing> {
  const { placement, at, range, list } = wanted;
  const waiting = plan.leftOver.filter(({ id }) => ids.has(id));
  const preview = previewPlacing(plan.channels, waiting.length, placement, at, range, list);
  const going = preview.assigned.map(({ index }) => waiting[index]!);
  if (going.length === 0) return fail('There is no free slot. Take channels out, or choose another way.');
  const inTheWay = withIds(plan.channels, new Set(preview.overwritten));
  const label = `Place ${channelsOf(going.length)} that ${going.length === 1 ? 'was' : 'were'} left over`;
  return ok({
    edit: asOne(label, [
      { name: 'remove', kind: 'leftOver', ids: going.map(({ id }) => id) },
      ...leaving(inTheWay),
      { name: 'place', channels: going, placement, at, range, ...(list > 0 && { list }) },
    ]),
    placed: going.length,
    over: waiting.length - going.length + inTheWay.length,
  });
}

/** An arrangement, also one that puts what is in the way beside the table. */
export type Rearrangement = Arrangement | { how: 'move'; at: number; room: 'overwrite' };

/** Who goes where, and who is left over, in the order of their slots. */
export interface Rearranged {
  moves: Move[];
  over: ChannelId[];
}

/**
 * What an arrangement comes to, before anything is changed. What falls off the end of the radio's slots, and what is overwritten, is
 * left over; nothing is lost. Fails with a reason where nothing would find room.
 */
export function previewRearranging(
  plan: Plan,
  chosen: ReadonlySet<ChannelId>,
  wish: Rearrangement,
  range: SlotRange,
  list = 0,
): Result<Rearranged> {
  const own = plan.channels.filter((channel) => channel.list === list);
  const going = own.filter(({ id }) => chosen.has(id));
  if (wish.how === 'move') {
    const others = own.filter(({ id }) => !chosen.has(id));
    const preview = previewPlacing(others, going.length, wish.room, wish.at, range, list);
    if (preview.assigned.length === 0)
      return fail('There is no room there. Choose another slot, or another way.');
    const moves = preview.assigned.map(({ index, slot }) => ({
      id: going[index]!.id,
      from: going[index]!.slot,
      to: slot,
    }));
    return ok({
      moves: [...moves, ...preview.pushed].filter(({ from, to }) => from !== to).sort((a, b) => a.to - b.to),
      over: [...preview.overwritten, ...preview.leftOver.map((index) => going[index]!.id)],
    });
  }
  const last = range.first + range.count - 1;
  const over =
    wish.how === 'renumber'
      ? going.filter((_, index) => wish.start + index * wish.step > last).map(({ id }) => id)
      : [];
  if (over.length > 0 && over.length === going.length)
    return fail(`Slot ${wish.how === 'renumber' ? wish.start : last} is past the last one, ${last}.`);
  const gone = new Set(over);
  const moves = previewArrangement(
    { ...plan, channels: plan.channels.filter(({ id }) => !gone.has(id)) },
    new Set([...chosen].filter((id) => !gone.has(id))),
    wish,
    range,
    list,
  );
  return moves.ok ? ok({ moves: moves.value, over }) : moves;
}

/** The edit of a rearrangement that was previewed; null where it changes nothing. */
export function rearranging(plan: Plan, how: Rearrangement['how'], { moves, over }: Rearranged): Edit | null {
  const edits: PlainEdit[] = leaving(withIds(plan.channels, new Set(over)));
  if (moves.length > 0) edits.push({ name: 'arrange', how, moves });
  if (edits.length === 0) return null;
  return asOne(`${ARRANGE_WORDS[how]} ${channelsOf(moves.length)}, ${over.length} left over`, edits);
}
