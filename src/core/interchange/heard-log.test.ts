import { channel, id } from '../samples.test.kit';
import { parseMoment, readHeardLog } from '.';

const source = { directory: 'register', entry: 'a', service: 'amateur', call: 'Q7UL', place: 'Ullsmere' };
const channels = [
  channel(1, 145_612_500, { name: 'Ullsmere Hill', source }),
  channel(2, 145_612_500, { name: 'Ullsmere Hill 2' }),
  channel(3, 433_500_000, { name: 'Calling' }),
];

test.each([
  ['2026-11-20 14:03', 0, '2026-11-20T14:03:00.000Z'],
  ['2026-11-20T14:03:07Z', 60, '2026-11-20T14:03:07.000Z'],
  ['20.11.2026 14:03', 0, '2026-11-20T14:03:00.000Z'],
  // an hour before UTC, by the zone or by the clock of who keeps it
  ['2026-11-20 14:03+01:00', 0, '2026-11-20T13:03:00.000Z'],
  ['2026/11/20 14:03', -60, '2026-11-20T13:03:00.000Z'],
  ['2026-02-30 14:03', 0, null],
  ['2026-02-29 14:03', 0, null],
  ['2028-02-29 14:03', 0, '2028-02-29T14:03:00.000Z'],
  // the clock of who keeps it says nothing where there is a zone
  ['2026-11-20 14:03-0230', 60, '2026-11-20T16:33:00.000Z'],
  ['2026-11-20 14:03 UTC', 60, '2026-11-20T14:03:00.000Z'],
  ['2026-11-01 23:59:59', 0, '2026-11-01T23:59:59.000Z'],
  ['2026-11-30 14:03', 0, '2026-11-30T14:03:00.000Z'],
  ['2026-11-00 14:03', 0, null],
  ['2026-11-31 14:03', 0, null],
  ['2026-11-20 14:60', 0, null],
  ['2026-11-20 14:03:60', 0, null],
  ['2026-13-01 14:03', 0, null],
  ['2026-11-20 24:03', 0, null],
  ['2026-11-20', 0, null],
  ['14:03', 0, null],
])('%s', (text, offset, at) => expect(parseMoment(text, offset)).toBe(at === null ? null : Date.parse(at)));

test('by frequency, by name, by call, with day and time in one column or in two', () => {
  const read = readHeardLog(
    [
      'When,Freq,Who',
      '2026-11-20 14:03,433.500,',
      '2026-11-20 14:05,145.6125,Ullsmere Hill',
      '2026-11-20 14:06,,calling',
      '2026-11-20 14:07,,Q7UL',
      '2026-11-20 14:08,"145,6125",somebody',
      'yesterday,433.500,',
      '2026-11-20 14:09,434.000,nobody',
    ].join('\n'),
    channels,
  );
  if (!read.ok) throw new Error(read.reason);
  const at = (minute: string) => Date.parse(`2026-11-20T14:${minute}:00.000Z`);
  expect(read.value.heard).toEqual([
    { channel: id(3), at: at('03') },
    { channel: id(1), at: at('05') },
    { channel: id(3), at: at('06') },
    { channel: id(1), at: at('07') },
    { channel: id(1), at: at('08') },
    { channel: id(2), at: at('08') },
  ]);
  expect(read.value.refused).toMatchObject([
    { line: 7, reason: expect.stringMatching(/no day and time/) as string },
    { line: 8, reason: expect.stringMatching(/is in this plan/) as string },
  ]);
  expect(readHeardLog('2026-11-20;14:03;433,5\n2026-11-21;9:15;433,5', channels)).toMatchObject({
    value: { heard: [{ at: at('03') }, { at: Date.parse('2026-11-21T09:15:00.000Z') }] },
  });
});

test('what is no log says so', () => {
  expect(readHeardLog('', channels)).toMatchObject({ ok: false });
  expect(readHeardLog('time,freq', channels)).toMatchObject({ ok: false });
});
