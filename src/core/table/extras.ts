import {
  bearing,
  distanceKm,
  formatDistance,
  locator,
  parseLocator,
  windName,
  type DistanceUnit,
} from '../radio';
import type { HeardByChannel } from '../heard';
import type { Channel, Plan } from '../plan';
import { remembered } from '../remember';
import type { Extra } from './words';

/** From where distances count, and in what. */
export interface ExtraContext {
  /** The owner's own locator; empty where none is said. */
  home: string;
  unit: DistanceUnit;
  heard: HeardByChannel;
  /** What digital channels refer to. */
  lists: Pick<Plan, 'talkgroups' | 'receiveLists' | 'scanLists'>;
  /** A moment as people read it, ISO 8601. */
  day: (moment: string) => string;
}

const namesIn = remembered(
  (records: readonly { id: string; name: string }[]): ReadonlyMap<string, string> =>
    new Map(records.map(({ id, name }) => [id, name])),
);
const nameIn = (records: readonly { id: string; name: string }[], id: string | null | undefined): string =>
  (id && namesIn(records).get(id)) || '';

type Station = { lat: number; lon: number };

/** Where the station of a channel is, and where home is; null where that is not known. */
const placeOf = ({ source }: Channel): Station | null =>
  source?.lat === undefined || source.lon === undefined ? null : { lat: source.lat, lon: source.lon };
const homeOf = (home: string): Station | null => {
  const read = home === '' ? null : parseLocator(home);
  return read?.ok ? read.value : null;
};

/** What stands in a column beside those that are typed: what is known of the station, tags, the note. Empty where nothing is. */
export function extraText(channel: Channel, extra: Extra, context: ExtraContext): string {
  const { source } = channel;
  const place = placeOf(channel);
  const from = homeOf(context.home);
  switch (extra) {
    case 'call':
      return source?.call ?? '';
    case 'place':
      return source?.place ?? '';
    case 'source':
      return source?.directory ?? '';
    case 'locator':
      return place ? locator(place) : '';
    case 'distance':
      return place && from ? formatDistance(distanceKm(from, place), context.unit) : '';
    case 'bearing': {
      if (!place || !from) return '';
      const degrees = Math.round(bearing(from, place)) % 360;
      return `${degrees}° ${windName(degrees)}`;
    }
    case 'heard': {
      const heard = context.heard.get(channel.id);
      return heard ? `${context.day(heard.last)}${heard.times > 1 ? `, ${heard.times} times` : ''}` : '';
    }
    case 'calls':
      return nameIn(context.lists.talkgroups, channel.talkgroup);
    case 'hears':
      return nameIn(context.lists.receiveLists, channel.receiveList);
    case 'scans':
      return nameIn(context.lists.scanLists, channel.scanList);
    case 'tags':
      return (channel.tags ?? []).map((tag) => `#${tag}`).join(' ');
    case 'note':
      return channel.note;
  }
}

/** What rows are ordered by in such a column: km, degrees, the moment, or the text itself; null where there is nothing. */
export function extraKey(
  channel: Channel,
  extra: Extra,
  context: Pick<ExtraContext, 'home' | 'heard' | 'lists'>,
): string | number | null {
  const { home, heard } = context;
  switch (extra) {
    case 'distance':
    case 'bearing': {
      const place = placeOf(channel);
      const from = homeOf(home);
      if (!place || !from) return null;
      return extra === 'distance' ? distanceKm(from, place) : bearing(from, place);
    }
    case 'heard': {
      const known = heard.get(channel.id);
      return known ? Date.parse(known.last) : null;
    }
    default:
      return extraText(channel, extra, { ...context, unit: 'km', day: (moment) => moment }) || null;
  }
}
