import { candidates, readRow, stationsOf, type RegisterRow } from '@/core/directory';
import { ternP2 } from '@/core/models/tern-p2';
import { levelOf } from './camera';
import { marksOf, shapeOf } from './marks';

const row = (n: number, lat: number, lon: number, output = '145.6125'): RegisterRow => ({
  ref: `RR-${n}`,
  call: '',
  site: `Site ${n}`,
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: output,
  input_mhz: '',
  access: '',
  mode: 'FM',
  lat,
  lon,
  height_m: 50,
  on_air: true,
  constant: false,
  updated: '2026-01-01',
});
const stations = (rows: RegisterRow[]) =>
  candidates(
    stationsOf(
      rows.map((one) => {
        const read = readRow(one);
        if (!read.ok) throw new Error(read.reason);
        return { source: 'relay-register', entry: read.value, asked: '' };
      }),
    ),
    { kind: 'around', point: { lat: 52, lon: -30 } },
    ternP2,
    null,
  );
const WORLD: [number, number, number, number] = [-180, -85, 180, 85];

test('what stands close is one mark with a number, and comes apart nearer', () => {
  // 0.01 degrees apart, and one far away; at level 6 a degree is 64 x 256 / 360 = 45 px
  const marks = marksOf(stations([row(1, 52, -30), row(2, 52.01, -30), row(3, 53, -28)]));
  const far = marks.in(WORLD, 6);
  expect(far.map((mark) => (mark.kind === 'many' ? mark.n : 1)).sort()).toEqual([1, 2]);
  const many = far.find((mark) => mark.kind === 'many')!;
  if (many.kind !== 'many') throw new Error('none');
  expect(marks.of(many.id)).toHaveLength(2);
  const apart = marks.in(WORLD, marks.apartAt(many.id));
  expect(apart).toHaveLength(3);
  expect(apart.every((mark) => mark.kind === 'one')).toBe(true);
});

test('no station is lost, however near one looks, and only what is in sight is given', () => {
  const list = stations(
    Array.from({ length: 300 }, (_, n) => row(n, 51 + (n % 17) / 10, -31 + Math.floor(n / 17) / 10)),
  );
  const marks = marksOf(list);
  for (const k of [800, 6_000, 50_000, 400_000]) {
    const seen = marks.in(WORLD, levelOf({ x: 0, y: 0, k }));
    expect(seen.reduce((n, mark) => n + (mark.kind === 'many' ? mark.n : 1), 0)).toBe(300);
  }
  expect(marks.in([0, 0, 1, 1], 8)).toEqual([]);
});

test('bands have shapes; what is no amateur band is a cross', () => {
  const of = (output: string) => shapeOf(stations([row(1, 52, -30, output)])[0]!);
  expect(['145.600', '433.500', '1297.000', '29.650', '162.400'].map(of)).toEqual([
    'disc',
    'square',
    'diamond',
    'triangle',
    'cross',
  ]);
});
