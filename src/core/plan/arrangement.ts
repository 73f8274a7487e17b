import { fail, ok, type Result } from '../result';
import type { ChannelId } from './ids.schema';
import type { Plan } from './plan.schema';
import {
  closeGaps,
  previewPlacing,
  renumber,
  sortInPlace,
  type Move,
  type Placement,
  type SlotRange,
  type SortKey,
} from './slots';

/** How channels that are moved find room; overwriting is for new ones only, since it takes channels away. */
export type Room = Exclude<Placement, 'overwrite'>;
export const ROOMS: readonly Room[] = ['push-down', 'next-free', 'at-slot', 'fill-gaps'];

/** A wish about the order of slots. `move` and `renumber` are about the chosen channels, `close gaps` about all. */
export type Arrangement =
  | { how: 'move'; at: number; room: Room }
  | { how: 'renumber'; start: number; step: number }
  | { how: 'sort'; key: SortKey }
  | { how: 'close gaps' };

/**
 * The moves that an arrangement comes to, in order of the new slots, before anything is changed. `sort` is about the
 * chosen where there are several, else about all. Fails with a reason where a channel would leave the radio's slots or
 * come upon another that stays; then nothing is moved. No moves where all stands so already.
 */
export function previewArrangement(
  whole: Plan,
  chosen: ReadonlySet<ChannelId>,
  arrangement: Arrangement,
  range: SlotRange,
  list = 0,
): Result<Move[]> {
  // Of one list: the slots of another side have an order of their own.
  const plan = { ...whole, channels: whole.channels.filter((channel) => channel.list === list) };
  const moves = movesOf(plan, chosen, arrangement, range);
  if (!moves.ok) return moves;
  const sorted = [...moves.value].sort((a, b) => a.to - b.to);
  const last = range.first + range.count - 1;
  const held = new Set(plan.channels.map(({ slot }) => slot));
  const outside = sorted.find(({ to }) => (to < range.first || to > last) && !held.has(to));
  if (outside)
    return fail(`Slot ${outside.to} is not in this radio: its slots are ${range.first} to ${last}.`);
  const moving = new Set(sorted.map(({ id }) => id));
  const staying = new Map(plan.channels.filter(({ id }) => !moving.has(id)).map((one) => [one.slot, one]));
  const met = sorted.find(({ to }) => staying.has(to));
  if (met)
    return fail(
      `Slot ${met.to} is taken by “${staying.get(met.to)!.name}”. Choose it too, or other numbers.`,
    );
  return ok(sorted);
}

function movesOf(
  plan: Plan,
  chosen: ReadonlySet<ChannelId>,
  arrangement: Arrangement,
  range: SlotRange,
): Result<Move[]> {
  switch (arrangement.how) {
    case 'close gaps':
      return ok(closeGaps(plan, range.first));
    case 'renumber':
      return ok(renumber(plan, chosen, arrangement.start, arrangement.step));
    case 'sort':
      return ok(
        sortInPlace(
          plan,
          chosen.size > 1 ? chosen : new Set(plan.channels.map(({ id }) => id)),
          arrangement.key,
        ),
      );
    case 'move': {
      const going = plan.channels.filter(({ id }) => chosen.has(id));
      const others = plan.channels.filter(({ id }) => !chosen.has(id));
      const preview = previewPlacing(others, going.length, arrangement.room, arrangement.at, range);
      if (preview.leftOver.length > 0)
        return fail(
          `There is room for ${preview.assigned.length} of ${going.length} there. Choose another slot, or another way.`,
        );
      const own = preview.assigned.map(({ index, slot }) => ({
        id: going[index]!.id,
        from: going[index]!.slot,
        to: slot,
      }));
      return ok([...own, ...preview.pushed].filter(({ from, to }) => from !== to));
    }
  }
}
