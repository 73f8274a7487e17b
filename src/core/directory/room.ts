import type { HeardByChannel } from '../heard';
import { distanceKm, parseLocator, type Point } from '../radio';
import type { Channel, Plan } from '../plan';

/** By what room is made for channels that find none. */
export const ROOM_WAYS = ['off the air', 'never heard', 'farthest'] as const;
export type RoomWay = (typeof ROOM_WAYS)[number];

/** What is known beside the plan. */
export interface RoomContext {
  /** From where distances count: a place that is searched, or home; null where nobody knows. */
  from: Point | null;
  heard: HeardByChannel;
  /** The stations that a directory says are off the air, as `source entry`. */
  offAir: ReadonlySet<string>;
}

const isAt = ({ source }: Channel): Point | null =>
  source?.lat !== undefined && source.lon !== undefined ? { lat: source.lat, lon: source.lon } : null;

/**
 * Channels that could go to make room, the first to go first: those off the air, those that were never heard, or those farthest away.
 * Of one list; what was made by hand, of which nothing is known, is never proposed.
 */
export function roomFor(plan: Plan, n: number, way: RoomWay, context: RoomContext, list = 0): Channel[] {
  const { from, heard, offAir } = context;
  const away = (channel: Channel) => {
    const at = isAt(channel);
    return from && at ? distanceKm(from, at) : 0;
  };
  const fits = (channel: Channel): boolean => {
    const { source } = channel;
    if (channel.list !== list || source === null) return false;
    if (way === 'off the air') return offAir.has(`${source.directory} ${source.entry}`);
    if (way === 'never heard') return !heard.has(channel.id) && source.directory !== 'starter-set';
    return from !== null && isAt(channel) !== null;
  };
  return plan.channels
    .filter(fits)
    .sort((a, b) => away(b) - away(a) || b.slot - a.slot)
    .slice(0, n);
}

/** Home as a point, by its locator; null where nobody says. */
export function homeOf({ owner }: Plan): Point | null {
  const read = owner.locator ? parseLocator(owner.locator) : null;
  return read?.ok ? { lat: read.value.lat, lon: read.value.lon } : null;
}
