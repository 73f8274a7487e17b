import { XMLBuilder } from 'fast-xml-parser';
import Papa from 'papaparse';
import { withoutDangling, type Plan } from '../plan';
import { columnsOf, fieldsOf, numberText, wordsIn, type Outgoing } from './columns';
import { inXml, isPlaced, type OutFormat } from './formats';
import { defused } from './formula';
import { writeSpreadsheet } from './spreadsheet';

/** Rows (RFC 4180): one a channel. Cells that a spreadsheet would run as formulas are defused. The mark of UTF-8 stands before them: some spreadsheets know it by nothing else. */
export function writeCsv(channels: readonly Outgoing[]): string {
  const columns = columnsOf(channels);
  const rows = channels.map((channel) =>
    columns.map((column) => {
      const words = wordsIn(column, channel);
      return typeof column.cell(channel) === 'number' ? words : defused(words);
    }),
  );
  return `\ufeff${Papa.unparse([columns.map(({ heading }) => heading), ...rows], { newline: '\r\n' })}`;
}

/** GeoJSON (RFC 7946): a feature a channel; of whom nobody knows where it is, one without a place (3.2). */
export function writeGeoJson(channels: readonly Outgoing[]): string {
  const features = channels.map((channel) => {
    const { Latitude: _, Longitude: _lon, ...properties } = fieldsOf(channel);
    const geometry = isPlaced(channel)
      ? { type: 'Point', coordinates: [channel.source!.lon, channel.source!.lat] }
      : null;
    return { type: 'Feature', geometry, properties: { ...properties, name: channel.name } };
  });
  return JSON.stringify({ type: 'FeatureCollection', features }, null, 1);
}

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  format: true,
  indentBy: ' ',
  suppressEmptyNode: true,
});
const xml = (root: object): string => `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build(root)}`;

/** In a few words what somebody needs who has only the name of a place and what is said of it. */
const jotted = (channel: Outgoing): string => {
  const { 'Receive MHz': receive, 'Transmit MHz': transmit, Access, Mode } = fieldsOf(channel);
  return `${receive} MHz, sends ${transmit === 'listen only' ? 'nothing' : `${transmit} MHz`}, ${Access}, ${Mode}`;
};

/** The namespace of what a waypoint says beyond its place and name. */
const OWN_SPACE = 'urn:veridon:channel';

/** GPX 1.1: a waypoint a channel whose place is known, all else of it among the extensions. The others are not in it. */
export function writeGpx(channels: readonly Outgoing[], name: string): string {
  const wpt = channels.filter(isPlaced).map((channel) => ({
    '@lat': numberText(channel.source!.lat!),
    '@lon': numberText(channel.source!.lon!),
    name: inXml(channel.name),
    ...(channel.note !== '' && { cmt: inXml(channel.note) }),
    desc: inXml(jotted(channel)),
    extensions: {
      'vd:channel': {
        'vd:field': Object.entries(fieldsOf(channel)).map(([heading, text]) => ({
          '@name': heading,
          '#text': inXml(text),
        })),
      },
    },
  }));
  return xml({
    gpx: {
      '@version': '1.1',
      '@creator': 'Veridon',
      '@xmlns': 'http://www.topografix.com/GPX/1/1',
      '@xmlns:vd': OWN_SPACE,
      metadata: { name: inXml(name) },
      wpt,
    },
  });
}

/** KML 2.2: a placemark a channel; one whose place nobody knows has no point. */
export function writeKml(channels: readonly Outgoing[], name: string): string {
  const placemarks = channels.map((channel) => ({
    name: inXml(channel.name),
    description: inXml(jotted(channel)),
    ExtendedData: {
      Data: Object.entries(fieldsOf(channel)).map(([heading, text]) => ({
        '@name': heading,
        value: inXml(text),
      })),
    },
    ...(isPlaced(channel) && {
      Point: { coordinates: `${numberText(channel.source!.lon!)},${numberText(channel.source!.lat!)}` },
    }),
  }));
  return xml({
    kml: {
      '@xmlns': 'http://www.opengis.net/kml/2.2',
      Document: { name: inXml(name), Placemark: placemarks },
    },
  });
}

/** The bytes of a file with channels; a plan's own format is `planFile`'s. */
export async function writeChannels(
  format: Exclude<OutFormat, 'json'>,
  channels: readonly Outgoing[],
  name: string,
): Promise<Uint8Array> {
  if (format === 'xlsx') return writeSpreadsheet(channels, name);
  const text = {
    csv: () => writeCsv(channels),
    geojson: () => writeGeoJson(channels),
    gpx: () => writeGpx(channels, name),
    kml: () => writeKml(channels, name),
  }[format]();
  return new TextEncoder().encode(text);
}

/** A plan with some of its channels alone: without what refers to the others. */
export function planOf(plan: Plan, ids: ReadonlySet<string>): Plan {
  return withoutDangling({
    ...plan,
    channels: plan.channels.filter(({ id }) => ids.has(id)),
    zones: plan.zones.filter(({ members }) => members.some((id) => ids.has(id))),
    leftOver: [],
  });
}
