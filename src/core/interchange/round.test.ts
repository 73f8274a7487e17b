import * as fc from '../property.test.kit';
import { strFromU8, unzipSync } from 'fflate';
import { applyEdit, makeId, type Channel, type Plan } from '../plan';
import { digital, groupId, receiveId } from '../digital.test.kit';
import { anyPlan, channel, everything, plan } from '../samples.test.kit';
import { placeInSlots } from '../table';
import { channelsIn, lossesOf, OUT_FORMATS, planOf, readFile, writeChannels, type OutFormat } from '.';

/** What goes out comes in again as it was, for every format; what a format cannot hold, it says. */

let ids = 0;
const newId = () =>
  makeId(
    'ch',
    Uint8Array.from({ length: 12 }, (_, n) => (n < 8 ? 7 : (ids++ >> (n - 8)) % 251)),
  );
const context = { region: 'orrin' as const };
const RANGE = { first: 0, count: 400 };
const empty = { ...plan([]), modelId: everything.id };

async function fileOf(from: Plan, format: OutFormat): Promise<Uint8Array> {
  return format === 'json'
    ? new TextEncoder().encode(JSON.stringify(from))
    : writeChannels(format, from.channels, from.name);
}

/** The channels of a plan after they went out and were put into an empty one. */
async function again(from: Plan, format: OutFormat): Promise<readonly Channel[]> {
  const read = await readFile(await fileOf(from, format));
  if (!read.ok) throw new Error(`${format}: ${read.reason}`);
  const made = channelsIn(read.value, context, newId);
  expect({ format, odd: made.odd, refused: made.refused }).toEqual({ format, odd: [], refused: [] });
  if (made.channels.length === 0) return [];
  const { edit, over } = placeInSlots(empty, made.channels, made.slots, [
    { list: 0, range: RANGE },
    { list: 1, range: RANGE },
  ]);
  expect(over).toBe(0);
  const placed = applyEdit(empty, edit);
  if (!placed.ok) throw new Error(`${format}: ${placed.reason}`);
  return placed.value.channels;
}

/** What of a channel goes out: all but its id and the names fitted by hand, which `lossesOf` says. */
const content = ({ id: _, fitted: _fitted, tags, satellite, ...rest }: Channel) => ({
  ...rest,
  tags: tags ?? [],
  satellite: satellite ?? false,
});

// eslint-disable-next-line no-control-regex -- signs that XML does not hold
const XML_ODD = /[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g;
const throughXml = (text: string) => text.replace(/\r\n?/g, '\n').replace(XML_ODD, '');

const anySource: fc.Arbitrary<Channel['source']> = fc.oneof(
  fc.constant(null),
  fc
    .record(
      {
        directory: fc.constantFrom('relay-register', 'isles-ledger', 'file'),
        entry: fc.constantFrom('RR-0017', 'line 4', '=HYPERLINK("x")'),
        service: fc.constantFrom('amateur', 'weather', 'public safety', 'Own Words'),
        call: fc.constantFrom('Q7UL', 'Q8KT'),
        place: fc.constantFrom('Ullsmere Hill', '-Quay', "'=Harbour", '@Norrast, “north”; 2'),
        at: fc.record({
          lat: fc.double({ min: -90, max: 90, noNaN: true }),
          lon: fc.double({ min: -180, max: 180, noNaN: true }),
        }),
      },
      { requiredKeys: ['directory', 'entry', 'service'], noNullPrototype: true },
    )
    .map(({ at, ...rest }) => ({
      ...rest,
      ...(at && { lat: Math.round(at.lat * 1e6) / 1e6 + 0, lon: Math.round(at.lon * 1e6) / 1e6 + 0 }),
    })),
);
const anyNote = fc.constantFrom(
  '',
  'Opens at night',
  '=1+1',
  "'=1",
  'two\nlines',
  '+44',
  '\ttab',
  ' a; b, "c" ',
  '<b>&amp;</b>',
  '0012',
  '1e5',
);
const anyTags = fc.constantFrom<string[] | undefined>(undefined, ['ferry'], ['north', '=2', 'a b']);

const withMore = anyPlan.chain((made) =>
  fc
    .array(fc.tuple(anySource, anyNote, anyTags, fc.boolean(), fc.nat({ max: 1 })), {
      minLength: made.channels.length,
      maxLength: made.channels.length,
    })
    .map((more): Plan => ({
      ...made,
      channels: made.channels
        .map((one, at): Channel => {
          const [source, note, tags, satellite, list] = more[at]!;
          return { ...one, source, note, list, ...(tags && { tags }), ...(satellite && { satellite }) };
        })
        .sort((a, b) => a.list - b.list || a.slot - b.slot),
    })),
);

test.each(OUT_FORMATS)(
  'a plan that went out as %s comes in again, channel for channel and slot for slot',
  async (format) => {
    const reached = fc.tally();
    await fc.assert(
      fc.asyncProperty(withMore, async (from) => {
        // Tags in rows are parted by commas; GPX says that it leaves out what has no place.
        const sent =
          format === 'gpx' ? from.channels.filter(({ source }) => source?.lat !== undefined) : from.channels;
        fc.pre(sent.length > 0);
        const xml = format === 'gpx' || format === 'kml';
        const said = (text: string) => (xml ? throughXml(text) : text);
        const back = await again({ ...from, channels: sent }, format);
        const wanted = sent.map((one) => ({
          ...content(one),
          name: said(one.name).trim(),
          note: said(one.note),
        }));
        expect(back.map(content)).toEqual(wanted);
        reached.count(
          'station',
          sent.some(({ source }) => source !== null),
        );
        reached.count(
          'split',
          sent.some(({ txFixed }) => txFixed),
        );
        reached.count(
          'digital',
          sent.some(({ access }) => access.kind !== 'analogue'),
        );
      }),
      { numRuns: format === 'xlsx' ? 60 : 150 },
    );
    for (const kind of ['station', 'split', 'digital']) reached.expectShare(kind, 0.3);
  },
);

test.each(['toString', 'constructor', '__proto__', 'hasOwnProperty', '_x0041_', 'bell\x07', 'a\rb', '_x_'])(
  'a channel called %j is called so in every format',
  async (name) => {
    const source = { directory: 'd', entry: name, service: name, lat: 52, lon: -30 };
    const from = plan([channel(1, 145_500_000, { name, note: name, tags: ['toString'], source })]);
    for (const format of OUT_FORMATS) {
      const xml = format === 'gpx' || format === 'kml';
      const said = xml ? throughXml(name) : name;
      const [back] = await again(from, format);
      expect({ format, name: back!.name, note: back!.note, tags: back!.tags }).toEqual({
        ...{ format, name: said, note: said },
        tags: ['toString'],
      });
    }
  },
);

test('what a format cannot hold is said: a plan whole only in its own format', () => {
  const from: Plan = {
    ...plan([
      channel(1, 145_500_000, {
        source: { directory: 'd', entry: 'e', service: 'amateur', lat: 52, lon: -30 },
      }),
      channel(2, 145_525_000, { fitted: { 'tern-p2': 'CALL' }, note: 'bell \x07' }),
    ]),
    zones: [{ id: makeId('zn', new Uint8Array(12)), name: 'Weekend', members: [] }],
    settings: { 'tern-p2': { backlight: true } },
  };
  expect(lossesOf(from, 'json')).toEqual([]);
  expect(lossesOf(from, 'csv')).toEqual(['1 zone', 'settings', '1 name fitted by hand']);
  expect(lossesOf(from, 'gpx')).toEqual([
    '1 channel whose place nobody knows',
    '1 zone',
    'settings',
    '1 name fitted by hand',
    'signs that no XML holds, in 1 channel',
  ]);
});

test('no cell of a spreadsheet is a formula, and its numbers are numbers', async () => {
  const bytes = await writeChannels(
    'xlsx',
    plan([channel(3, 145_612_500, { tx: 145_012_500, name: '=1+1', note: '@sum' })]).channels,
    'A: plan / of [mine]',
  );
  const sheet = strFromU8(unzipSync(bytes)['xl/worksheets/sheet1.xml']!);
  expect(sheet).not.toMatch(/<f[ >/]/);
  expect(sheet).toMatch(/<v>145\.6125<\/v>/);
  expect(sheet).toMatch(/<v>145\.0125<\/v>/);
});

test('some of the channels go out as a plan without what leads to the others', () => {
  const two = plan([channel(1, 145_500_000), channel(2, 145_525_000)]);
  const [first, second] = two.channels.map(({ id }) => id) as [Channel['id'], Channel['id']];
  const zone = (n: number, members: Channel['id'][]) => ({
    id: makeId(
      'zn',
      Uint8Array.from({ length: 12 }, () => n),
    ),
    name: `Zone ${n}`,
    members,
  });
  const some = planOf({ ...two, zones: [zone(1, [first, second]), zone(2, [second])] }, new Set([first]));
  expect(some.channels.map(({ slot }) => slot)).toEqual([1]);
  expect(some.zones).toEqual([zone(1, [first])]);
});

test('of a digital plan it is named what rows of channels cannot hold', () => {
  const from = {
    ...plan([digital(1, { talkgroup: groupId(1), politeness: { to: 'impolite' } })]),
    talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
    receiveLists: [{ id: receiveId(1), name: 'Isles', members: [groupId(1)] }],
  };
  expect(lossesOf(from, 'csv')).toEqual(['1 talkgroup', '1 receive list', 'when 1 channel may send']);
  expect(lossesOf(from, 'json')).toEqual([]);
});
