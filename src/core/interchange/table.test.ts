import * as fc from '../property.test.kit';
import { makeId } from '../plan';

import { newRows, rowsByMeaning } from '../table';
import { delimiterOf, DELIMITERS, readTable, rowsOfTable, TABLE_LIMITS, type Delimiter } from '.';

const read = (text: string) => {
  const table = readTable(text);
  if (!table.ok) throw new Error(table.reason);
  return table.value;
};
const context = { region: 'orrin' as const };
let made = 0;
const channelsOf = (text: string) => {
  const { meanings, rows, lines } = read(text);
  return newRows(
    rowsByMeaning(meanings, rows, (row) => lines[row]!),
    context,
    () =>
      makeId(
        'ch',
        Uint8Array.from({ length: 12 }, (_, at) => (at === 0 ? made++ % 256 : (made >> 8) % 256)),
      ),
  );
};

test.each([
  ['Name,Output,Input\nHill,145.6125,145.0125', ',', ['name', 'rx', 'tx']],
  ['Name;Output;Offset\nHill;145,6125;-0,6\nMoor;145,7;-0,6', ';', ['name', 'rx', 'shift']],
  ['145,6125;-0,6;Hill\n145,7;-0,6;Moor', ';', ['rx', 'shift', 'name']],
  ['Hill\t145.6125\t88.5\tFM\nMoor\t433.5\t\tNFM', '\t', ['name', 'rx', 'access', 'mode']],
  ['145.6125|145.0125|Q7ABC|Ullsmere Hill', '|', ['rx', 'tx', 'call', 'name']],
  [
    'Callsign,Frequency,Shift direction,Offset,CTCSS\nQ7ABC,145.6125,minus,0.6,88.5',
    ',',
    ['call', 'rx', 'direction', 'shift', 'access'],
  ],
  [
    'Station;Freq;Lat;Lon;Grid square\nA;145.6;52.06;-29.84;HO52bb',
    ';',
    ['name', 'rx', 'lat', 'lon', 'locator'],
  ],
])('%j', (text, delimiter, meanings) => {
  expect(read(text)).toMatchObject({ delimiter, meanings });
});

test('shift with and without a sign, a direction, tones as send and both, decimal commas: all are the same channel', () => {
  const wanted = { rx: 145_612_500, tx: 145_012_500, access: { send: { kind: 'tone', tone: 885 } } };
  for (const text of [
    'Name;Receive;Transmit;Tone\nHill;145,6125;145,0125;88,5',
    'Name;Receive;Offset;Tone\nHill;145,6125;-0,6;88,5',
    'Name,Frequency,Direction,Offset,Send tone\nHill,145.6125,-,0.600,88.5',
    'Repeater\tOutput MHz\tInput MHz\tCTCSS\nHill\t145.6125\t145.0125\t88.5',
    'Name,Frequency,Shift direction,Tone\nHill,145.6125 MHz,minus,88.5 Hz',
  ]) {
    const { channels, refused, odd } = channelsOf(text);
    expect([refused, odd]).toEqual([[], []]);
    expect(channels).toMatchObject([{ name: 'Hill', ...wanted }]);
  }
});

test('a row that cannot be read is said with its line, and keeps no other out; cells over several lines count', () => {
  const { channels, refused, odd } = channelsOf(
    'Name,Receive,Note,Tone\nHill,145.6125,"two\nlines",88.5\n\nBad,one four five,,\nMoor,145.7,,88.4x\n',
  );
  expect(channels.map(({ name, note }) => [name, note])).toEqual([
    ['Hill', 'two\nlines'],
    ['Moor', ''],
  ]);
  expect(refused).toMatchObject([{ line: 5, text: expect.stringContaining('one four five') as string }]);
  // The last line without an end of its own: there are as many ends as rows, one of them within a cell.
  expect(readTable('Name,Receive\n"two\nlines",145.6\nBad,x')).toMatchObject({ value: { lines: [2, 4] } });
  expect(odd).toMatchObject([{ column: 'access', text: '88.4x' }]);
});

test('what is no table is refused with where and why', () => {
  const wide = Array.from({ length: TABLE_LIMITS.columns + 1 }, () => 'x').join(',');
  expect(readTable(`a,b\n${wide}`)).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^Line 2 has 201 cells/) as string,
  });
  const long = `a,b\n1,"${'x'.repeat(TABLE_LIMITS.cell + 1)}`;
  expect(readTable(long)).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^Line 2, cell 2 has 10001/) as string,
  });
  expect(readTable('\n \n')).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/empty lines/) as string,
  });
  const many = read(`a,b\n${'1,2\n'.repeat(TABLE_LIMITS.rows + 5)}`);
  expect([many.rows.length, many.beyond]).toEqual([TABLE_LIMITS.rows, 6]);
  // a line of 5 MB is one cell
  expect(readTable('x'.repeat(5_000_000))).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/^Line 1, cell 1 has 5000000 characters/) as string,
  });
});

test('a file of any dialect is read as what it says', () => {
  const reached = fc.tally();
  const station = fc.record({
    name: fc.constantFrom(
      'Ullsmere Hill',
      'Moor, the northern',
      'Bay; old',
      'Farrow "Point"',
      'Strand\tEast',
    ),
    hz: fc.integer({ min: 0, max: 159 }).map((n) => 144_000_000 + n * 12_500),
    tone: fc.constantFrom('', '88.5', '100.0', 'D023N'),
    mode: fc.constantFrom('FM', 'NFM'),
  });
  fc.assert(
    fc.property(
      fc.array(station, { minLength: 2, maxLength: 12 }),
      fc.constantFrom(...(Object.keys(DELIMITERS) as Delimiter[])),
      fc.boolean(),
      fc.constantFrom('\n', '\r\n'),
      fc.shuffledSubarray(['name', 'rx', 'access', 'mode'], { minLength: 4 }),
      (list, delimiter, comma, end, order) => {
        const heads: Record<string, string> = {
          name: 'Station',
          rx: 'Frequency',
          access: 'Tone',
          mode: 'Mode',
        };
        const quoted = (cell: string) => (/["\t;|,]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
        const decimal = (text: string) => (comma ? text.replace('.', ',') : text);
        const text = [
          order.map((field) => heads[field]!),
          ...list.map(({ name, hz, tone, mode }) =>
            order.map(
              (field) => ({ name, rx: decimal((hz / 1e6).toFixed(4)), access: decimal(tone), mode })[field]!,
            ),
          ),
        ]
          .map((row) => row.map(quoted).join(delimiter))
          .join(end);
        expect(delimiterOf(text)).toBe(delimiter);
        const { channels, refused } = channelsOf(text);
        expect(refused).toEqual([]);
        expect(channels.map(({ name, rx, mode }) => [name, rx, mode])).toEqual(
          list.map(({ name, hz, mode }) => [name.replace('\t', ' '), hz, mode]),
        );
        reached.count('comma in numbers between commas', comma && delimiter === ',');
      },
    ),
    // One in eight is such a file: of three hundred fewer than one in twenty-five never are.
    { numRuns: 300 },
  );
  reached.expectShare('comma in numbers between commas', 0.04);
});

test.each(['\n', '\r\n', '\r'])(
  'lines that end in %j are told apart, whatever ends stand within quotes',
  (end) => {
    const other = end === '\n' ? '\r' : '\n';
    const text = [
      'Name,Receive,Note',
      `Hill,145.6,"one${other}two${other}three${other}four${other}five${other}six"`,
      'Moor,145.7,x',
    ].join(end);
    const read = readTable(text);
    if (!read.ok) throw new Error(read.reason);
    expect(read.value.rows.map((row) => row.slice(0, 2))).toEqual([
      ['Hill', '145.6'],
      ['Moor', '145.7'],
    ]);
    expect(read.value.rows[0]![2]).toBe(['one', 'two', 'three', 'four', 'five', 'six'].join(other));
  },
);

test('rows that begin with nothing, and lines in which nothing stands, keep no line from its number', () => {
  const read = readTable('Name,Receive\nA,145.6\n,145.7\n,\n\nB,145.8\n\n,145.9\nC,146');
  expect(read).toMatchObject({
    value: {
      lines: [2, 3, 6, 8, 9],
      rows: [
        ['A', '145.6'],
        ['', '145.7'],
        ['B', '145.8'],
        ['', '145.9'],
        ['C', '146'],
      ],
    },
  });
});

test('a long table is read by stretches: no row is lost or parted where one ends, and each knows its line', () => {
  // 40,000 rows of about 30 characters, two lines each: a stretch of 500,000 ends within quotes more than once.
  const rows = Array.from({ length: 40_000 }, (_, n) => `Row ${n},145.${500 + (n % 400)},"over\ntwo ${n}"`);
  const shares: number[] = [];
  const read = readTable(['Name,Receive,Note', ...rows].join('\r\n'), ',', (share) => shares.push(share));
  if (!read.ok) throw new Error(read.reason);
  const { rows: found, lines } = read.value;
  expect(found).toHaveLength(40_000);
  expect(found.every(([name, , note], n) => name === `Row ${n}` && note === `over\ntwo ${n}`)).toBe(true);
  expect(lines.every((line, n) => line === 2 + 2 * n)).toBe(true);
  expect(shares.length).toBeGreaterThan(2);
  expect(shares.at(-1)).toBe(1);
});

test('beyond as many channels as are wanted rows are read all the same, and counted', () => {
  const read = readTable(`Name,Receive,Tone\n${'A,145.5,88.5\n'.repeat(3)}B,x,\nC,145.6,loud\n`);
  if (!read.ok) throw new Error(read.reason);
  let ids = 0;
  const made = newRows(
    rowsOfTable(read.value),
    { region: 'orrin' },
    () => makeId('ch', new Uint8Array(12).fill(ids++)),
    2,
  );
  expect([made.channels.length, made.beyond]).toEqual([2, 2]);
  expect(made.refused).toMatchObject([{ line: 5 }]);
  expect(made.odd).toMatchObject([{ column: 'access', text: 'loud' }]);
});
