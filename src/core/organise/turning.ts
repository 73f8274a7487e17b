import type { Channel, ChannelId, Plan, SkipSetId, ZoneId } from '../plan';
import { scanned } from './scan';

/** What a knob turns through: a bank or the whole side, every channel or what a scan takes. */
export interface Turning {
  zone: ZoneId | null;
  /** `every`: all of them; `marks`: those with their own scan mark; a skip set: what that leaves. */
  through: 'every' | 'marks' | SkipSetId;
}

export const EVERYTHING: Turning = { zone: null, through: 'every' };

/** The channels of a list that turning goes through, in slot order; `holds` says what the radio has at all. */
export function turnedThrough(
  plan: Plan,
  list: number,
  { zone, through }: Turning,
  holds: (id: ChannelId) => boolean,
): Channel[] {
  const members = plan.zones.find(({ id }) => id === zone)?.members ?? null;
  const set = plan.skipSets.find(({ id }) => id === through) ?? null;
  const every = { way: 'all but' as const, members: [] };
  return scanned(plan, list, members, through === 'every' ? every : set).filter(({ id }) => holds(id));
}

/**
 * The channel to which a knob turns, up or down by one; from the end to the beginning, as knobs go. From a channel that it does not
 * go through it comes to the first one, or the last. Undefined where there is none.
 */
export function turned(through: readonly Channel[], from: ChannelId | null, by: 1 | -1): Channel | undefined {
  const at = through.findIndex(({ id }) => id === from);
  if (at < 0) return through.at(by > 0 ? 0 : -1);
  return through[(at + by + through.length) % through.length];
}
