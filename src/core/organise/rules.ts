import { sidesOf, type Model } from '../models';
import type { Channel, ChannelId, Plan } from '../plan';
import { distanceKm, type Point } from '../radio';
import { bandName } from './sides';

/** What belongs into a zone; all that is said must hold. */
export interface MemberRule {
  /** The name of one of the model's bands. */
  band?: string;
  /** Stations that are known to stand no further from a place. */
  near?: { point: Point; km: number };
  /** Words that the name, call or note holds, in any case. */
  words?: string;
  /** The list that it stands in. */
  list?: number;
}

/** Where a channel's station is, as its directory said; undefined where nothing is known. */
function placeOf({ source }: Channel): Point | undefined {
  return source?.lat === undefined || source.lon === undefined
    ? undefined
    : { lat: source.lat, lon: source.lon };
}

const holdsWords = (channel: Channel, words: string): boolean =>
  [channel.name, channel.source?.call ?? '', channel.note].some((text) =>
    text.toLowerCase().includes(words.trim().toLowerCase()),
  );

/** The channels that a rule takes, in the order of their slots; home channels are in no zone. A rule that says nothing takes none. */
export function membersBy(plan: Plan, rule: MemberRule, model: Model): ChannelId[] {
  const { band, near, words, list } = rule;
  if (band === undefined && near === undefined && !words?.trim() && list === undefined) return [];
  const sides = sidesOf(model);
  return plan.channels
    .filter((channel) => {
      if (!sides.includes(channel.list)) return false;
      if (list !== undefined && channel.list !== list) return false;
      if (band !== undefined && bandName(channel, model) !== band) return false;
      if (words?.trim() && !holdsWords(channel, words)) return false;
      if (near === undefined) return true;
      const place = placeOf(channel);
      return place !== undefined && distanceKm(place, near.point) <= near.km;
    })
    .map(({ id }) => id);
}

/** A day of a trip: what it is called, and where one is. */
export interface TripDay {
  name: string;
  point: Point;
}

/**
 * The members of a zone for each day of a trip: stations within `km` of where one is that day, and on every day those channels of which
 * no place is known (calling channels, weather). In the order of the days.
 */
export function zonesForTrip(
  plan: Plan,
  days: readonly TripDay[],
  km: number,
  model: Model,
): { name: string; members: ChannelId[] }[] {
  const sides = sidesOf(model);
  const everywhere = new Set(
    plan.channels.filter((one) => sides.includes(one.list) && !placeOf(one)).map(({ id }) => id),
  );
  return days.map(({ name, point }) => {
    const near = new Set(membersBy(plan, { near: { point, km } }, model));
    return {
      name,
      members: plan.channels.flatMap(({ id }) => (near.has(id) || everywhere.has(id) ? [id] : [])),
    };
  });
}
