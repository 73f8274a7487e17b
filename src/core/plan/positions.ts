/**
 * Positions of records with an order of their own, as the tables keep them: numbers that go up, with room between them. What comes between two others gets a
 * number between theirs, and what goes leaves a gap, so that no other row is written.
 */

/** The places in a list of numbers of a longest selection that goes up. */
function longestRise(numbers: readonly number[]): Set<number> {
  /** By length, less one: the place of the lowest end of a selection that long. */
  const ends: number[] = [];
  const before: number[] = [];
  numbers.forEach((number, at) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (numbers[ends[middle]!]! < number) low = middle + 1;
      else high = middle;
    }
    before[at] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = at;
  });
  const rise = new Set<number>();
  for (let at = ends.at(-1) ?? -1; at >= 0; at = before[at]!) rise.add(at);
  return rise;
}

/**
 * The positions to write so that records stand in the order of `ids`; `had` are the positions that they have, none for a new one. As few as can be are moved.
 * Where two neighbours leave no number between them all are numbered again, from 0.
 */
export function positionsToWrite(
  ids: readonly string[],
  had: ReadonlyMap<string, number>,
): Map<string, number> {
  const known = ids.flatMap((id) => had.get(id) ?? []);
  const stay = longestRise(known);
  const write = new Map<string, number>();
  let [seen, last, start] = [0, -Infinity, 0];
  /** Gives numbers to those from `start` up to `end`, between `last` and `next`. */
  const fill = (end: number, next: number) => {
    const count = end - start;
    const step = Number.isFinite(last) && Number.isFinite(next) ? (next - last) / (count + 1) : 1;
    const first = Number.isFinite(last) ? last + step : Number.isFinite(next) ? next - count : 0;
    for (let n = 0; n < count; n++) write.set(ids[start + n]!, first + n * step);
  };
  ids.forEach((id, at) => {
    const position = had.get(id);
    if (position === undefined || !stay.has(seen++)) return;
    fill(at, position);
    [last, start] = [position, at + 1];
  });
  fill(ids.length, Infinity);
  const positions = ids.map((id) => write.get(id) ?? had.get(id)!);
  return positions.every((position, at) => at === 0 || position > positions[at - 1]!)
    ? write
    : new Map(ids.map((id, at) => [id, at]));
}
