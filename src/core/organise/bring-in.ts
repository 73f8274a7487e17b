import { OBSTACLE_WORDS, obstacles } from '../fit';
import { sidesOf, slotsOf, type Model } from '../models';
import {
  countOf,
  KINDS,
  onAirKey,
  previewPlacing,
  withoutSlot,
  type ChannelId,
  type Edit,
  type MakeIds,
  type NewChannel,
  type PlainEdit,
  type Plan,
  type SlotRange,
} from '../plan';
import { comeAlong, groupKey } from './along';
import { bandName, type BandSides } from './sides';

/** How a friend's plan is put into one's own. */
export interface BringInWish {
  /** One's own channels go first. */
  clear: boolean;
  /** The slot to begin with, on each list. */
  from: number;
  /** Which band goes to which list; the first where it is not said. */
  sides: BandSides;
}

/** What bringing in comes to, before anything is changed: the edit, and what stays behind. */
export interface BringInPreview {
  /** null where nothing comes in. */
  edit: Edit | null;
  goes: { name: string; list: number; slot: number }[];
  left: { name: string; because: string }[];
  /** What comes along with the channels: `4 talkgroups`. */
  comes: string[];
  /** What of that stays behind, and why, in sentences. */
  stays: string[];
}

/**
 * Puts the channels of another plan into one's own, as far as its model can hold them, with their talkgroups and lists, and the zones that they are in where it has
 * some. What is there already on air is left, unless one's own go first; so is what finds no room. `newId` makes ids.
 */
export function bringIn(
  own: Plan,
  source: Plan,
  model: Model,
  { clear, from, sides }: BringInWish,
  newId: MakeIds,
): BringInPreview {
  const goes: BringInPreview['goes'] = [];
  const left: BringInPreview['left'] = [];
  const lists = sidesOf(model);
  const kept = clear ? own.channels.filter(({ list }) => !lists.includes(list)) : own.channels;
  // Talkgroups share a repeater: a channel for each.
  const onAir = (plan: Plan, channel: NewChannel) => `${onAirKey(channel)} ${groupKey(plan, channel)}`;
  const there = new Set(clear ? [] : own.channels.map((channel) => onAir(own, channel)));
  const going = new Map<number, NewChannel[]>(lists.map((list) => [list, []]));
  // Home channels are of the radio that they come from. What found no room there may find some here.
  const coming = [...source.channels.filter(({ list }) => list <= 1).map(withoutSlot), ...source.leftOver];
  for (const channel of coming) {
    const list = sides[bandName(channel, model) ?? ''] ?? 0;
    const slot = slotsOf(model, list)!.first;
    const [inTheWay] = obstacles({ ...channel, list, slot }, model);
    if (inTheWay) left.push({ name: channel.name, because: OBSTACLE_WORDS[inTheWay].because });
    else if (there.has(onAir(source, channel)))
      left.push({ name: channel.name, because: 'it is there already' });
    else {
      there.add(onAir(source, channel));
      going.get(list)!.push(channel);
    }
  }
  const ids = new Map<ChannelId, ChannelId>();
  const placed: { list: number; range: SlotRange; places: { channel: NewChannel; slot: number }[] }[] = [];
  for (const [list, channels] of going) {
    const range = slotsOf(model, list)!;
    const { assigned } = previewPlacing(kept, channels.length, 'next-free', from, range, list);
    for (const { name } of channels.slice(assigned.length))
      left.push({ name, because: 'there is no room for it' });
    const places = assigned.map(({ index, slot }) => ({ channel: channels[index]!, slot }));
    for (const { channel, slot } of places) {
      ids.set(channel.id, newId.channel());
      goes.push({ name: channel.name, list, slot });
    }
    if (places.length > 0) placed.push({ list, range, places });
  }
  const { before, after, refs, comes, stays } = comeAlong(own, source, model, ids, newId);
  const gone = own.channels.filter(({ list }) => clear && lists.includes(list)).map(({ id }) => id);
  const edits: PlainEdit[] = [
    ...(gone.length > 0 ? [{ name: 'remove' as const, ids: gone }] : []),
    ...before,
    ...placed.map(({ list, range, places }): PlainEdit => ({
      name: 'place',
      channels: places.map(({ channel }) => ({ ...channel, ...refs(channel), id: ids.get(channel.id)! })),
      placement: 'next-free',
      ...(list > 0 && { list }),
      at: from,
      range,
      expect: places.map(({ slot }) => slot),
    })),
    ...after,
  ];
  const label = `Bring in ${countOf(goes.length, KINDS.channel)} of “${source.name}”`;
  return { edit: goes.length > 0 ? { name: 'together', label, edits } : null, goes, left, comes, stays };
}
