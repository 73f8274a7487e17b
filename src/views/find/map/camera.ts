import { geoMercator, type GeoProjection } from 'd3-geo';
import type { Point } from '@/core/radio';

/**
 * What of the world is seen: the middle in the plane of Mercator's projection, and how many pixels a radian of longitude is. The
 * plane's x goes east, its y south, both in radians.
 */
export interface Camera {
  x: number;
  y: number;
  k: number;
}

export interface Size {
  width: number;
  height: number;
}

/** From how far away to how near: the Isles in a stamp, and a street. */
const NEAREST = 400_000;
const FARTHEST = 500;
const clampK = (k: number) => Math.min(NEAREST, Math.max(FARTHEST, k));

const rad = (degrees: number) => (degrees * Math.PI) / 180;

/** A point in the plane; poles are as far as the plane is drawn. */
export function plane({ lat, lon }: Point): [number, number] {
  const phi = rad(Math.max(-85, Math.min(85, lat)));
  return [rad(lon), -Math.log(Math.tan(Math.PI / 4 + phi / 2))];
}

/** The point that a place of the plane is. */
export const unplane = (x: number, y: number): Point => ({
  lat: (2 * Math.atan(Math.exp(-y)) * 180) / Math.PI - 90,
  lon: (x * 180) / Math.PI,
});

/** Where a point is drawn, px. */
export function onScreen(camera: Camera, size: Size, point: Point): [number, number] {
  const [x, y] = plane(point);
  return [(x - camera.x) * camera.k + size.width / 2, (y - camera.y) * camera.k + size.height / 2];
}

/** The point that is drawn at a place, px. */
export const fromScreen = (camera: Camera, size: Size, px: number, py: number): Point =>
  unplane(camera.x + (px - size.width / 2) / camera.k, camera.y + (py - size.height / 2) / camera.k);

/** How many pixels a km is at a latitude: the projection draws it larger towards the poles. */
export const pxPerKm = ({ k }: Camera, lat: number): number => k / 6371.0088 / Math.cos(rad(lat));

/** The camera moved by so many px. */
export const panned = (camera: Camera, dx: number, dy: number): Camera => ({
  ...camera,
  x: camera.x - dx / camera.k,
  y: camera.y - dy / camera.k,
});

/** Nearer or farther by a factor; what is at the place, px, stays there. */
export function zoomed(camera: Camera, size: Size, by: number, px: number, py: number): Camera {
  const k = clampK(camera.k * by);
  const [offX, offY] = [px - size.width / 2, py - size.height / 2];
  return {
    k,
    x: camera.x + offX / camera.k - offX / k,
    y: camera.y + offY / camera.k - offY / k,
  };
}

/** The camera that sees all of the points with a margin, px. */
export function around(points: readonly Point[], size: Size, margin = 24): Camera {
  const places = points.map(plane);
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const [west, east, north, south] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const k = Math.min(
    Math.max(40, size.width - 2 * margin) / Math.max(1e-6, east - west),
    Math.max(40, size.height - 2 * margin) / Math.max(1e-6, south - north),
  );
  return { x: (west + east) / 2, y: (north + south) / 2, k: clampK(k) };
}

/** The same as a projection, for what d3-geo draws. */
export const projectionOf = ({ x, y, k }: Camera, { width, height }: Size): GeoProjection =>
  geoMercator()
    .scale(k)
    .translate([width / 2 - x * k, height / 2 - y * k]);

/** The zoom level at which a tile of 256 px would show as much. */
export const levelOf = ({ k }: Camera): number => Math.log2((2 * Math.PI * k) / 256);
