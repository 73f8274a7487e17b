import * as fc from '../property.test.kit';
import writeExcelFile from 'write-excel-file/node';
import { peopleOfFile } from './from-file';
import type { Person } from './person.schema';

/** Files of people in other shapes than the roll: told apart by what is in them. */

const encode = (text: string) => new TextEncoder().encode(text);
const wenna: Person = {
  ...{ id: 1_000_001, call: 'Q7WND', first: 'Wenna', last: 'Daskow', town: 'Ketterby', area: 'Ullsmere' },
};
const torrin: Person = {
  ...{ id: 1_000_012, call: 'Q7TOR', first: 'Torrin', last: 'van Harrick', town: 'Tamsin Quay', area: '' },
};

test.each([
  [
    'commas',
    'Radio ID,Callsign,First name,Surname,City,State\n1000001,Q7WND,Wenna,Daskow,Ketterby,Ullsmere\n1000012,Q7TOR,Torrin,van Harrick,Tamsin Quay,\n',
  ],
  [
    'semicolons, one name',
    'Place;Name;Number;Call;Region\r\nKetterby;Wenna Daskow;1000001;q7wnd;Ullsmere\r\nTamsin Quay;Torrin van Harrick;1000012;Q7TOR;\r\n',
  ],
  [
    'tabs and quotes',
    'id\tcall\tname\ttown\tisland\tremark\n"1000001"\tQ7WND\t"Wenna Daskow"\tKetterby\tUllsmere\t"a, b"\n1000012\tQ7TOR\tTorrin van Harrick\tTamsin Quay\t\t\n',
  ],
  [
    'JSON, a list',
    JSON.stringify([
      { radio_id: 1000001, callsign: 'Q7WND', name: 'Wenna Daskow', city: 'Ketterby', state: 'Ullsmere' },
      { radio_id: '1000012', callsign: 'Q7TOR', name: 'Torrin van Harrick', city: 'Tamsin Quay' },
    ]),
  ],
  [
    'JSON, somewhere in it',
    JSON.stringify({
      made: 'today',
      answer: {
        users: [
          { id: 1000001, call: 'Q7WND', first: 'Wenna', last: 'Daskow', town: 'Ketterby', area: 'Ullsmere' },
          { id: 1000012, call: 'Q7TOR', first: 'Torrin', last: 'van Harrick', town: 'Tamsin Quay' },
        ],
      },
    }),
  ],
])('%s', async (_, text) => {
  expect(await peopleOfFile(encode(text))).toEqual({
    ok: true,
    value: { people: [wenna, torrin], odd: { count: 0, first: [] } },
  });
});

test('a spreadsheet', async () => {
  const sheet = await writeExcelFile([
    ['Number', 'Call', 'Name', 'Town', 'Island'].map((value) => ({ value })),
    [
      { value: 1_000_001 },
      { value: 'Q7WND' },
      { value: 'Wenna Daskow' },
      { value: 'Ketterby' },
      { value: 'Ullsmere' },
    ],
  ]).toBuffer();
  expect(await peopleOfFile(Uint8Array.from(sheet))).toMatchObject({ ok: true, value: { people: [wenna] } });
});

test('odd rows are told, counted and left out', async () => {
  const read = await peopleOfFile(
    encode('id,call\n1000001,Q7WND\n1000001,Q7XXX\nsomebody,Q7AAA\n,Q7BBB\n16777215,Q7CCC\n'),
  );
  expect(read.ok && read.value.people.map(({ call }) => call)).toEqual(['Q7WND']);
  expect(read.ok && read.value.odd).toEqual({
    count: 4,
    first: [
      { row: 2, reason: '1000001 stands there twice; its first row was taken.' },
      { row: 3, reason: 'Its number is no whole number.' },
      { row: 4, reason: 'Its number is missing.' },
      { row: 5, reason: '16777215 is no number of a person: they run from 1 to 16776415.' },
    ],
  });
});

test.each([
  ['no headings', '1000001,Q7WND,Wenna\n', 'No column is a number of people'],
  ['half a JSON', '[{"id": 1000001, "call": "Q7', 'damaged or cut off'],
  ['another JSON', '{"a": {"b": 3}}', 'no list of people'],
  ['a picture', '\u0089PNG\u0000\u0000', ''],
  ['nothing', '', 'The file is empty.'],
])('%s is refused in words', async (_, text, reason) => {
  const read = await peopleOfFile(encode(text));
  expect(read.ok).toBe(false);
  expect(!read.ok && read.reason).toContain(reason);
});

test('whatever the names are, a number keeps its own', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.uniqueArray(fc.integer({ min: 1, max: 16_776_415 }), { minLength: 1, maxLength: 20 }),
      fc.constantFrom(',', ';', '\t'),
      fc.boolean(),
      async (ids, delimiter, json) => {
        const rows = ids.map((id) => ({ id, call: `C${id}`, name: `Of ${id}; "quoted"` }));
        const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
        const text = json
          ? JSON.stringify({ people: rows })
          : ['id', 'call', 'name'].join(delimiter) +
            rows.map((row) => `\n${[String(row.id), row.call, quoted(row.name)].join(delimiter)}`).join('');
        const read = await peopleOfFile(encode(text));
        expect(read.ok && read.value.people.map(({ id, call, last }) => [id, call, last])).toEqual(
          ids.map((id) => [id, `C${id}`, `${id}; "quoted"`]),
        );
      },
    ),
    { numRuns: 60 },
  );
});
