/** A point in degrees, north and east positive. */
export interface Point {
  lat: number;
  lon: number;
}

/** The sphere of the great circle: the mean earth radius of the IUGG, km. */
export const EARTH_RADIUS_KM = 6371.0088;

const rad = (degrees: number) => (degrees * Math.PI) / 180;

/** Great-circle distance in km (haversine, exact enough at any distance on a sphere). */
export function distanceKm(a: Point, b: Point): number {
  const dLat = rad(b.lat - a.lat);
  const dLon = rad(b.lon - a.lon);
  const h = Math.sin(dLat / 2) ** 2 + Math.cos(rad(a.lat)) * Math.cos(rad(b.lat)) * Math.sin(dLon / 2) ** 2;
  return 2 * EARTH_RADIUS_KM * Math.asin(Math.min(1, Math.sqrt(h)));
}

/** Initial bearing from `a` to `b`, degrees true, 0 to below 360. */
export function bearing(a: Point, b: Point): number {
  const dLon = rad(b.lon - a.lon);
  const y = Math.sin(dLon) * Math.cos(rad(b.lat));
  const x =
    Math.cos(rad(a.lat)) * Math.sin(rad(b.lat)) -
    Math.sin(rad(a.lat)) * Math.cos(rad(b.lat)) * Math.cos(dLon);
  return ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360;
}

const WINDS = 'N NNE NE ENE E ESE SE SSE S SSW SW WSW W WNW NW NNW'.split(' ');

/** The 16-point name of a bearing in degrees: 350 is `N`. */
export function windName(degrees: number): string {
  return WINDS[Math.round((((degrees % 360) + 360) % 360) / 22.5) % 16]!;
}

/** The point that lies `km` from `a` on an initial bearing in degrees true. */
export function destination(a: Point, degrees: number, km: number): Point {
  const d = km / EARTH_RADIUS_KM;
  const lat = Math.asin(
    Math.sin(rad(a.lat)) * Math.cos(d) + Math.cos(rad(a.lat)) * Math.sin(d) * Math.cos(rad(degrees)),
  );
  const lon =
    rad(a.lon) +
    Math.atan2(
      Math.sin(rad(degrees)) * Math.sin(d) * Math.cos(rad(a.lat)),
      Math.cos(d) - Math.sin(rad(a.lat)) * Math.sin(lat),
    );
  return { lat: (lat * 180) / Math.PI, lon: (lon * 180) / Math.PI };
}

/** Radio horizon in km of two aerials, heights in m: 4.12 (sqrt h1 + sqrt h2), for an earth of 4/3 its radius. An estimate. */
export function horizonKm(h1: number, h2: number): number {
  return 4.12 * (Math.sqrt(h1) + Math.sqrt(h2));
}
