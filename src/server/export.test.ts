import Papa from 'papaparse';
import { channel, plan } from '../core/samples.test.kit';
import { fileName, planCsv } from './export';

const tone = { kind: 'analogue' as const, send: { kind: 'tone' as const, tone: 885 }, expect: null };
const sample = plan([
  channel(3, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500, access: tone }),
  channel(4, 162_400_000, {
    name: 'Weather, "north"',
    tx: null,
    scan: false,
    alwaysOn: true,
    note: 'line one\nline two',
  }),
]);

test('a spreadsheet reads every channel back: commas, quotes and lines within cells too', () => {
  const { data, errors } = Papa.parse<Record<string, string>>(planCsv(sample), { header: true });
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
      'Always on': 'no',
      Station: '',
      Note: '',
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
      'Always on': 'yes',
      Station: '',
      Note: 'line one\nline two',
    },
  ]);
});

test.each(['=1+1', '+1', '-1', '@x', '\tx'])('the cell %j is no formula', (name) => {
  const csv = planCsv(plan([channel(1, 145_500_000, { name })]));
  expect(Papa.parse<Record<string, string>>(csv, { header: true }).data[0]!.Name).toBe(`'${name}`);
});

test.each([
  ['Ketterby weekend', 'ketterby-weekend.csv'],
  ['../../etc/passwd', 'etc-passwd.csv'],
  ['Höhe "9"', 'ho-he-9.csv'],
  ['…', 'plan.csv'],
])('the plan “%s” is exported as %s', (name, file) =>
  expect(fileName({ ...plan([]), name }, 'csv')).toBe(file),
);
