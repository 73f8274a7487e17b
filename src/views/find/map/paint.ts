import type { Candidate } from '@/core/directory';
import { horizonKm } from '@/core/radio';
import { onScreen, type Camera, type Size } from './camera';
import {
  drawIslandNames,
  drawMany,
  drawMark,
  drawNames,
  drawReach,
  radiusOf,
  type Inks,
  type MarkLook,
  type Taken,
} from './draw';
import { isles } from './isles';
import type { Mark, MarkShape } from './marks';

/** The height of a handheld's aerial in a hand, m. */
export const HAND_HEIGHT = 2;

/** A mark where it is seen, px. */
export interface SeenMark {
  mark: Mark;
  x: number;
  y: number;
}

interface Scene {
  candidates: readonly Candidate[];
  shapes: readonly MarkShape[];
  byKey: ReadonlyMap<string, number>;
  chosen: ReadonlySet<string>;
  lit: string | null;
  seen: readonly SeenMark[];
}

/** The stations, then the names, then the one that is pointed at with its reach, over all else. */
export function paintMarks(
  context: CanvasRenderingContext2D,
  { candidates, shapes, byKey, chosen, lit, seen }: Scene,
  view: Camera,
  size: Size,
  inks: Inks,
): void {
  const lookOf = (index: number, more: Partial<MarkLook> = {}): MarkLook => {
    const { entry, unfit, present } = candidates[index]!;
    return {
      shape: shapes[index]!,
      unfit: unfit !== null,
      offAir: !entry.onAir,
      present: present !== null && !present.near,
      chosen: false,
      lit: false,
      ...more,
    };
  };
  const taken = seen.map(({ mark, x, y }): Taken => {
    const r = mark.kind === 'many' ? radiusOf(mark.n) : 5;
    return [x - r, y - r, x + r, y + r];
  });
  drawIslandNames(context, isles(), view, size, inks, taken);
  for (const { mark, x, y } of seen)
    if (mark.kind === 'many') drawMany(context, x, y, mark.n, inks);
    else drawMark(context, x, y, lookOf(mark.index), inks);
  // What is chosen is seen wherever it stands, also among others.
  for (const key of chosen) {
    const index = byKey.get(key);
    if (index === undefined) continue;
    const at = onScreen(view, size, candidates[index]!.entry);
    drawMark(context, ...at, lookOf(index, { chosen: true }), inks);
  }
  drawNames(context, isles(), view, size, inks, taken);
  const index = lit === null ? undefined : byKey.get(lit);
  if (index === undefined) return;
  const { entry } = candidates[index]!;
  drawReach(context, entry, horizonKm(entry.height, HAND_HEIGHT), view, size, inks);
  const look = lookOf(index, { lit: true, chosen: chosen.has(lit!) });
  drawMark(context, ...onScreen(view, size, entry), look, inks);
}

/** The middle of the picture, where the keyboard acts. */
export function drawCross(context: CanvasRenderingContext2D, { width, height }: Size, inks: Inks): void {
  const [x, y] = [width / 2, height / 2];
  context.strokeStyle = inks.transmit;
  context.lineWidth = 1.4;
  context.beginPath();
  context.arc(x, y, 10, 0, 2 * Math.PI);
  context.moveTo(x - 15, y);
  context.lineTo(x + 15, y);
  context.moveTo(x, y - 15);
  context.lineTo(x, y + 15);
  context.stroke();
}
