import type { Model } from '../models';
import type { ChannelId, PlainEdit, Plan, Zone } from '../plan';

/** What each position of a knob turns to, where a radio has a place for each channel of a zone. */

/** How many positions the knob of a model has; 0 where it has no such knob. */
export const knobPositions = (model: Pick<Model, 'zones'>): number => model.zones?.knob ?? 0;

/** What the positions turn to, from the first on; null where one is empty. Without an arrangement of its own the members in their order. */
export function positionsOf(
  zone: Pick<Zone, 'members' | 'knob'>,
  model: Pick<Model, 'zones'>,
): (ChannelId | null)[] {
  const there = new Set(zone.members);
  const given: readonly (ChannelId | null)[] = zone.knob
    ? zone.knob.map(({ channel }) => (channel && there.has(channel) ? channel : null))
    : zone.members;
  return Array.from({ length: knobPositions(model) }, (_, at) => given[at] ?? null);
}

const setZone = (
  zone: Zone,
  places: readonly (ChannelId | null)[],
  members: readonly ChannelId[],
): PlainEdit => ({
  name: 'change',
  kind: 'zone',
  changes: [{ id: zone.id, set: { members: [...members], knob: places.map((channel) => ({ channel })) } }],
});

/** The members of a zone with those that its knob turns to among them. */
const withThose = (zone: Zone, places: readonly (ChannelId | null)[]): ChannelId[] => [
  ...new Set([...zone.members, ...places.filter((id) => id !== null)]),
];

/**
 * Puts channels at positions from one on (1 is the first), one after the other, over what is there; null empties one. A channel that was
 * at another position goes from there. What finds no position any more is not taken.
 */
export function putAt(
  zone: Zone,
  model: Pick<Model, 'zones'>,
  position: number,
  channels: readonly (ChannelId | null)[],
): PlainEdit {
  const places = positionsOf(zone, model);
  const taken = channels.slice(0, Math.max(0, places.length - position + 1));
  const coming = new Set(taken.filter((id) => id !== null));
  const after = places.map((id) => (id && coming.has(id) ? null : id));
  for (const [n, id] of taken.entries()) after[position - 1 + n] = id;
  return setZone(zone, after, withThose(zone, after));
}

/** What is at one position goes to another, and what was there to this one. */
export function swapped(zone: Zone, model: Pick<Model, 'zones'>, from: number, to: number): PlainEdit {
  const places = positionsOf(zone, model);
  [places[from - 1], places[to - 1]] = [places[to - 1]!, places[from - 1]!];
  return setZone(zone, places, zone.members);
}

/** Gives another zone the same arrangement; its members become those, and what it had besides stays in it. */
export function copiedTo(from: Zone, to: Zone, model: Pick<Model, 'zones'>): PlainEdit {
  const places = positionsOf(from, model);
  return setZone(to, places, withThose(to, places));
}

/** What is in a zone and at no position of its knob. */
export function outOfReach(
  zone: Zone,
  plan: Pick<Plan, 'channels'>,
  model: Pick<Model, 'zones'>,
): ChannelId[] {
  const on = new Set(positionsOf(zone, model));
  const there = new Set(plan.channels.map(({ id }) => id));
  return zone.members.filter((id) => there.has(id) && !on.has(id));
}
