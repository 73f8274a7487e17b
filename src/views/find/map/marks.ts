import Supercluster from 'supercluster';
import type { Candidate } from '@/core/directory';
import { bandOf } from '../bands';

/** How a station is drawn: by its band. */
export const MARK_SHAPES = ['disc', 'square', 'triangle', 'diamond', 'bar', 'cross'] as const;
export type MarkShape = (typeof MARK_SHAPES)[number];

const BY_BAND: Record<string, MarkShape> = {
  '2 m': 'disc',
  '70 cm': 'square',
  '23 cm': 'diamond',
  '1.25 m': 'bar',
  '6 m': 'triangle',
  '10 m': 'triangle',
};
/** What the shapes are called in the legend. */
export const SHAPE_NAMES: Record<MarkShape, string> = {
  disc: '2 m',
  square: '70 cm',
  triangle: '10 m, 6 m',
  diamond: '23 cm',
  bar: '1.25 m',
  cross: 'services',
};

export const shapeOf = (candidate: Candidate): MarkShape => BY_BAND[bandOf(candidate)] ?? 'cross';

/** Marks closer than this are one with a number, px. */
const TOGETHER_PX = 44;
/** From this level on every mark stands by itself. */
const MOST_LEVEL = 13;

/** One mark, or several together. */
export type Mark =
  | { kind: 'one'; lat: number; lon: number; index: number }
  | { kind: 'many'; lat: number; lon: number; n: number; id: number };

/** The marks of stations, found by what is seen. */
export interface Marks {
  in(box: [west: number, south: number, east: number, north: number], level: number): Mark[];
  /** The level at which those that are together come apart. */
  apartAt(id: number): number;
  /** Which stations are together. */
  of(id: number): number[];
}

export function marksOf(candidates: readonly Candidate[]): Marks {
  const clusters = new Supercluster<{ index: number }>({
    radius: TOGETHER_PX,
    extent: 256,
    maxZoom: MOST_LEVEL,
  });
  clusters.load(
    candidates.map(({ entry: { lat, lon } }, index) => ({
      type: 'Feature' as const,
      properties: { index },
      geometry: { type: 'Point' as const, coordinates: [lon, lat] },
    })),
  );
  return {
    in: (box, level) =>
      clusters.getClusters(box, Math.max(0, Math.floor(level))).map(({ geometry, properties }): Mark => {
        const [lon, lat] = geometry.coordinates as [number, number];
        return 'cluster' in properties
          ? { kind: 'many', lat, lon, n: properties.point_count, id: properties.cluster_id }
          : { kind: 'one', lat, lon, index: properties.index };
      }),
    apartAt: (id) => clusters.getClusterExpansionZoom(id),
    of: (id) => clusters.getLeaves(id, Infinity).map(({ properties }) => properties.index),
  };
}
