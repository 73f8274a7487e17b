import { allocationsOf, type Rules } from './allocation';
import { formatFrequency, type Hertz, type Range } from './frequency';
import { judgedGrade, type OwnerGrade } from './region';

/** A stretch of spectrum drawn to scale, Hz, with the service or band that it shows. */
export interface Ruler extends Range {
  name: string;
  amateur: boolean;
  /** How many frequencies lie on it. */
  count: number;
}

/** Stretches of other services closer than this are drawn as one. */
const JOIN_HZ = 8_000_000;

/** Distances of labelled marks, Hz, from fine to coarse. */
const MARKS = [
  5_000, 10_000, 25_000, 50_000, 100_000, 200_000, 500_000, 1_000_000, 2_000_000, 5_000_000, 10_000_000,
  50_000_000, 100_000_000,
];

/** The distance of marks so that at most `most` of them lie in a range. */
export function markStep(range: Range, most: number): Hertz {
  const span = range.to - range.from;
  return MARKS.find((step) => span / step <= most) ?? span;
}

/** The marks of a range at a distance, ends included. */
export function marks({ from, to }: Range, step: Hertz): Hertz[] {
  const found: Hertz[] = [];
  for (let hz = Math.ceil(from / step) * step; hz <= to; hz += step) found.push(hz);
  return found;
}

/** How wide a figure of a mark is drawn, and the room between two of them, px. */
const FIGURE = { wide: 6, gap: 6 };

/** A mark as it is written beside its line: MHz without zeros at the end. */
export const markText = (hz: Hertz): string => formatFrequency(hz).replace(/\.?0+$/, '');

/**
 * The marks of a range that are written out where it is drawn so many px wide: at most five, none over another or over the edge, the
 * finest that there is room for. Where there is room for none at all, the one next to the middle.
 */
export function writtenMarks(range: Range, px: number): Hertz[] {
  const span = range.to - range.from;
  const width = (hz: Hertz) => markText(hz).length * FIGURE.wide;
  const inside = (hz: Hertz) => Math.min(hz - range.from, range.to - hz) * (px / span) >= width(hz) / 2;
  for (const step of MARKS.filter((one) => span / one <= 4)) {
    const found = marks(range, step).filter(inside);
    const widest = Math.max(0, ...found.map(width)) + FIGURE.gap;
    if (found.length === 1 || (found.length > 1 && (step / span) * px >= widest)) return found;
  }
  const middle = (range.from + range.to) / 2;
  const [nearest] = marks(range, markStep(range, 4)).sort(
    (a, b) => Math.abs(a - middle) - Math.abs(b - middle),
  );
  return nearest === undefined ? [] : [nearest];
}

/** The rulers that hold all the frequencies, lowest first: a band each, neighbouring other services together. */
export function rulers(frequencies: readonly Hertz[], rules: Rules): Ruler[] {
  const allocations = allocationsOf(rules);
  const groups: (Ruler & { names: string[] })[] = [];
  const counts = new Map<Hertz, number>();
  for (const hz of frequencies) counts.set(hz, (counts.get(hz) ?? 0) + 1);
  for (const [hz, count] of [...counts].sort(([a], [b]) => a - b)) {
    const home = allocations.find((a) => a.from <= hz && a.to >= hz);
    const name = home?.band ?? 'Other';
    const amateur = home?.service === 'amateur';
    const last = groups[groups.length - 1];
    const joins = last && (amateur || last.amateur ? last.names.includes(name) : hz - last.to < JOIN_HZ);
    if (joins) {
      last.to = hz;
      last.count += count;
      if (!last.names.includes(name)) last.names.push(name);
    } else groups.push({ name, names: [name], amateur, from: hz, to: hz, count });
  }
  return groups.map(({ names, from, to, amateur, count }) => {
    const step = markStep({ from, to: Math.max(to, from + 100_000) }, 4);
    const margin = Math.max(step / 4, (to - from) / 20);
    return {
      name: names.join(' · '),
      amateur,
      count,
      from: Math.floor((from - margin) / (step / 2)) * (step / 2),
      to: Math.ceil((to + margin) / (step / 2)) * (step / 2),
    };
  });
}

/** A stretch of a ruler, Hz, in which somebody may transmit, or may not; and whose it is. */
export interface Stretch extends Range {
  may: boolean;
  names: string[];
}

/**
 * Where the holder of a grade may transmit within a range, from its beginning to its end without a gap; stretches beside each other
 * that are alike in that are one. In which mode and with how much is the licence guard's.
 */
export function stretchesIn(range: Range, rules: Rules, stated: OwnerGrade): Stretch[] {
  const grade = judgedGrade(stated);
  const here = allocationsOf(rules).filter((one) => one.to > range.from && one.from < range.to);
  const edges = new Set([range.from, range.to]);
  for (const { from, to } of here)
    for (const hz of [from, to]) if (hz > range.from && hz < range.to) edges.add(hz);
  const cuts = [...edges].sort((a, b) => a - b);
  const stretches: Stretch[] = [];
  cuts.slice(0, -1).forEach((from, at) => {
    const to = cuts[at + 1]!;
    const over = here.filter((one) => one.from <= from && one.to >= to);
    const may = over.some(({ power }) => power[grade] !== undefined);
    const names = [...new Set(over.map(({ band }) => band))];
    const last = stretches.at(-1);
    if (last && last.may === may) {
      last.to = to;
      last.names = [...new Set([...last.names, ...names])];
    } else stretches.push({ from, to, may, names });
  });
  return stretches;
}
