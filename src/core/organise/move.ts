import { slotsOf, type Model } from '../models';
import { withoutDangling, withoutSlot, type Channel, type ChannelId, type Plan, type ZoneId } from '../plan';
import { bandName, type BandSides } from './sides';

/** A channel that has another list or slot in the other radio. */
export interface Moved {
  id: ChannelId;
  from: Pick<Channel, 'list' | 'slot'>;
  to: Pick<Channel, 'list' | 'slot'>;
}

/** Where a plan's channels go in another radio, beside their sides. */
export interface MoveTo {
  /** The slot to begin with on each list; undefined where each keeps its own as far as it can. */
  from?: number;
  /** A new bank that takes all of them. */
  bank?: { id: ZoneId; name: string };
}

/** A plan made for another model: what goes elsewhere, and what finds no room, which waits in it as left over. */
export interface MovePreview {
  plan: Plan;
  moved: Moved[];
  leftOver: ChannelId[];
}

/**
 * The plan as one for another model. Every channel keeps its list and slot where the model has them and nobody is there already; the
 * others take the next free slots, in their order. `sides` says which band goes to which list; what it does not name goes where it
 * was, or to the first list; `from` gives up the slots for a run from there on, and `bank` puts all into a new bank. Home channels of a radio that has none are among the others no more: they are left over. Ids stay, so
 * that the two plans can be compared.
 */
export function moveToModel(
  plan: Plan,
  model: Model,
  sides: BandSides = {},
  { from, bank }: MoveTo = {},
): MovePreview {
  const taken = new Map<number, Set<number>>(model.lists.map((_, list) => [list, new Set()]));
  const free = (list: number, slot: number) => {
    const range = slotsOf(model, list)!;
    return slot >= range.first && slot < range.first + range.count && !taken.get(list)!.has(slot);
  };
  const home = ({ list }: Channel) => model.lists[list]?.holds === 'home';
  const listFor = (channel: Channel): number | undefined => {
    if (home(channel)) return channel.list;
    const wanted = sides[bandName(channel, model) ?? ''];
    if (wanted !== undefined) return wanted;
    if (model.lists[channel.list]) return channel.list;
    return channel.list > 1 ? undefined : 0;
  };
  const places = new Map<ChannelId, Pick<Channel, 'list' | 'slot'>>();
  const waiting: { channel: Channel; list: number }[] = [];
  const leftOver: ChannelId[] = [];
  for (const channel of plan.channels) {
    const list = listFor(channel);
    if (list === undefined) leftOver.push(channel.id);
    else if ((from === undefined || home(channel)) && free(list, channel.slot)) {
      taken.get(list)!.add(channel.slot);
      places.set(channel.id, { list, slot: channel.slot });
    } else waiting.push({ channel, list });
  }
  const next = new Map(
    model.lists.map((_, list) => [list, Math.max(from ?? 0, slotsOf(model, list)!.first)]),
  );
  for (const { channel, list } of waiting) {
    const range = slotsOf(model, list)!;
    let slot = next.get(list)!;
    while (taken.get(list)!.has(slot)) slot++;
    next.set(list, slot + 1);
    if (slot >= range.first + range.count || home(channel)) leftOver.push(channel.id);
    else {
      taken.get(list)!.add(slot);
      places.set(channel.id, { list, slot });
    }
  }
  const moved: Moved[] = [];
  const channels = plan.channels.flatMap((channel) => {
    const to = places.get(channel.id);
    if (!to) return [];
    if (to.list === channel.list && to.slot === channel.slot) return [channel];
    moved.push({ id: channel.id, from: { list: channel.list, slot: channel.slot }, to });
    return [{ ...channel, ...to }];
  });
  channels.sort((a, b) => a.list - b.list || a.slot - b.slot);
  const inBank = (channel: Channel) => !home(channel);
  const there = new Set<ChannelId>(channels.map(({ id }) => id));
  return {
    // What stays behind is referred to no more.
    plan: withoutDangling({
      ...plan,
      modelId: model.id,
      unit: model.id === plan.modelId ? plan.unit : null,
      channels,
      leftOver: [...plan.leftOver, ...plan.channels.filter(({ id }) => !there.has(id)).map(withoutSlot)],
      zones: [
        ...plan.zones,
        ...(bank && model.zones ? [{ ...bank, members: channels.filter(inBank).map(({ id }) => id) }] : []),
      ],
    }),
    moved,
    leftOver,
  };
}
