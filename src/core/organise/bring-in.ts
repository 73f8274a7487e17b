import { OBSTACLE_WORDS, obstacles } from '../fit';
import { sidesOf, slotsOf, type Model } from '../models';
import {
  countOf,
  KINDS,
  onAirKey,
  previewPlacing,
  type Channel,
  type ChannelId,
  type Edit,
  type PlainEdit,
  type Plan,
  type ZoneId,
} from '../plan';
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
}

/**
 * Puts the channels of another plan into one's own, as far as its model can hold them, and the zones that they are in where it has
 * some. What is there already on air is left, unless one's own go first; so is what finds no room. `newId` makes ids.
 */
export function bringIn(
  own: Plan,
  source: Plan,
  model: Model,
  { clear, from, sides }: BringInWish,
  newId: { channel: () => ChannelId; zone: () => ZoneId },
): BringInPreview {
  const preview: BringInPreview = { edit: null, goes: [], left: [] };
  const edits: PlainEdit[] = [];
  const lists = sidesOf(model);
  const kept = clear ? own.channels.filter(({ list }) => !lists.includes(list)) : own.channels;
  const there = new Set(clear ? [] : own.channels.map((channel) => onAirKey(channel)));
  const going = new Map<number, Channel[]>(lists.map((list) => [list, []]));
  for (const channel of source.channels) {
    // Home channels are of the radio that they come from.
    if (channel.list > 1) continue;
    const list = sides[bandName(channel, model) ?? ''] ?? 0;
    const slot = slotsOf(model, list)!.first;
    const [inTheWay] = obstacles({ ...channel, list, slot }, model);
    if (inTheWay) preview.left.push({ name: channel.name, because: OBSTACLE_WORDS[inTheWay].because });
    else if (there.has(onAirKey(channel)))
      preview.left.push({ name: channel.name, because: 'it is there already' });
    else {
      there.add(onAirKey(channel));
      going.get(list)!.push(channel);
    }
  }
  const gone = own.channels.filter(({ list }) => clear && lists.includes(list)).map(({ id }) => id);
  if (gone.length > 0) edits.push({ name: 'remove', ids: gone });

  const ids = new Map<ChannelId, ChannelId>();
  for (const [list, channels] of going) {
    const range = slotsOf(model, list)!;
    const { assigned } = previewPlacing(kept, channels.length, 'next-free', from, range, list);
    for (const { name } of channels.slice(assigned.length))
      preview.left.push({ name, because: 'there is no room for it' });
    if (assigned.length === 0) continue;
    preview.goes.push(...assigned.map(({ index, slot }) => ({ name: channels[index]!.name, list, slot })));
    edits.push({
      name: 'place',
      channels: assigned.map(({ index }) => {
        const { slot: _, list: _list, id, ...fields } = channels[index]!;
        const made = newId.channel();
        ids.set(id, made);
        return { ...fields, id: made };
      }),
      placement: 'next-free',
      ...(list > 0 && { list }),
      at: from,
      range,
      expect: assigned.map(({ slot }) => slot),
    });
  }
  const zones = source.zones
    .map(({ name, members }) => ({
      id: newId.zone(),
      name,
      members: members.flatMap((id) => ids.get(id) ?? []),
    }))
    .filter(({ members }) => members.length > 0);
  if (model.zones && zones.length > 0)
    edits.push({ name: 'put', kind: 'zone', records: zones, before: null });
  if (preview.goes.length > 0)
    preview.edit = {
      name: 'together',
      label: `Bring in ${countOf(preview.goes.length, KINDS.channel)} of “${source.name}”`,
      edits,
    };
  return preview;
}
