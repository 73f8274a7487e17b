import equal from 'fast-deep-equal';
import { slotsOf, type Model } from '../models';
import {
  FIELD_NAMES,
  placesOf,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type ChannelSet,
  type Edit,
  type Plan,
} from '../plan';

/** A change of the plan that another one was made of, offered to that as an edit: to take or to leave. */
export interface Offer {
  /** The channel, in both plans. */
  id: ChannelId;
  /** Its name there, or here where it is gone there. */
  name: string;
  what: 'changed' | 'added' | 'removed';
  /** What changed, in words. */
  text: string;
  /** Changed here too since then: taking it overwrites that. */
  clash: boolean;
  edit: Edit;
}

/** What goes along from plan to plan: all of a channel but its place, and the names by hand that are of one radio. */
const SHARED = [
  'name',
  'rx',
  'tx',
  'txFixed',
  'access',
  'mode',
  'power',
  'scan',
  'alwaysOn',
  'satellite',
  'note',
  'source',
] as const satisfies readonly (keyof ChannelFields)[];

const byId = ({ channels }: Plan) => new Map(channels.map((channel) => [channel.id, channel]));
const differing = (one: Channel, other: Channel) =>
  SHARED.filter((field) => !equal(one[field], other[field]));
const words = (fields: readonly (typeof SHARED)[number][]) =>
  fields
    .filter((field) => field !== 'txFixed' || fields.length === 1)
    .map((field) => FIELD_NAMES[field])
    .join(', ');

/**
 * What changed in a plan since another one was made of it (`base` is what it was then), as far as that has not the same already. An
 * added channel goes to the next free slot, of its own list where the model has that.
 */
export function offersOf(base: Plan, source: Plan, own: Plan, model: Model): Offer[] {
  const [then, now, here] = [byId(base), byId(source), byId(own)];
  const offers: Offer[] = [];
  for (const channel of source.channels) {
    const was = then.get(channel.id);
    const mine = here.get(channel.id);
    if (was && mine) {
      const fields = differing(was, channel).filter((field) => !equal(mine[field], channel[field]));
      if (fields.length === 0) continue;
      offers.push({
        id: channel.id,
        name: channel.name,
        what: 'changed',
        text: words(fields),
        clash: fields.some((field) => !equal(mine[field], was[field])),
        edit: { name: 'change', changes: [{ id: channel.id, set: setOf(channel, fields) }] },
      });
    } else if (!was && !mine) offers.push(added(channel, model));
  }
  for (const was of base.channels) {
    const mine = here.get(was.id);
    if (now.has(was.id) || !mine) continue;
    offers.push({
      id: was.id,
      name: mine.name,
      what: 'removed',
      text: 'removed there',
      clash: differing(was, mine).length > 0,
      edit: { name: 'remove', ids: [was.id] },
    });
  }
  return offers;
}

function setOf(channel: Channel, fields: readonly (typeof SHARED)[number][]): ChannelSet {
  // Whether transmit was entered by itself goes along with it.
  const whole =
    fields.includes('tx') || fields.includes('txFixed') || fields.includes('rx')
      ? (['tx', 'txFixed'] as const)
      : [];
  return Object.fromEntries([...fields, ...whole].map((field) => [field, channel[field]])) as ChannelSet;
}

function added(channel: Channel, model: Model): Offer {
  const { slot: _, list: there, ...fields } = channel;
  const list = slotsOf(model, there) ? there : 0;
  const range = slotsOf(model, list)!;
  return {
    id: channel.id,
    name: channel.name,
    what: 'added',
    text: 'new there',
    clash: false,
    edit: {
      name: 'place',
      channels: [fields],
      placement: 'next-free',
      ...(list > 0 && { list }),
      at: range.first,
      range,
    },
  };
}

/** How a plan differs from the one that it was made of: its own differences, channel by channel. */
export function ownDifferences(source: Plan, own: Plan): { id: ChannelId; name: string; text: string }[] {
  const there = byId(source);
  const here = placesOf(own.channels);
  return [
    ...own.channels.flatMap((channel) => {
      const other = there.get(channel.id);
      if (!other) return [{ id: channel.id, name: channel.name, text: 'only here' }];
      const fields = differing(other, channel);
      return fields.length > 0 ? [{ id: channel.id, name: channel.name, text: words(fields) }] : [];
    }),
    ...source.channels.flatMap(({ id, name }) => (here.has(id) ? [] : [{ id, name, text: 'left out here' }])),
  ];
}
