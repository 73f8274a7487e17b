import * as fc from '../property.test.kit';
import Papa from 'papaparse';
import type { Channel } from '../plan';
import { channel } from '../samples.test.kit';
import { armed, writeCsv } from '.';

const tone = { kind: 'analogue' as const, send: { kind: 'tone' as const, tone: 885 }, expect: null };
const sample = [
  channel(3, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500, access: tone }),
  channel(4, 162_400_000, {
    name: 'Weather, "north"',
    tx: null,
    scan: false,
    alwaysOn: true,
    note: 'line one\nline two',
  }),
];
const csvOf = (channels: Channel[]) => writeCsv(channels).replace(/^\ufeff/, '');

test('a spreadsheet reads every channel back: commas, quotes and lines within cells too', () => {
  const { data, errors } = Papa.parse<Record<string, string>>(csvOf(sample), { header: true });
  expect(errors).toEqual([]);
  expect(data).toEqual([
    {
      Slot: '3',
      Name: 'Ullsmere Hill',
      'Receive MHz': '145.6125',
      'Transmit MHz': '145.0125',
      Access: '88.5',
      Mode: 'FM',
      'Power W': '4',
      Scan: 'yes',
      Note: '',
      'Always on': '',
      'Own transmit': 'no',
    },
    {
      Slot: '4',
      Name: 'Weather, "north"',
      'Receive MHz': '162.400',
      'Transmit MHz': 'listen only',
      Access: 'open',
      Mode: 'FM',
      'Power W': '4',
      Scan: 'no',
      Note: 'line one\nline two',
      'Always on': 'yes',
      'Own transmit': 'no',
    },
  ]);
});

test.each([
  '=1+1',
  '+1',
  '-1',
  '@x',
  '\tx',
  '=1\n+2',
  ' =1',
  '\u200b=1',
  '\u00a0@x',
  '＝1+1',
  '－1',
  '＋1',
  '＠x',
  '−1',
  '⁺1',
])('the cell %j is no formula', (note) => {
  const csv = csvOf([channel(1, 145_500_000, { note })]);
  expect(Papa.parse<Record<string, string>>(csv, { header: true }).data[0]!.Note).toBe(`'${note}`);
});

// ⩴ is written ::= where it is taken apart: the first sign of it is what a program looks at
test.each(['Ketterby', '⩴1', '1+1', '"=1"', 'a\n=1', "'x", '…'])('the cell %j stays as it is', (note) => {
  const csv = csvOf([channel(1, 145_500_000, { note })]);
  expect(Papa.parse<Record<string, string>>(csv, { header: true }).data[0]!.Note).toBe(note);
});

// Every character that NFKC makes = + - or @ begin with (Unicode 16), and the two that it makes a minus sign.
const SIGNS = '+-=@⁺⁼₊₌⩵⩶﬩﹢﹣﹦﹫＋－＝＠−⁻₋';
const anySign = fc.constantFrom(...SIGNS);
const anyBlank = fc.constantFrom(
  '',
  ' ',
  '\t',
  '\n',
  '\r\n',
  '\u00a0',
  '\u200b',
  '\ufeff',
  '\u3000',
  '\u0301',
);
const anyCell = fc.oneof(
  fc.tuple(anyBlank, anySign, fc.anyText()).map((parts) => parts.join('')),
  fc.tuple(anySign, fc.constantFrom('1+1\n', 'cmd|x!A0', '2\r\n=3')).map((parts) => parts.join('')),
  fc.anyText(),
);

test('one that looks defused already is defused once more, so that both come back', () => {
  for (const text of ['=1', "'=1", "''=1", "'x"])
    expect(armed(Papa.parse<string[]>(csvOf([channel(1, 145_500_000, { name: text })])).data[1]![1]!)).toBe(
      text,
    );
  expect(csvOf([channel(1, 145_500_000, { name: "'=1" })])).toContain("''=1");
});

test('whatever a text is, no cell begins with what runs, and nothing of the text is lost', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anyCell, anyCell, (name, note) => {
      const csv = csvOf([channel(1, 145_500_000, { name, note })]);
      const [row] = Papa.parse<Record<string, string>>(csv, { header: true }).data;
      for (const [cell, was] of [
        [row!.Name!, name],
        [row!.Note ?? '', note],
      ] as const) {
        const shown = [...cell].find((sign) => /[^\s\p{C}\p{Z}\p{M}]/u.test(sign)) ?? '';
        expect(SIGNS.includes(shown) && shown !== '').toBe(false);
        expect(cell === was || cell === `'${was}`).toBe(true);
        expect(armed(cell)).toBe(was);
        reached.count('defused', cell !== was);
      }
    }),
    { numRuns: 500 },
  );
  reached.expectShare('defused', 0.5);
});
