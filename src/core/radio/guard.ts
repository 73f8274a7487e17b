import { ALLOCATIONS, type Allocation } from './allocation';
import { formatFrequency, type Hertz, type Range } from './frequency';
import { MODE_NAMES, occupied, type Mode } from './mode';
import type { Milliwatts } from './power';
import { GRADES, GRADE_NAMES, type Grade, type Region } from './region';

/** What is asked: may the holder of `grade` in `region` send `mode` at `hz`? */
export interface GuardQuestion {
  hz: Hertz;
  mode: Mode;
  region: Region;
  grade: Grade;
}

/**
 * The licence guard's answer. `limit` is the highest power in mW over all that the transmission occupies. A refusal
 * says why in one sentence: the band, the edge that is crossed, the grade, or the mode.
 */
export type GuardAnswer =
  | { verdict: 'allowed'; limit: Milliwatts; allocations: readonly Allocation[] }
  | { verdict: 'outside' | 'edge' | 'grade' | 'mode'; reason: string };

/**
 * Walks the occupied width from its lower edge upwards over allocations that `permits` accepts, always taking the
 * most generous. Undefined where a gap is left.
 */
function cover(range: Range, region: Region, permits: (allocation: Allocation) => Milliwatts | undefined) {
  const usable = ALLOCATIONS[region].filter(
    (a) => a.from <= range.to && a.to >= range.from && permits(a) !== undefined,
  );
  const taken: Allocation[] = [];
  let reached = range.from;
  for (;;) {
    const next = usable
      .filter((a) => a.from <= reached && a.to >= reached && !taken.includes(a))
      .sort((a, b) => permits(b)! - permits(a)!)[0];
    if (!next) return undefined;
    taken.push(next);
    reached = Math.max(reached, next.to);
    if (reached >= range.to) return { taken, limit: Math.min(...taken.map((a) => permits(a)!)) };
  }
}

/** Answers whether a transmission is inside the licence, holding its whole occupied width against the allocations. */
export function mayTransmit({ hz, mode, region, grade }: GuardQuestion): GuardAnswer {
  const range = occupied(hz, mode);
  const bearsMode = (a: Allocation) => a.modes === undefined || a.modes.includes(mode);
  const allowed = cover(range, region, (a) => (bearsMode(a) ? a.power[grade] : undefined));
  if (allowed) return { verdict: 'allowed', limit: allowed.limit, allocations: allowed.taken };

  const anyMode = cover(range, region, (a) => a.power[grade]);
  if (anyMode) {
    const place = anyMode.taken.find((a) => !bearsMode(a)) ?? anyMode.taken[0]!;
    return {
      verdict: 'mode',
      reason: `${MODE_NAMES[mode]} may not be sent at ${formatFrequency(hz)} (${place.band}).`,
    };
  }
  for (const better of GRADES.slice(GRADES.indexOf(grade) + 1)) {
    if (cover(range, region, (a) => (bearsMode(a) ? a.power[better] : undefined)))
      return { verdict: 'grade', reason: `${formatFrequency(hz)} needs grade ${GRADE_NAMES[better]}.` };
  }
  const home = ALLOCATIONS[region].find((a) => a.from <= hz && a.to >= hz);
  if (home && home.power[grade] !== undefined) {
    const edge = range.from < home.from ? home.from : home.to;
    return {
      verdict: 'edge',
      reason: `${MODE_NAMES[mode]} at ${formatFrequency(hz)} reaches past the edge of ${home.band} at ${formatFrequency(edge)}.`,
    };
  }
  if (home)
    return { verdict: 'outside', reason: `${formatFrequency(hz)} belongs to the ${home.service} service.` };
  return { verdict: 'outside', reason: `${formatFrequency(hz)} is in no band where you may transmit.` };
}

/** Services whose stations are placed as listen only. */
export const LISTEN_ONLY_SERVICES = ['air', 'marine', 'weather', 'public safety'] as const;
