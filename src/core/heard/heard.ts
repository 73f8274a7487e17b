import type { Channel, ChannelId } from '../plan';

/** How often a channel was heard and when last. A channel that never was has none. */
export interface Heard {
  channel: ChannelId;
  times: number;
  /** The last time, ISO 8601. */
  last: string;
  /** How often in each week, the one that ends now last; empty where it was not asked for. */
  weeks: number[];
}

/** What is known of channels by their ids, as `heardOf` looks it up. */
export type HeardByChannel = ReadonlyMap<ChannelId, Heard>;

export const byChannel = (heard: readonly Heard[]): HeardByChannel =>
  new Map(heard.map((one) => [one.channel, one]));

/** A week, ms. */
export const WEEK_MS = 7 * 24 * 3600_000;
/** Most weeks that are counted apart. */
export const WEEKS_LIMIT = 104;

/** How long ago a channel was last heard, ms; null where it never was. What lies ahead, by a clock that is wrong, is now. */
export function silentFor(heard: Heard | undefined, now: number): number | null {
  return heard ? Math.max(0, now - Date.parse(heard.last)) : null;
}

/**
 * The channels that were not heard for so many weeks, the most doubtful first: those that never were, then the longest silent, then the
 * least often heard; what is equal by slot.
 */
export function mostDoubtful(
  channels: readonly Channel[],
  heard: HeardByChannel,
  now: number,
  weeks: number,
): Channel[] {
  return channels
    .map((channel) => ({
      channel,
      silent: silentFor(heard.get(channel.id), now) ?? Infinity,
      times: heard.get(channel.id)?.times ?? 0,
    }))
    .filter(({ silent }) => silent >= weeks * WEEK_MS)
    .sort(
      (a, b) =>
        (a.silent === b.silent ? 0 : b.silent - a.silent) ||
        a.times - b.times ||
        a.channel.list - b.channel.list ||
        a.channel.slot - b.channel.slot,
    )
    .map(({ channel }) => channel);
}
