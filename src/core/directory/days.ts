/** A day of a route: from where to where on it, km that have been travelled. */
export interface Day {
  from: number;
  to: number;
}

/** A route cut into days: at places where one stays the night (km along it), or into so many of the same length. */
export function daysOf(routeKm: number, cuts: readonly number[] | number): Day[] {
  const at =
    typeof cuts === 'number'
      ? Array.from({ length: Math.max(1, cuts) - 1 }, (_, n) => (routeKm * (n + 1)) / Math.max(1, cuts))
      : [...new Set(cuts)].filter((km) => km > 0 && km < routeKm).sort((a, b) => a - b);
  const edges = [0, ...at, routeKm];
  return edges.slice(1).map((to, index) => ({ from: edges[index]!, to }));
}

/**
 * The days on which a station along the route is wanted, by number from 0: that of its place, and its neighbour's where it lies no
 * further than `overlap` km from where the one ends and the other begins.
 */
export function daysOfStation(along: number, days: readonly Day[], overlap: number): number[] {
  return days.flatMap(({ from, to }, day) => (along >= from - overlap && along <= to + overlap ? [day] : []));
}
