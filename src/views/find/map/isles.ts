import type { Point } from '@/core/radio';
import { plane } from './camera';
import shapes from './isles.json';

/** The Orrin Isles as they are drawn, in the plane of the map (`camera.ts`); made by scripts/draw-isles.ts. */
export interface Isles {
  /** Coast and hills, lowest first. */
  levels: Path2D[];
  ferries: Path2D;
  towns: readonly (Point & { name: string; large: boolean })[];
  islands: readonly (Point & { name: string })[];
}

const at = (thousandthsEast: number, thousandthsNorth: number) =>
  plane({ lat: thousandthsNorth / 1000, lon: thousandthsEast / 1000 });

/** Rings are written as their first place and the steps from each to the next, in thousandths of a degree. */
function ring(path: Path2D, steps: readonly number[]): void {
  let [east, north] = [0, 0];
  for (let step = 0; step < steps.length; step += 2) {
    east += steps[step]!;
    north += steps[step + 1]!;
    const [x, y] = at(east, north);
    if (step === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  }
  path.closePath();
}

let drawn: Isles | undefined;

/** The shapes, made once. */
export function isles(): Isles {
  if (drawn) return drawn;
  const ferries = new Path2D();
  for (const [from, middle, to] of shapes.ferries) {
    const [a, b, c] = [from!, middle!, to!].map(([east, north]) => at(east!, north!));
    ferries.moveTo(...a!);
    ferries.quadraticCurveTo(...b!, ...c!);
  }
  drawn = {
    levels: shapes.levels.map((rings) => {
      const path = new Path2D();
      for (const steps of rings) ring(path, steps);
      return path;
    }),
    ferries,
    towns: shapes.towns,
    islands: shapes.islands,
  };
  return drawn;
}

/** The corners of what is drawn: all of the Isles. */
export const ALL_ISLES: readonly Point[] = [
  { lat: 50.35, lon: -33.1 },
  { lat: 54, lon: -26.8 },
];
