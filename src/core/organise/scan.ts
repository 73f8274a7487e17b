import type { Channel, ChannelId, Plan, SkipSet } from '../plan';

/** How long a receiver rests on a channel on which nothing is heard before it goes on, ms: what handhelds and mobiles of this kind take. */
export const DWELL_MS = 150;

/** The channels that a scan of a side takes: of a zone or all, by a skip set or, without one, by each channel's own mark. */
export function scanned(
  plan: Plan,
  list: number,
  zone: readonly ChannelId[] | null,
  set: Pick<SkipSet, 'way' | 'members'> | null,
): Channel[] {
  const inZone = zone && new Set(zone);
  const members = set && new Set(set.members);
  return plan.channels.filter(({ id, list: on, scan }) => {
    if (on !== list || (inZone && !inZone.has(id))) return false;
    if (!members) return scan;
    return set!.way === 'only' ? members.has(id) : !members.has(id);
  });
}

/** How long one round over that many silent channels takes, s. */
export const roundSeconds = (channels: number): number => (channels * DWELL_MS) / 1000;

/** Channels of a scan that never fall silent, at which each round stops. */
export const stops = (channels: readonly Channel[]): Channel[] => channels.filter(({ alwaysOn }) => alwaysOn);
