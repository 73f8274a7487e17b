import { slotsOf, type Model } from '../models';
import { placesOf, previewPlacing, type Channel, type ChannelId, type Plan } from '../plan';

/** A channel that goes to a slot of another list. */
export interface Carried {
  id: ChannelId;
  from: number;
  to: number;
  list: number;
}

/** What carrying comes to, before anything is changed: what goes where, and what finds no room. */
export interface CarryPreview {
  moves: Carried[];
  leftOver: ChannelId[];
}

/** The channels of those ids, in the order of lists and slots. */
const channelsOf = (plan: Plan, ids: ReadonlySet<ChannelId>): Channel[] =>
  plan.channels.filter(({ id }) => ids.has(id));

/** The free slots of a list, the lowest first, as many as are wanted and there are. */
function freeSlots(plan: Plan, count: number, list: number, model: Model): number[] {
  const range = slotsOf(model, list);
  if (!range) return [];
  return previewPlacing(plan.channels, count, 'next-free', range.first, range, list).assigned.map(
    ({ slot }) => slot,
  );
}

/** Carries channels to another list, to its next free slots; those that are there already stay. */
export function carry(plan: Plan, ids: ReadonlySet<ChannelId>, list: number, model: Model): CarryPreview {
  return carryEach(
    plan,
    channelsOf(plan, ids).map((channel) => ({ channel, list })),
    model,
  );
}

function carryEach(plan: Plan, going: { channel: Channel; list: number }[], model: Model): CarryPreview {
  const preview: CarryPreview = { moves: [], leftOver: [] };
  for (const list of new Set(going.map((one) => one.list))) {
    const moving = going.filter((one) => one.list === list && one.channel.list !== list);
    const slots = freeSlots(plan, moving.length, list, model);
    for (const [at, { channel }] of moving.entries()) {
      const to = slots[at];
      if (to === undefined) preview.leftOver.push(channel.id);
      else preview.moves.push({ id: channel.id, from: channel.slot, to, list });
    }
  }
  return preview;
}

/** Where the bands go: the list for each, by the name of the model's band; what is not named stays. */
export type BandSides = Readonly<Record<string, number>>;

/** Carries all channels of whole bands: 2 m to the left and 70 cm to the right in one gesture. Home channels stay. */
export function carryBands(plan: Plan, sides: BandSides, model: Model): CarryPreview {
  return carryEach(
    plan,
    plan.channels.flatMap((channel) => {
      if (model.lists[channel.list]?.holds !== 'channels') return [];
      const list = sides[bandName(channel, model) ?? ''];
      return list === undefined ? [] : [{ channel, list }];
    }),
    model,
  );
}

/** The model's band in which a channel is received; undefined where it has none there. */
export const bandName = ({ rx }: Pick<Channel, 'rx'>, model: Model): string | undefined =>
  model.bands.find(({ receive }) => rx >= receive.from && rx <= receive.to)?.name;

/**
 * Copies of channels for another list, in order, with the slots that they will take; `newId` makes an id for each. What finds no room is
 * left over. A plan places them with `placement: 'next-free'`.
 */
export function copy(
  plan: Plan,
  ids: ReadonlySet<ChannelId>,
  list: number,
  model: Model,
  newId: () => ChannelId,
): { channels: Omit<Channel, 'slot' | 'list'>[]; expect: number[]; leftOver: ChannelId[] } {
  const chosen = channelsOf(plan, ids);
  const expect = freeSlots(plan, chosen.length, list, model);
  const channels = chosen.slice(0, expect.length).map((channel) => {
    const { slot: _, list: _list, ...fields } = channel;
    return { ...fields, id: newId() };
  });
  return { channels, expect, leftOver: chosen.slice(expect.length).map(({ id }) => id) };
}

/** A channel as the home channel of its band on a side: the list and slot where it belongs; undefined where the model has none. */
export function homePlace(channel: Channel, homeList: number | undefined, model: Model) {
  if (homeList === undefined) return undefined;
  const band = model.bands.findIndex(({ receive }) => channel.rx >= receive.from && channel.rx <= receive.to);
  return band < 0 ? undefined : { list: homeList, slot: band + 1 };
}

/** The channel of an id. */
export const channelOf = (plan: Plan, id: ChannelId | null): Channel | undefined =>
  id === null ? undefined : plan.channels[placesOf(plan.channels).get(id) ?? -1];
