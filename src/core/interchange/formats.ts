import { countOf, KIND_NAMES, KINDS, recordsOf, type Channel, type Plan } from '../plan';

/** The open formats in which channels go out. */
export const OUT_FORMATS = ['csv', 'xlsx', 'json', 'geojson', 'gpx', 'kml'] as const;
export type OutFormat = (typeof OUT_FORMATS)[number];

/** What each is called, and what it is for. */
export const OUT_NAMES: Record<OutFormat, { name: string; use: string; type: string }> = {
  csv: { name: 'CSV', use: 'rows for any spreadsheet', type: 'text/csv; charset=utf-8' },
  xlsx: {
    name: 'XLSX',
    use: 'a spreadsheet',
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
  json: { name: 'Plan', use: 'the plan whole, for Veridon', type: 'application/json' },
  geojson: { name: 'GeoJSON', use: 'places for a map', type: 'application/geo+json' },
  gpx: { name: 'GPX', use: 'waypoints for a receiver', type: 'application/gpx+xml' },
  kml: { name: 'KML', use: 'places for a globe', type: 'application/vnd.google-earth.kml+xml' },
};

/** True where it is known where the station is. */
export const isPlaced = ({ source }: Pick<Channel, 'source'>) =>
  source?.lat !== undefined && source.lon !== undefined;

/** What XML 1.0 cannot hold (2.2), and a line break that it would read as another (2.11). */
// eslint-disable-next-line no-control-regex -- it is these that are meant
const NOT_IN_XML = /[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g;
/** A text as XML can hold it. */
export const inXml = (text: string) => text.replace(/\r\n?/g, '\n').replace(NOT_IN_XML, '');

const many = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`;

/** What a format cannot hold of a plan, in words that follow “without”; empty where it holds all of it. */
export function lossesOf(plan: Plan, format: OutFormat): string[] {
  if (format === 'json') return [];
  const { channels, settings } = plan;
  const polite = channels.filter(({ politeness }) => politeness !== undefined).length;
  const placed = channels.filter(isPlaced).length;
  const fitted = channels.filter((channel) => Object.keys(channel.fitted).length > 0).length;
  const unclear = channels.filter((channel) => channel.unclear !== undefined).length;
  const odd = channels.filter(
    (channel) => inXml(channel.name + channel.note) !== channel.name + channel.note,
  );
  return [
    format === 'gpx' && placed < channels.length
      ? many(
          channels.length - placed,
          'channel whose place nobody knows',
          'channels whose place nobody knows',
        )
      : '',
    // Rows are channels: records of all other kinds stay behind.
    ...KIND_NAMES.map((kind) => {
      const { length } = recordsOf(plan, kind);
      return kind === 'channel' || length === 0 ? '' : countOf(length, KINDS[kind]);
    }),
    polite > 0 ? `when ${many(polite, 'channel')} may send` : '',
    Object.keys(settings).length > 0 ? 'settings' : '',
    unclear > 0 ? `texts that were not understood, in ${many(unclear, 'channel')}` : '',
    fitted > 0 ? many(fitted, 'name fitted by hand', 'names fitted by hand') : '',
    (format === 'gpx' || format === 'kml') && odd.length > 0
      ? `signs that no XML holds, in ${many(odd.length, 'channel')}`
      : '',
  ].filter((words) => words !== '');
}
