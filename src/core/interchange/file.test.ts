import * as fc from '../property.test.kit';
import { channel, plan } from '../samples.test.kit';
import { readFile } from '.';

const bytes = (text: string) => new TextEncoder().encode(text);
const read = async (text: string) => {
  const found = await readFile(bytes(text));
  if (!found.ok) throw new Error(found.reason);
  return found.value;
};

test('a plan of ours, a table and a map are told apart by what is in them', async () => {
  const own = plan([channel(3, 145_500_000, { name: 'Calling' })]);
  expect(await read(JSON.stringify(own))).toMatchObject({
    kind: 'plan',
    name: own.name,
    plan: { channels: [{ slot: 3, name: 'Calling' }] },
  });
  expect(await read('Name,Receive\nHill,145.6125')).toMatchObject({ kind: 'table', encoding: 'UTF-8' });
  expect(
    await read('<gpx><wpt lat="52" lon="-30"><name>Hill</name><desc>145.6125 -0.6 88.5</desc></wpt></gpx>'),
  ).toMatchObject({
    kind: 'places',
    what: 'GPX',
    rows: [
      { line: 1, cells: { name: 'Hill', rx: '145.6125', tx: '-0.6', access: '88.5', lat: '52', lon: '-30' } },
    ],
  });
  const feature = {
    type: 'Feature',
    geometry: { type: 'Point', coordinates: [-30, 52] },
    properties: { name: 'Moor', output: '145.700', input: '145.100', tone: '77.0' },
  };
  expect(await read(JSON.stringify(feature))).toMatchObject({
    rows: [{ cells: { name: 'Moor', rx: '145.700', tx: '145.100', access: '77.0' } }],
  });
});

test.each([
  ['{"channels": [', /no JSON/],
  ['{"channels": 7}', /./],
  ['{"a": 1}', /no place and no line/],
  ['', /empty/],
])('%j is refused with the reason', async (text, reason) => {
  expect(await readFile(bytes(text))).toMatchObject({
    ok: false,
    reason: expect.stringMatching(reason) as string,
  });
});

test('a list as somebody jots it down is a station a line; what has cells is a table', async () => {
  const list = await read(
    'Our hills\n\n1. Ullsmere Hill 145.6125 -0.6 88.5\n- Quay: 433,500 MHz listen\nCalling 145.5\n',
  );
  expect(list).toMatchObject({
    kind: 'list',
    rows: [
      { line: 1, cells: { name: 'Our hills' } },
      { line: 3, cells: { name: 'Ullsmere Hill', rx: '145.6125', tx: '-0.6', access: '88.5' } },
      { line: 4, cells: { rx: '433,500 MHz', tx: 'x' } },
      { line: 5, cells: { name: 'Calling', rx: '145.5' } },
    ],
  });
  for (const table of ['Hill,145.6125\nQuay,433.5', 'Hill;145,6125\nQuay;433,5', 'Hill\t145.6\nQuay\t433.5'])
    expect(await read(table)).toMatchObject({ kind: 'table' });
});

test('whatever a file is, it is read or refused with a sentence, and never breaks what reads it', async () => {
  const reached = fc.tally();
  const piece = fc.constantFrom(
    ...['Name', 'Receive', '145,6', '"', '""', ',', ';', '\t', '|', '\n', '\r\n', ' ', '<gpx>', '</gpx>'],
    ...[
      '<wpt lat="1" lon="2">',
      '<kml>',
      '&amp;',
      '&#9;',
      '<![CDATA[',
      '{"channels":',
      '{"type":',
      '[',
      '}',
      'null',
    ],
  );
  await fc.assert(
    fc.asyncProperty(
      fc.oneof(
        fc.array(piece, { maxLength: 25 }).map((pieces) => bytes(pieces.join(''))),
        fc.uint8Array({ maxLength: 60 }),
        fc.anyText(60).map(bytes),
      ),
      async (content) => {
        const found = await readFile(content);
        if (!found.ok) expect(found.reason).toMatch(/\S/);
        reached.count('read', found.ok);
        reached.count('refused', !found.ok);
      },
    ),
    { numRuns: 1500 },
  );
  reached.expectShare('read', 0.1);
  reached.expectShare('refused', 0.1);
});
