import {
  bearing,
  distanceKm,
  formatDistance,
  locator,
  parseLocator,
  windName,
  type DistanceUnit,
} from '../radio';
import type { Channel } from '../plan';
import type { Extra } from './words';

/** From where distances count, and in what. */
export interface ExtraContext {
  /** The owner's own locator; empty where none is said. */
  home: string;
  unit: DistanceUnit;
}

/** What stands in a column beside those that are typed: what is known of the station, tags, the note. Empty where nothing is. */
export function extraText(channel: Channel, extra: Extra, { home, unit }: ExtraContext): string {
  const { source } = channel;
  const place =
    source?.lat === undefined || source.lon === undefined ? null : { lat: source.lat, lon: source.lon };
  const from = place && home !== '' ? parseLocator(home) : null;
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
      return place && from?.ok ? formatDistance(distanceKm(from.value, place), unit) : '';
    case 'bearing': {
      if (!place || !from?.ok) return '';
      const degrees = Math.round(bearing(from.value, place)) % 360;
      return `${degrees}° ${windName(degrees)}`;
    }
    case 'tags':
      return (channel.tags ?? []).map((tag) => `#${tag}`).join(' ');
    case 'note':
      return channel.note;
  }
}
