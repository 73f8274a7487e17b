import { allocationsOf, sourceOf, type Allocation, type Rules } from './allocation';
import { formatFrequency, type Hertz, type Range } from './frequency';
import { MODE_TRAITS, occupied, type Mode } from './mode';
import type { Milliwatts } from './power';
import { GRADES, GRADE_NAMES, judgedGrade, type OwnerGrade } from './region';
import type { Source } from './source';

/** What is asked: may the holder of `grade`, where those rules hold, send `mode` at `hz`? */
export interface GuardQuestion extends Rules {
  hz: Hertz;
  mode: Mode;
  grade: OwnerGrade;
}

/**
 * The licence guard's answer. `limit` is the highest power in mW over all that the transmission occupies. A refusal
 * says why in one sentence: the edge that is crossed, the mode, the grade, or whose the frequency is. `source` is the table
 * that decides.
 */
export type GuardAnswer = { source: Source } & (
  | { verdict: 'allowed'; limit: Milliwatts; allocations: readonly Allocation[] }
  | { verdict: 'outside' | 'edge' | 'grade' | 'mode'; reason: string }
);

type Permits = (allocation: Allocation) => Milliwatts | undefined;

/**
 * Walks the occupied width from its lower edge upwards over allocations that `permits` accepts, always taking the
 * most generous. Undefined where a gap is left.
 */
function cover(range: Range, allocations: readonly Allocation[], permits: Permits) {
  const usable = allocations.filter(
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
export function mayTransmit(question: GuardQuestion): GuardAnswer {
  const { hz, mode, region } = question;
  const grade = judgedGrade(question.grade);
  const allocations = allocationsOf(question);
  const range = occupied(hz, mode);
  const bearsMode = (a: Allocation) => a.modes === undefined || a.modes.includes(mode);
  const permitted: Permits = (a) => (bearsMode(a) ? a.power[grade] : undefined);
  const allowed = cover(range, allocations, permitted);
  if (allowed) {
    const [strictest] = [...allowed.taken].sort((a, b) => permitted(a)! - permitted(b)!);
    return {
      verdict: 'allowed',
      limit: allowed.limit,
      allocations: allowed.taken,
      source: sourceOf(strictest, region),
    };
  }
  const no = (
    verdict: 'outside' | 'edge' | 'grade' | 'mode',
    reason: string,
    by?: Allocation,
  ): GuardAnswer => ({
    verdict,
    reason,
    source: sourceOf(by, region),
  });

  // Part of it is where it may be sent: the edge is why, whatever lies behind it.
  const partly = allocations.find(
    (a) => permitted(a) !== undefined && a.from < range.to && a.to > range.from,
  );
  if (partly) {
    const below = range.from < partly.from;
    const edge = formatFrequency(below ? partly.from : partly.to);
    const beyond = cover(range, allocations, (a) => a.power[grade]);
    return no(
      'edge',
      beyond
        ? `${MODE_TRAITS[mode].words} at ${formatFrequency(hz)} reaches ${below ? 'below' : 'above'} ${edge}, where it may not be sent.`
        : `${MODE_TRAITS[mode].words} at ${formatFrequency(hz)} reaches past the edge of ${partly.band} at ${edge}.`,
      partly,
    );
  }
  const anyMode = cover(range, allocations, (a) => a.power[grade]);
  if (anyMode) {
    const place = anyMode.taken.find((a) => !bearsMode(a)) ?? anyMode.taken[0]!;
    return no(
      'mode',
      `${MODE_TRAITS[mode].words} may not be sent at ${formatFrequency(hz)} (${place.band}).`,
      place,
    );
  }
  for (const better of GRADES.slice(GRADES.indexOf(grade) + 1)) {
    const reached = cover(range, allocations, (a) => (bearsMode(a) ? a.power[better] : undefined));
    if (reached)
      return no('grade', `${formatFrequency(hz)} needs grade ${GRADE_NAMES[better]}.`, reached.taken[0]);
  }
  const home = allocations.find((a) => a.from <= hz && a.to >= hz);
  if (home) return no('outside', `${formatFrequency(hz)} belongs to the ${home.service} service.`, home);
  return no('outside', `${formatFrequency(hz)} is in no band where you may transmit.`);
}

/** Services whose stations are placed as listen only. */
export const LISTEN_ONLY_SERVICES = ['air', 'marine', 'weather', 'public safety', 'business'] as const;
