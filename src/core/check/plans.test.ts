import { ketterbyWeekend } from '../../../demo';
import { channel, everything, plan } from '../samples.test.kit';
import { parseAccess, parseFrequency, type Mode } from '../radio';
import type { ChannelFields, ChannelId, Plan } from '../plan';
import { ternP2 } from '../models/tern-p2';
import { check, type Neighbour } from '.';

/**
 * Whole plans as people have them, with exactly what somebody who knows the trade would say of each channel, and no more. A
 * row is: what is received and sent in MHz (`x` listens only), access, mode, W, and the findings that are wanted.
 */
type Row = [
  name: string,
  rx: string,
  tx: string,
  access: string,
  mode: Mode,
  watts: number,
  wanted: string,
  more?: Partial<ChannelFields>,
];

const hz = (mhz: string) => {
  const read = parseFrequency(`${mhz} MHz`);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

function planOf(rows: Row[], owner: Partial<Plan['owner']>): Plan {
  return plan(
    rows.map(([name, rx, tx, access, mode, watts, , more], slot) => {
      const opens = parseAccess(access);
      if (!opens.ok) throw new Error(opens.reason);
      return channel(slot, hz(rx), {
        name,
        tx: tx === 'x' ? null : tx === '' ? hz(rx) : hz(tx),
        access: opens.value,
        mode,
        power: watts * 1000,
        ...more,
      });
    }),
    owner,
  );
}

function expectFindings(rows: Row[], owner: Partial<Plan['owner']>, neighbours: Neighbour[] = []) {
  const p = planOf(rows, owner);
  const found = check(p, everything, undefined, neighbours);
  const said = p.channels.map(({ id, name }) => [
    name,
    found
      .filter((finding) => finding.id === id)
      .map(({ severity, rule }) => `${severity} ${rule}`)
      .join(', '),
  ]);
  expect(said).toEqual(rows.map(([name, , , , , , wanted]) => [name, wanted]));
}

const SATELLITE = { satellite: true, txFixed: true };
const BROADCAST = { alwaysOn: true, scan: false };

const REGION_1: Row[] = [
  ['Calling', '145.500', '', '', 'FM', 50, ''],
  ['Calling, tone', '433.500', '', '/88.5', 'FM', 5, 'caution tone-on-calling'],
  ['Ullsmere Hill', '145.6125', '145.0125', '88.5', 'FM', 50, ''],
  ['Ketterby', '438.2125', '430.6125', 'D023N', 'NFM', 5, ''],
  ['Farrow Point', '433.100', '434.700', '77.0', 'FM', 5, ''],
  ['Hestin 6 m', '51.930', '51.330', '77.0', 'FM', 15, ''],
  ['Quill 10 m', '29.650', '29.550', '', 'FM', 15, ''],
  ['Norrast DMR', '439.400', '431.800', 'CC1 TS1', 'DMR', 5, ''],
  ['DMR simplex', '433.450', '', '', 'DMR', 5, 'caution digital-without-access'],
  ['Sideband', '144.300', '', '', 'USB', 50, ''],
  ['FM among it', '144.250', '', '', 'FM', 50, 'hint wide-in-narrow'],
  ['60 m', '5.355', '', '', 'USB', 15, ''],
  ['60 m, too much', '5.360', '', '', 'USB', 100, 'caution power-above-licence'],
  ['20 m, FM', '14.250', '', '', 'FM', 50, 'hint wide-in-narrow'],
  ['Band edge', '145.995', '', '', 'FM', 5, 'caution outside-licence, caution satellite-downlink'],
  ['Marine 16', '156.800', 'x', '', 'FM', 5, ''],
  ['Marine 16, key', '156.800', '', '', 'FM', 5, 'stop distress-channel'],
  ['Marine 22', '161.700', '157.100', '', 'FM', 5, 'caution outside-licence'],
  ['Tower', '118.105', 'x', '', 'AM', 5, ''],
  ['Tower, FM', '118.130', 'x', '', 'FM', 5, 'caution fm-in-airband'],
  ['Licence-free', '446.00625', '', '', 'NFM', 0.5, ''],
  ['Licence-free +', '446.01875', '', '', 'NFM', 5, 'caution power-above-licence'],
  ['OR-1', '436.800', '145.850', '', 'FM', 50, '', SATELLITE],
  ['Simplex there', '145.925', '', '', 'FM', 5, 'caution satellite-downlink'],
  ['On its output', '145.6125', '', '', 'FM', 5, 'caution over-repeater'],
  ['Beside it', '145.600', '', '', 'FM', 5, 'caution over-repeater'],
  ['On its input', '145.0125', '', '', 'FM', 5, 'caution over-repeater'],
  ['Wrong shift', '145.725', '145.225', '', 'FM', 5, 'caution odd-shift'],
  ['Wrong way', '145.150', '145.750', '', 'FM', 5, 'caution odd-shift'],
];

test('a plan of region 1', () => expectFindings(REGION_1, { region: 'itu1', additions: ['free-446'] }));

test('a plan of region 2: what is above 440 MHz belongs to those who have No. 5.270, strictly guarded', () => {
  const rows: Row[] = [
    ['Calling', '146.520', '', '', 'FM', 50, ''],
    ['Calling 70 cm', '446.000', '', '', 'FM', 50, ''],
    ['Calling, tone', '52.525', '', '100.0', 'FM', 50, 'caution tone-on-calling'],
    ['Down', '146.940', '146.340', '100.0', 'FM', 50, ''],
    ['Up', '147.060', '147.660', '', 'FM', 50, ''],
    ['Up 70 cm', '444.100', '449.100', '127.3', 'FM', 25, ''],
    ['Down 70 cm', '449.225', '444.225', '', 'FM', 25, ''],
    ['6 m', '53.550', '53.050', '', 'FM', 50, ''],
    ['6 m low', '52.810', '52.310', '', 'FM', 50, ''],
    ['1.25 m', '223.940', '222.340', '', 'FM', 25, ''],
    ['33 cm', '927.5125', '902.5125', '', 'FM', 5, ''],
    ['P25', '444.300', '449.300', 'NAC 293', 'P25', 25, ''],
    ['Weather', '162.550', 'x', '', 'FM', 5, '', BROADCAST],
    ['Marine 16', '156.800', 'x', '', 'FM', 5, ''],
    ['Family', '462.5625', '', '', 'NFM', 2, ''],
    ['Family low', '467.5625', '', '', 'NFM', 2, 'stop power-above-licence'],
    ['40 m', '7.255', '', '', 'LSB', 100, ''],
    ['Above the band', '148.000', '', '', 'FM', 50, 'stop outside-licence'],
    ['OR-2', '435.350', '145.990', '', 'FM', 50, '', SATELLITE],
  ];
  const own = { region: 'itu2', strict: true } as const;
  expectFindings(rows, { ...own, additions: ['rr-5.270', 'free-462'] });
  // The common table of the region ends at 440 MHz, and has no family radio.
  const without = rows.map((row): Row => {
    const outside = ['Calling 70 cm', 'Up 70 cm', 'Down 70 cm', 'P25', 'Family', 'Family low'].includes(
      row[0],
    );
    return outside ? ([...row.slice(0, 6), 'stop outside-licence'] as unknown as Row) : row;
  });
  expectFindings(without, own);
});

test('a plan of region 3', () =>
  expectFindings(
    [
      ['2 m down', '146.700', '146.100', '91.5', 'FM', 50, ''],
      ['2 m up', '147.100', '147.700', '', 'FM', 50, ''],
      ['70 cm', '438.525', '433.525', '91.5', 'FM', 25, ''],
      ['70 cm, other', '439.500', '434.200', '', 'FM', 25, 'caution odd-shift'],
      ['6 m', '53.650', '52.650', '', 'FM', 50, ''],
      ['C4FM', '145.350', '', '', 'C4FM', 25, ''],
      ['Channel 1', '476.425', '', '', 'NFM', 5, ''],
      ['Marine 13, key', '156.650', '', '', 'FM', 5, 'stop distress-channel'],
      ['Aircraft', '121.500', 'x', '', 'AM', 5, ''],
      ['Aircraft, key', '121.500', '', '', 'AM', 5, 'stop distress-channel'],
      ['80 m', '3.750', '', '', 'LSB', 100, ''],
    ],
    { region: 'itu3', additions: ['free-477'] },
  ));

test('a ship’s plan: its channels, pairs and calling channel are its own, those of aircraft are not', () =>
  expectFindings(
    [
      ['16', '156.800', '', '', 'FM', 25, ''],
      ['13', '156.650', '', '', 'FM', 25, ''],
      ['22', '161.700', '157.100', '', 'FM', 25, ''],
      ['28', '162.000', '157.400', '', 'FM', 25, ''],
      ['72', '156.625', '', '', 'FM', 25, ''],
      ['Not marine', '158.500', '', '', 'FM', 25, 'caution outside-licence'],
      ['Aircraft', '121.500', '', '', 'AM', 5, 'stop distress-channel'],
    ],
    { region: 'itu1', grade: 'none', marine: true },
  ));

test('the demo’s plan says what it is there to show, and nothing else', () => {
  const demo = ketterbyWeekend();
  const slots = new Map(demo.channels.map(({ id, slot }) => [id, slot]));
  const found = check(demo, ternP2).map(
    ({ severity, rule, id }) => `${String(slots.get(id as ChannelId)).padStart(3, '0')} ${severity} ${rule}`,
  );
  expect(found.sort()).toEqual(
    [
      // 110.8 Hz is no tone of the list: 110.9 is
      '008 stop tone-not-held',
      // 145.275 is half a megahertz down, where repeaters listen 0.6 down
      '010 caution odd-shift',
      // six weather channels that could be keyed, where a Tern does not send; one of them stops the scan for good
      ...[12, 13, 14, 15, 16, 17].map((slot) => `0${slot} caution out-of-range`),
      '015 hint always-on-in-scan',
      // the lowest power of a Tern is 1 W, where half a watt is allowed
      '024 caution power-above-licence',
    ].sort(),
  );
});
