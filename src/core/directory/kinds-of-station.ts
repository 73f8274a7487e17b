import { onAirKey } from '../plan';
import { isListenOnly, type Candidate } from './choose';

/** What stations that were found are, where a radio is filled with them in blocks. */
export const STATION_KINDS = ['repeaters', 'services'] as const;
export type StationKind = (typeof STATION_KINDS)[number];

/** True for what is of that kind: repeaters that people talk through, and services that are listened to. */
export const isOfKind = ({ entry }: Candidate, kind: StationKind): boolean =>
  kind === 'services'
    ? isListenOnly(entry) && entry.service !== 'amateur'
    : entry.service === 'amateur' && entry.input !== null && entry.input !== entry.output;

/**
 * The first so many stations of a kind that a radio can use, that are on the air, not encrypted and not in its plan, in the order in which
 * they come; of those that are one channel, the first.
 */
export function firstOfKind(shown: readonly Candidate[], kind: StationKind, n: number): Candidate[] {
  const found: Candidate[] = [];
  const there = new Set<string>();
  for (const candidate of shown) {
    if (found.length >= n) break;
    const { entry, unfit, present } = candidate;
    if (unfit !== null || !entry.onAir || entry.encrypted || (present && !present.near)) continue;
    if (!isOfKind(candidate, kind)) continue;
    const { output: rx, mode, access } = entry;
    const key = onAirKey({ rx, tx: isListenOnly(entry) ? null : entry.input, mode, access });
    if (there.has(key)) continue;
    there.add(key);
    found.push(candidate);
  }
  return found;
}
