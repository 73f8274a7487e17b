/** What distances are shown and asked for in; inside they are always km. */
export const DISTANCE_UNITS = ['km', 'mi'] as const;
export type DistanceUnit = (typeof DISTANCE_UNITS)[number];

/** The international mile, km. */
const KM_PER_MILE = 1.609344;

/** A distance in km as a number of the unit. */
export const inUnit = (km: number, unit: DistanceUnit): number => (unit === 'km' ? km : km / KM_PER_MILE);

/** A number of the unit as km. */
export const toKm = (distance: number, unit: DistanceUnit): number =>
  unit === 'km' ? distance : distance * KM_PER_MILE;

/** A distance with its unit: `6.4 km`, `4.0 mi`. */
export const formatDistance = (km: number, unit: DistanceUnit): string =>
  `${inUnit(km, unit).toFixed(1)} ${unit}`;
