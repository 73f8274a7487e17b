import { ternP2 } from '../models/tern-p2';
import { channel, plan } from '../samples.test.kit';
import {
  candidates,
  filterStations,
  firstOf,
  inStationOrder,
  readRow,
  readStationWishes,
  stationsOf,
  type RegisterRow,
} from '.';

const RULES = { region: 'orrin' as const };
const row = (ref: string, changes: Partial<RegisterRow>): RegisterRow => ({
  ref,
  call: 'Q7KET',
  site: 'Ketterby Quay',
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: '145.6125',
  input_mhz: '145.0125',
  access: '',
  mode: 'FM',
  lat: 52,
  lon: -30,
  height_m: 120,
  on_air: true,
  constant: false,
  updated: '2026-05-01',
  ...changes,
});
const list = candidates(
  stationsOf(
    [
      row('a', { site: 'Hill 10', access: '88.5', lat: 52.1 }),
      row('b', { site: 'Hill 9', output_mhz: '430.8875', input_mhz: '438.4875', mode: 'NFM', lat: 52.2 }),
      row('c', { site: 'Weather', service: 'weather', output_mhz: '162.400', input_mhz: '', lat: 52.3 }),
      row('d', { on_air: false, output_mhz: '145.700', input_mhz: '145.100', lat: 52.4 }),
      row('e', { mode: 'DMR', access: 'CC1 TS1', output_mhz: '439.050', input_mhz: '431.450', lat: 52.5 }),
    ].map((one) => {
      const read = readRow(one);
      if (!read.ok) throw new Error(read.reason);
      return { source: 'relay-register', entry: read.value, asked: '' };
    }),
  ),
  { kind: 'around', point: { lat: 52, lon: -30 } },
  ternP2,
  plan([channel(4, 430_887_500, { tx: 438_487_500, mode: 'NFM' })]),
);
const refs = (found: typeof list) => found.map(({ entry }) => entry.ref).join('');

test.each([
  ['', 'abcde'],
  ['2 m', 'ad'],
  ['70cm -dmr', 'b'],
  ['off air', 'd'],
  ['on the air', 'abce'],
  ['weather', 'c'],
  ['listen', 'c'],
  ['tone', 'a'],
  ['hill', 'ab'],
  ['in the plan', 'b'],
  ['unfit', 'e'],
  ['not unfit amateur', 'abd'],
  ['encrypted', ''],
  ['ullsmere rx>400', 'be'],
])('%s', (typed, found) => {
  expect(refs(filterStations(list, readStationWishes(typed, RULES), RULES))).toBe(found);
});

test('in other orders, names as people count', () => {
  expect(refs(inStationOrder(list, { by: 'station', down: false }))).toBe('badec');
  expect(refs(inStationOrder(list, { by: 'receive', down: true }))).toBe('ebcda');
  expect(refs(inStationOrder(list, { by: 'distance', down: false }))).toBe('abcde');
  expect(refs(inStationOrder(list, { by: 'along', down: true }))).toBe('edcba');
});

test('the nearest of all, and of each band; what is there already or of no use is not counted', () => {
  const band = ({ entry }: (typeof list)[number]) => (entry.output < 200_000_000 ? 'low' : 'high');
  expect(refs(firstOf(list, 2, false, band))).toBe('ac');
  expect(refs(firstOf(list, 1, true, band))).toBe('a');
  expect(refs(firstOf(list, 9, true, band))).toBe('acd');
});
