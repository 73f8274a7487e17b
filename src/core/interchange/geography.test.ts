import { readGeography } from '.';

const value = (content: string) => {
  const read = readGeography(content);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

test('GPX: waypoints, a route, a track of two segments', () => {
  const { kind, places, lines } = value(`<?xml version="1.0"?>
    <gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">
      <wpt lat="52.06" lon="-29.84"><name>Ketterby &amp; Quay</name><desc>145.6125 -0.6 88.5</desc></wpt>
      <wpt lat="91" lon="0"><name>Nowhere</name></wpt>
      <rte><rtept lat="52" lon="-30"/><rtept lat="53" lon="-30"/></rte>
      <trk><trkseg><trkpt lat="1" lon="2"/><trkpt lat="3" lon="4"/></trkseg>
        <trkseg><trkpt lat="5" lon="6"/><trkpt lat="7" lon="8"/></trkseg><trkseg><trkpt lat="9" lon="9"/></trkseg></trk>
    </gpx>`);
  expect(kind).toBe('GPX');
  expect(places).toMatchObject([
    { at: { lat: 52.06, lon: -29.84 }, name: 'Ketterby & Quay', note: '145.6125 -0.6 88.5' },
  ]);
  expect(lines).toEqual([
    [
      { lat: 52, lon: -30 },
      { lat: 53, lon: -30 },
    ],
    [
      { lat: 1, lon: 2 },
      { lat: 3, lon: 4 },
    ],
    [
      { lat: 5, lon: 6 },
      { lat: 7, lon: 8 },
    ],
  ]);
});

test('KML: placemarks in folders, longitude first', () => {
  const { kind, places, lines } = value(`<kml xmlns="http://www.opengis.net/kml/2.2"><Document><Folder>
    <Placemark><name>Hill</name><description>old</description>
      <ExtendedData><Data name="output"><value>145.6125</value></Data></ExtendedData>
      <Point><coordinates>-29.84,52.06,120</coordinates></Point></Placemark>
    <Placemark><MultiGeometry><LineString><coordinates>-30,52 -30,53
      -29,53</coordinates></LineString></MultiGeometry></Placemark></Folder></Document></kml>`);
  expect(kind).toBe('KML');
  expect(places).toMatchObject([
    { at: { lat: 52.06, lon: -29.84 }, name: 'Hill', fields: { output: '145.6125' } },
  ]);
  expect(lines[0]).toEqual([
    { lat: 52, lon: -30 },
    { lat: 53, lon: -30 },
    { lat: 53, lon: -29 },
  ]);
});

test('GeoJSON: features, collections, bare geometries', () => {
  const point = { type: 'Point', coordinates: [-29.84, 52.06] };
  const line = {
    type: 'LineString',
    coordinates: [
      [-30, 52],
      [-30, 53, 120],
      ['x', 1],
    ],
  };
  expect(
    value(
      JSON.stringify({
        type: 'FeatureCollection',
        features: [
          { type: 'Feature', geometry: point, properties: { name: 'Hill', output: 145.6125 } },
          {
            type: 'Feature',
            geometry: { type: 'GeometryCollection', geometries: [line, null] },
            properties: null,
          },
          null,
        ],
      }),
    ),
  ).toEqual({
    kind: 'GeoJSON',
    places: [
      {
        at: { lat: 52.06, lon: -29.84 },
        name: 'Hill',
        note: '',
        fields: { name: 'Hill', output: '145.6125' },
      },
    ],
    lines: [
      [
        { lat: 52, lon: -30 },
        { lat: 53, lon: -30 },
      ],
    ],
  });
  expect(value(JSON.stringify(point)).places).toHaveLength(1);
});

test.each([
  [
    'a document type',
    '<!DOCTYPE gpx [<!ENTITY a "b">]><gpx><wpt lat="1" lon="1"/></gpx>',
    /declares a document type/,
  ],
  ['rubbish', 'hello', /neither GeoJSON nor GPX nor KML/],
  ['broken XML', '<gpx><wpt lat="1"', /no XML/],
  ['other XML', '<html><body/></html>', /neither GPX nor KML/],
  ['broken JSON', '{"type": ', /no JSON/],
  ['empty GPX', '<gpx></gpx>', /no place and no line in this GPX/],
  ['empty GeoJSON', '{"type":"FeatureCollection","features":[]}', /no place and no line/],
])('%s is refused with the reason', (_, content, reason) => {
  expect(readGeography(content)).toMatchObject({
    ok: false,
    reason: expect.stringMatching(reason) as string,
  });
});

test.each([
  ['<gpx>\n<wpt lat="1"', 'This is no XML: it is not complete. '],
  ['<gpx>\r\n\r\n<wpt></gpx>', 'This is no XML: it is damaged in line 3. '],
  ['<', 'This is no XML: it is damaged in line 1. '],
  ['<?xml', 'This is no XML: it is not complete. '],
  [`<a><${'z'.repeat(5000)}>`, 'This is no XML: it is not complete. '],
  [`<gpx><name>${'&lt;'.repeat(100_001)}</name></gpx>`, 'This XML repeats too much. '],
  ['{"type":\n\n', 'This is no JSON: it breaks off in line 1. '],
  ['{"type":\n"Feat', 'This is no JSON: it breaks off in line 2. '],
  ['{"type":1,\n2}', 'This is no JSON: it is damaged in line 2. '],
  ['[1,,2]', 'This is no JSON: it is damaged. '],
])('damaged text %#: the line is named, and the file is not quoted', (content, sentence) => {
  const read = readGeography(content);
  expect(read).toMatchObject({ ok: false });
  expect(read.ok ? '' : read.reason.slice(0, sentence.length)).toBe(sentence);
  expect(read.ok ? '' : read.reason.length).toBeLessThan(120);
});

test('depth without end is not followed', () => {
  let shape: object = { type: 'Point', coordinates: [1, 1] };
  for (let depth = 0; depth < 2000; depth++) shape = { type: 'GeometryCollection', geometries: [shape] };
  expect(readGeography(JSON.stringify(shape))).toMatchObject({ ok: false });
});
