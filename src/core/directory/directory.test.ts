import { channel, plan } from '../samples.test.kit';
import { ternP2 } from '../models/tern-p2';
import { candidates, channelOf, readRow, stationsOf, whyNot, type Entry, type RegisterRow } from '.';

const row: RegisterRow = {
  ref: 'RR-1',
  call: 'Q7KET',
  site: 'Ketterby Quay',
  island: 'Ullsmere',
  service: 'amateur',
  output_mhz: '430.8875',
  input_mhz: '438.4875',
  access: 'D023N',
  mode: 'NFM',
  lat: 52.06,
  lon: -29.84,
  height_m: 120,
  on_air: true,
  constant: false,
  updated: '2026-05-01',
};
const entry = (changes: Partial<RegisterRow> = {}): Entry => {
  const read = readRow({ ...row, ...changes });
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

test('a row is read: texts in MHz become Hz, access becomes a value', () => {
  expect(entry()).toMatchObject({
    output: 430_887_500,
    input: 438_487_500,
    access: { send: { kind: 'code', code: 23, inverted: false } },
  });
  expect(entry({ input_mhz: '', access: '' })).toMatchObject({
    input: null,
    access: { send: null, expect: null },
  });
});

test.each([
  [{ output_mhz: 'four' }, /RR-1: .*not a frequency/],
  [{ input_mhz: 'deaf' }, /RR-1: .*not a frequency/],
  [{ access: '88.5/x' }, /RR-1: .*not a tone/],
  [{ mode: 'QQ' }, /RR-1: the mode QQ/],
  [{ lat: 200 }, /lat/],
])('a bad row is refused, saying where: %j', (changes, reason) =>
  expect(readRow({ ...row, ...changes })).toMatchObject({ ok: false, reason: expect.stringMatching(reason) }),
);

test('what the radio cannot do is said', () => {
  expect(whyNot(entry(), ternP2)).toBeUndefined();
  expect(whyNot(entry({ output_mhz: '51.510', input_mhz: '51.010' }), ternP2)).toBe('does not tune 51.510');
  expect(whyNot(entry({ mode: 'DMR', access: 'CC1 TS1' }), ternP2)).toBe('has no DMR');
  expect(whyNot(entry({ access: '88.4' }), ternP2)).toBe('has no 88.4');
  expect(whyNot(entry({ output_mhz: '145.503', input_mhz: '145.100' }), ternP2)).toBe(
    'has no step for 145.503',
  );
  expect(whyNot(entry({ output_mhz: '145.700', input_mhz: '145.103' }), ternP2)).toBe(
    'has no step for 145.103',
  );
  // of several the gravest is said: where the mode is not understood, nobody asks for the band or the step
  expect(
    whyNot(entry({ output_mhz: '51.510', input_mhz: '51.010', mode: 'DMR', access: 'CC1 TS1' }), ternP2),
  ).toBe('has no DMR');
  expect(
    whyNot(entry({ output_mhz: '145.503', input_mhz: '145.100', mode: 'DMR', access: 'CC1 TS1' }), ternP2),
  ).toBe('has no DMR');
  expect(
    whyNot(entry({ output_mhz: '162.400', input_mhz: '', access: '', service: 'weather' }), ternP2),
  ).toBeUndefined();
});

test('weather, marine, air and rescue are placed as listen only, broadcasts outside the scan', () => {
  const made = (changes: Partial<RegisterRow>) =>
    channelOf(entry(changes), 'relay-register', '{name}', 'orrin', 4000);
  expect(made({ service: 'marine', output_mhz: '156.800', input_mhz: '156.800' })).toMatchObject({
    ok: true,
    value: { tx: null },
  });
  expect(made({ service: 'weather', output_mhz: '162.400', input_mhz: '', constant: true })).toMatchObject({
    value: { tx: null, scan: false, alwaysOn: true },
  });
  expect(made({})).toMatchObject({
    value: {
      name: 'Ketterby Quay',
      tx: 438_487_500,
      txFixed: false,
      scan: true,
      source: { entry: 'RR-1', call: 'Q7KET' },
    },
  });
  expect(channelOf(entry(), 'relay-register', '{call}-{city:3}', 'orrin', 4000)).toMatchObject({
    value: { name: 'Q7KET-Ket' },
  });
  expect(channelOf(entry(), 'relay-register', '{what}', 'orrin', 4000)).toMatchObject({ ok: false });
});

const around = { kind: 'around' as const, point: { lat: 52.06, lon: -29.84 } };
const known = (...entries: Entry[]) =>
  stationsOf(
    entries.map((one) => ({ source: 'relay-register', entry: one, asked: '2026-11-27T12:00:00.000Z' })),
  );

test('candidates come nearest first, with bearing, and know what the plan has', () => {
  const near = entry({
    ref: 'RR-2',
    lat: 52.07,
    output_mhz: '145.6125',
    input_mhz: '145.0125',
    access: '88.5',
    mode: 'FM',
  });
  const same = entry({ ref: 'RR-3', lat: 53 });
  const other = entry({ ref: 'RR-4', lat: 51, access: '77.0' });
  const p = plan([channel(4, 430_887_500, { tx: 438_487_500, mode: 'NFM', access: same.access })]);
  const list = candidates(known(other, same, near), around, ternP2, p);
  expect(list.map((c) => [c.entry.ref, Math.round(c.distance), c.wind, c.present])).toEqual([
    ['RR-2', 1, 'N', null],
    ['RR-3', 105, 'N', { slot: 4, near: false }], // 0.94 degrees of 111.195 km
    ['RR-4', 118, 'S', { slot: 4, near: true }], // 1.06 degrees
  ]);
  // without a plan nothing is present
  const bare = candidates(known(other, same, near), around, ternP2, null);
  expect(bare.map(({ present }) => present)).toEqual([null, null, null]);
});

test('along a route they come in the order of travel, with what has been travelled', () => {
  // east along 52 N for two degrees, then north for one; one degree of latitude is 111.195 km, of longitude there 68.5
  const route = {
    kind: 'along' as const,
    places: [
      { lat: 52, lon: -30 },
      { lat: 52, lon: -28 },
      { lat: 53, lon: -28 },
    ],
  };
  const at = (ref: string, lat: number, lon: number) => entry({ ref, lat, lon });
  const list = candidates(
    known(at('late', 52.5, -28), at('soon', 52.1, -29.5), at('before', 52, -30.5), at('mid', 51.8, -28.5)),
    route,
    ternP2,
    null,
  );
  expect(list.map(({ entry: { ref } }) => ref)).toEqual(['before', 'soon', 'mid', 'late']);
  expect(list[0]!.along).toBe(0);
  expect(list[0]!.distance).toBeCloseTo(34.2, 1); // half a degree of longitude there
  expect(list[3]!.along).toBeCloseTo(136.9 + 55.6, 0);
  expect(list[3]!.distance).toBeCloseTo(0, 1);
});
