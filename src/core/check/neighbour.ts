import { z } from 'zod';
import { accessSchema, distanceKm, usualShift, type Point } from '../radio';
import { channelIdSchema, type Channel, type Owner, type Plan } from '../plan';
import { remembered } from '../remember';

export const neighbourSchema = z.object({
  name: z.string(),
  output: z.int(),
  input: z.int(),
  /** What opens it, as far as that is known. */
  access: accessSchema.optional(),
  lat: z.number().optional(),
  lon: z.number().optional(),
  /** The talkgroups that a digital one carries. */
  groups: z
    .array(
      z.object({
        number: z.int(),
        name: z.string(),
        /** The time slot that carries it. */
        slot: z.union([z.literal(1), z.literal(2)]).optional(),
      }),
    )
    .optional(),
  /** The channel of the plan that it is; undefined for one that only a directory knows. */
  id: channelIdSchema.optional(),
});
/** A repeater near where the plan is used, whether or not the plan holds it. Frequencies in Hz. */
export type Neighbour = z.infer<typeof neighbourSchema>;

/** Stations further apart than this do not disturb each other, km; those without a place count as near. */
const NEARBY_KM = 150;

/** True where two stations can hear each other, or where one of them is may be anywhere. */
export function near(a: Partial<Point>, b: Partial<Point>): boolean {
  if (a.lat === undefined || a.lon === undefined || b.lat === undefined || b.lon === undefined) return true;
  return distanceKm({ lat: a.lat, lon: a.lon }, { lat: b.lat, lon: b.lon }) <= NEARBY_KM;
}

/** Where a channel's station is, as far as its source says: both degrees or neither. */
export function placeOf({ source }: Pick<Channel, 'source'>): Partial<Point> {
  const { lat, lon } = source ?? {};
  return lat === undefined || lon === undefined ? {} : { lat, lon };
}

const repeatersIn = remembered((owner: Owner) =>
  remembered((channel: Channel): Neighbour | null => {
    const { id, name, rx, tx, satellite } = channel;
    if (tx === null || satellite || tx - rx !== usualShift(rx, owner.region)?.shift) return null;
    return { id, name, output: rx, input: tx, ...placeOf(channel) };
  }),
);

/** The repeaters of the plan: channels that are shifted as repeaters are here. */
export function repeatersOf({
  owner,
  channels,
}: Pick<Plan, 'owner'> & { channels: readonly Channel[] }): Neighbour[] {
  const repeater = repeatersIn(owner);
  return channels.flatMap((channel) => repeater(channel) ?? []);
}

/**
 * Repeaters that a directory knows near a channel. One without a place of its own is used where the plan's others are; of a plan that
 * knows no place nothing is said, since every repeater of the world would be near.
 */
export function nearTo(channel: Channel, places: readonly Point[], neighbour: Neighbour): boolean {
  const own = placeOf(channel);
  if (own.lat !== undefined) return near(own, neighbour);
  return places.some((place) => near(place, neighbour));
}

/** The places that channels speak of, those within the same tenth of a degree once. */
export function placesOf(channels: readonly Channel[]): Point[] {
  const places = new Map<string, Point>();
  for (const channel of channels) {
    const { lat, lon } = placeOf(channel);
    if (lat !== undefined && lon !== undefined)
      places.set(`${lat.toFixed(1)} ${lon.toFixed(1)}`, { lat, lon });
  }
  return [...places.values()];
}
