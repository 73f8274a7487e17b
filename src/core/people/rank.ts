/** Who is heard most, and how much of all that is heard so many people are. */

/** Somebody with how often they keyed up. */
export interface Ranked {
  id: number;
  keyUps: number;
}

export interface Ranking {
  /** Pinned first, then by key-ups; of as many, by number. */
  ranked: Ranked[];
  /** All key-ups of those who are ranked. */
  keyUps: number;
  /** Numbers that are nobody's, by the rule: how many, and their key-ups. */
  left: { numbers: number; keyUps: number };
}

/** Ranks by counts. `isPerson` is the rule by which a number is somebody: repeaters and services are not. Who is pinned is there in any case. */
export function rank(
  counts: ReadonlyMap<number, number>,
  { isPerson, pinned }: { isPerson: (id: number) => boolean; pinned: ReadonlySet<number> },
): Ranking {
  const ranked: Ranked[] = [];
  const left = { numbers: 0, keyUps: 0 };
  let all = 0;
  for (const [id, keyUps] of counts) {
    if (!pinned.has(id) && !isPerson(id)) {
      left.numbers++;
      left.keyUps += keyUps;
      continue;
    }
    ranked.push({ id, keyUps });
    all += keyUps;
  }
  for (const id of pinned) if (!counts.has(id)) ranked.push({ id, keyUps: 0 });
  ranked.sort(
    (a, b) => Number(pinned.has(b.id)) - Number(pinned.has(a.id)) || b.keyUps - a.keyUps || a.id - b.id,
  );
  return { ranked, keyUps: all, left };
}

/** A point of the curve: so many people are so many of the key-ups. */
export interface Point {
  people: number;
  keyUps: number;
}

/** How many key-ups the first n cover, for n from none to all, in `points` steps; closer together where the curve is steep. */
export function curveOf(ranked: readonly Ranked[], points: number): Point[] {
  const curve: Point[] = [{ people: 0, keyUps: 0 }];
  let [keyUps, next] = [0, 1];
  for (let n = 1; n <= ranked.length; n++) {
    keyUps += ranked[n - 1]!.keyUps;
    // By squares: the first hundred matter more than the last ten thousand.
    if (n < (next / points) ** 2 * ranked.length && n < ranked.length) continue;
    curve.push({ people: n, keyUps });
    while ((next / points) ** 2 * ranked.length <= n) next++;
  }
  return curve;
}

/** How many key-ups the first `people` cover, between the points of a curve by a straight line. */
export function coveredBy(curve: readonly Point[], people: number): number {
  const at = curve.findIndex((point) => point.people >= people);
  if (at < 0) return curve[curve.length - 1]?.keyUps ?? 0;
  const [before, after] = [curve[Math.max(0, at - 1)]!, curve[at]!];
  if (after.people === before.people) return after.keyUps;
  const part = (people - before.people) / (after.people - before.people);
  return before.keyUps + part * (after.keyUps - before.keyUps);
}

/** The fewest people who cover a share of the key-ups. */
export function peopleFor(curve: readonly Point[], share: number): number {
  const all = curve[curve.length - 1]?.keyUps ?? 0;
  return curve.find(({ keyUps }) => keyUps >= share * all)?.people ?? 0;
}
