import { distanceKm, type Point } from '@/core/radio';
import { fromScreen, onScreen, type Camera, type Size } from './camera';
import { ALL_ISLES } from './isles';

/** What is drawn over the map: the circle that is searched, or the route. */
export type Drawn =
  | { kind: 'none' }
  | { kind: 'around'; centre: Point; km: number }
  | { kind: 'along'; places: readonly Point[]; km: number; cuts: readonly Point[] };

/** What is taken hold of by a press. */
export type Grip =
  | { kind: 'map' }
  | { kind: 'rim' }
  | { kind: 'centre' }
  | { kind: 'new circle'; centre: Point }
  | { kind: 'place'; at: number };

/** What is no further from the pointer is meant, px. */
export const NEAR = 9;

/** What a press at a place of the picture takes hold of. */
export function gripAt(drawn: Drawn, camera: Camera, size: Size, x: number, y: number, shift: boolean): Grip {
  const point = fromScreen(camera, size, x, y);
  const near = (place: Point) => {
    const [atX, atY] = onScreen(camera, size, place);
    return Math.hypot(atX - x, atY - y) <= NEAR;
  };
  if (shift) return { kind: 'new circle', centre: point };
  if (drawn.kind === 'along') {
    const at = drawn.places.findIndex(near);
    return at >= 0 ? { kind: 'place', at } : { kind: 'map' };
  }
  if (drawn.kind === 'none') return { kind: 'map' };
  if (near(drawn.centre)) return { kind: 'centre' };
  const [centreX, centreY] = onScreen(camera, size, drawn.centre);
  const away = distanceKm(drawn.centre, point);
  const off = (Math.hypot(centreX - x, centreY - y) * Math.abs(away - drawn.km)) / Math.max(0.1, away);
  return { kind: off <= 6 ? 'rim' : 'map' };
}

/** What is drawn while something is being dragged to a point; null where the map itself is. */
export function dragged(drawn: Drawn, grip: Grip, point: Point): Drawn | null {
  const kmTo = (centre: Point) => Math.min(500, Math.max(1, Math.round(distanceKm(centre, point))));
  switch (grip.kind) {
    case 'map':
      return null;
    case 'new circle':
      return { kind: 'around', centre: grip.centre, km: kmTo(grip.centre) };
    case 'rim':
      return drawn.kind === 'around' ? { ...drawn, km: kmTo(drawn.centre) } : null;
    case 'centre':
      return drawn.kind === 'around' ? { ...drawn, centre: point } : null;
    case 'place':
      return drawn.kind === 'along'
        ? {
            ...drawn,
            places: drawn.places.map((place, index) => (index === grip.at ? point : place)),
            cuts: [],
          }
        : null;
  }
}

/** What is to be in sight: the circle's sides, the route, or all of the Isles. */
export function pointsOf(drawn: Drawn): readonly Point[] {
  if (drawn.kind === 'around') {
    const { centre, km } = drawn;
    const north = km / 111.2;
    const east = north / Math.cos((centre.lat * Math.PI) / 180);
    return [
      { lat: centre.lat + north, lon: centre.lon - east },
      { lat: centre.lat - north, lon: centre.lon + east },
    ];
  }
  return drawn.kind === 'along' && drawn.places.length > 1 ? drawn.places : ALL_ISLES;
}

/** How much of the picture the points take, as a share of its smaller side. */
export function spanOf(points: readonly Point[], view: Camera, size: Size): number {
  const places = points.map((point) => onScreen(view, size, point));
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  return (
    Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) /
    Math.min(size.width, size.height)
  );
}
