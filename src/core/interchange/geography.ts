import { XMLParser } from 'fast-xml-parser';
import { fail, ok, type Result } from '../result';
import type { Point } from '../radio';
import { jsonFault, xmlFault } from './faults';

/** A place of a geographic file with what is said of it, and the lines that are drawn there. */
export interface Geography {
  kind: 'GeoJSON' | 'GPX' | 'KML';
  /** null for what has fields and no place (RFC 7946, 3.2; KML knows the same). */
  places: { at: Point | null; name: string; note: string; fields: Record<string, string> }[];
  lines: Point[][];
}

/** Most places and points of lines that are read. */
const MOST_POINTS = 100_000;

const isPoint = (lat: number, lon: number) =>
  Number.isFinite(lat) && Number.isFinite(lon) && Math.abs(lat) <= 90 && Math.abs(lon) <= 180;

const text = (value: unknown): string =>
  typeof value === 'string'
    ? value
    : typeof value === 'number' || typeof value === 'boolean'
      ? String(value)
      : '';

const fieldsOf = (record: unknown): Record<string, string> =>
  Object.fromEntries(
    Object.entries((record ?? {}) as Record<string, unknown>)
      .slice(0, 60)
      .map(([name, value]) => [name.slice(0, 60), text(value).slice(0, 1000)])
      .filter(([, value]) => value !== ''),
  );

/** GeoJSON (RFC 7946): longitude first. */
function readGeoJson(json: unknown): Result<Geography> {
  const found: Geography = { kind: 'GeoJSON', places: [], lines: [] };
  let points = 0;
  const point = (at: unknown): Point | null => {
    points++;
    const [lon, lat] = Array.isArray(at) ? at.map(Number) : [];
    return isPoint(lat ?? NaN, lon ?? NaN) ? { lat: lat!, lon: lon! } : null;
  };
  const line = (list: unknown) => {
    const drawn = (Array.isArray(list) ? list : []).flatMap((at) => point(at) ?? []);
    if (drawn.length > 1) found.lines.push(drawn);
  };
  const geometry = (shape: unknown, properties: unknown, depth: number): void => {
    const { type, coordinates, geometries } = (shape ?? {}) as Record<string, unknown>;
    if (depth > 8 || points > MOST_POINTS) return;
    const each = Array.isArray(coordinates) ? coordinates : [];
    if (type === 'Point' || type === 'MultiPoint')
      for (const at of type === 'Point' ? [coordinates] : each) {
        const place = point(at);
        const fields = fieldsOf(properties);
        if (place)
          found.places.push({
            at: place,
            name: fields.name ?? fields.title ?? '',
            note: fields.description ?? '',
            fields,
          });
      }
    else if (type === 'LineString') line(coordinates);
    else if (type === 'MultiLineString' || type === 'Polygon') each.forEach(line);
    else if (type === 'GeometryCollection' && Array.isArray(geometries))
      for (const one of geometries) geometry(one, properties, depth + 1);
  };
  const { type, features } = (json ?? {}) as Record<string, unknown>;
  if (type === 'FeatureCollection' && Array.isArray(features))
    for (const feature of features) {
      const { geometry: shape, properties } = (feature ?? {}) as Record<string, unknown>;
      if (shape !== null) geometry(shape, properties, 0);
      else if (++points <= MOST_POINTS) {
        const fields = fieldsOf(properties);
        found.places.push({
          at: null,
          name: fields.name ?? fields.title ?? '',
          note: fields.description ?? '',
          fields,
        });
      }
    }
  else if (type === 'Feature') {
    const { geometry: shape, properties } = json as Record<string, unknown>;
    geometry(shape, properties, 0);
  } else geometry(json, {}, 0);
  if (points > MOST_POINTS)
    return fail(`There are more than ${MOST_POINTS} points in this file. Nothing was read; part it.`);
  return found.places.length + found.lines.length === 0
    ? fail('There is no place and no line in this GeoJSON. Points, lines and collections of them are read.')
    : ok(found);
}

type Node = Record<string, unknown>;
const list = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined ? [] : [value]).filter(
    (one): one is Node => typeof one === 'object' && one !== null,
  );

/** What Veridon says of a waypoint among its extensions: fields by their names. */
const ownFields = (node: Node): Record<string, string> =>
  Object.fromEntries(
    list(node.extensions)
      .flatMap(({ channel }) => list(channel))
      .flatMap(({ field }) => list(field))
      .slice(0, 60)
      .map((field) => [text(field['@name']).slice(0, 60), text(field['#text']).slice(0, 1000)]),
  );

/** GPX 1.1: waypoints are places; routes and tracks are lines, a segment each. */
function readGpx(gpx: Node): Result<Geography> {
  const at = (node: Node): Point | null => {
    const [lat, lon] = [Number(node['@lat']), Number(node['@lon'])];
    return isPoint(lat, lon) ? { lat, lon } : null;
  };
  const line = (nodes: Node[]) => nodes.flatMap((node) => at(node) ?? []);
  return ok({
    kind: 'GPX',
    places: list(gpx.wpt).flatMap((node) => {
      const place = at(node);
      return place
        ? [
            {
              at: place,
              name: text(node.name).trim(),
              note: (text(node.desc) || text(node.cmt)).trim(),
              fields: { ...fieldsOf(node), ...ownFields(node) },
            },
          ]
        : [];
    }),
    lines: [
      ...list(gpx.rte).map((route) => line(list(route.rtept))),
      ...list(gpx.trk).flatMap((track) => list(track.trkseg).map((part) => line(list(part.trkpt)))),
    ].filter((drawn) => drawn.length > 1),
  });
}

/** KML 2.2: longitude first, with commas; placemarks at any depth. */
function readKml(kml: Node): Result<Geography> {
  const found: Geography = { kind: 'KML', places: [], lines: [] };
  const points = (coordinates: unknown): Point[] =>
    text(coordinates)
      .trim()
      .split(/\s+/)
      .flatMap((one) => {
        const [lon, lat] = one.split(',').map(Number);
        return isPoint(lat ?? NaN, lon ?? NaN) ? [{ lat: lat!, lon: lon! }] : [];
      });
  const placemark = (node: Node, shapes: Node, depth: number): void => {
    if (depth > 8) return;
    const bare = shapes === node && !('Point' in node || 'LineString' in node || 'MultiGeometry' in node);
    for (const { coordinates } of bare ? [{ coordinates: '' }] : list(shapes.Point)) {
      const [place] = points(coordinates);
      const said = { name: text(node.name).trim(), note: text(node.description).trim() };
      const extended = Object.fromEntries(
        list((node.ExtendedData as Node | undefined)?.Data).map((one) => [
          text(one['@name']),
          text(one.value),
        ]),
      );
      const fields = fieldsOf(extended);
      if (place || (bare && Object.keys(fields).length > 0))
        found.places.push({ at: place ?? null, ...said, fields });
    }
    for (const { coordinates } of list(shapes.LineString)) {
      const drawn = points(coordinates);
      if (drawn.length > 1) found.lines.push(drawn);
    }
    for (const inner of list(shapes.MultiGeometry)) placemark(node, inner, depth + 1);
  };
  const folder = (node: Node, depth: number): void => {
    if (depth > 20) return;
    for (const one of list(node.Placemark)) placemark(one, one, 0);
    for (const inner of [...list(node.Folder), ...list(node.Document)]) folder(inner, depth + 1);
  };
  folder(kml, 0);
  return ok(found);
}

/**
 * Reads GeoJSON, GPX or KML. A document type, and with it entities of one's own, is refused: nothing that is read here needs one, and
 * they are how a small file becomes a large one.
 */
export function readGeography(content: string): Result<Geography> {
  const begins = content.trimStart();
  if (/^[{[]/.test(begins)) {
    let json: unknown;
    try {
      json = JSON.parse(content);
    } catch (error) {
      return fail(jsonFault(content, error));
    }
    return readGeoJson(json);
  }
  if (!begins.startsWith('<')) return fail('This is neither GeoJSON nor GPX nor KML.');
  if (/<!(DOCTYPE|ENTITY)/i.test(content))
    return fail(
      'This file declares a document type of its own, which GPX and KML have no use for. Nothing was read.',
    );
  let root: Node;
  try {
    root = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      removeNSPrefix: true,
      parseTagValue: false,
      parseAttributeValue: false,
      trimValues: false,
      processEntities: { enabled: true, maxTotalExpansions: 100_000 },
    }).parse(content, true) as Node;
  } catch {
    return fail(xmlFault(content));
  }
  const rootOf = (name: string): Node | null => (name in root ? (list(root[name])[0] ?? {}) : null);
  const [gpx, kml] = [rootOf('gpx'), rootOf('kml')];
  const read = gpx ? readGpx(gpx) : kml ? readKml(kml) : fail('This XML is neither GPX nor KML.');
  if (!read.ok) return read;
  const { places, lines, kind } = read.value;
  const points = places.length + lines.reduce((sum, one) => sum + one.length, 0);
  if (points > MOST_POINTS)
    return fail(`There are more than ${MOST_POINTS} points in this file. Nothing was read; part it.`);
  return points === 0 ? fail(`There is no place and no line in this ${kind}.`) : read;
}
