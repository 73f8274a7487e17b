import * as fc from '../property.test.kit';
import {
  readLedgerRow,
  sameStation,
  stationKey,
  stationsOf,
  type Entry,
  type Known,
  type LedgerRow,
} from '.';

const row: LedgerRow = {
  number: 'IL/1007',
  licensee: 'Isles Rescue',
  use: 'dispatch, Ketterby',
  class: 'public safety',
  area: 'Ullsmere',
  base_khz: 168_012.5,
  mobile_khz: 173_012.5,
  signalling: 'D023N',
  emission: 'NFM',
  position: [52.06, -29.84],
  mast_m: 40,
  encrypted: true,
  in_service: true,
  since: '2024-03-01',
};
const entry = (changes: Partial<Entry> = {}, of: Partial<LedgerRow> = {}): Entry => {
  const read = readLedgerRow({ ...row, ...of });
  if (!read.ok) throw new Error(read.reason);
  return { ...read.value, ...changes };
};
const known = (source: string, one: Entry): Known => ({
  source,
  entry: one,
  asked: '2026-11-27T12:00:00.000Z',
});

test('a row of the ledger is read: kHz become Hz, what is encrypted is marked', () => {
  expect(entry()).toMatchObject({
    ref: 'IL/1007',
    site: 'Isles Rescue dispatch, Ketterby',
    service: 'public safety',
    output: 168_012_500,
    input: 173_012_500,
    access: { send: { kind: 'code', code: 23 } },
    encrypted: true,
    onAir: true,
  });
  expect(entry({}, { mobile_khz: null, signalling: '' })).toMatchObject({ input: null });
  // 8.33 kHz spacing: 132.00833 MHz are written as 132008.33
  expect(entry({}, { base_khz: 132_008.33, mobile_khz: null }).output).toBe(132_008_330);
});

test.each([
  [{ emission: 'QQ' }, 'IL/1007: the mode QQ is not known'],
  [{ signalling: 'x' }, /^IL\/1007: /],
  [{ base_khz: 168_012.503 }, /whole number of ten Hz/],
  [{ base_khz: '168' }, /^base_khz: /],
  [{ position: [91, 0] }, /^position\.0: /],
  [{ class: 'taxi' }, /^class: /],
])('a bad row of the ledger is refused, saying where: %j', (changes, reason) => {
  expect(readLedgerRow({ ...row, ...changes })).toMatchObject({
    ok: false,
    reason: expect.stringMatching(reason) as string,
  });
});

test('the same station of two sources is one, as it was written last, with what the other says otherwise', () => {
  const newer = entry({ ref: 'RR-1', updated: '2026-01-01', encrypted: false, lat: 52.065 });
  const stations = stationsOf([known('isles-ledger', entry()), known('relay-register', newer)]);
  expect(stations).toEqual([
    {
      ...known('relay-register', newer),
      also: [{ source: 'isles-ledger', ref: 'IL/1007', differs: ['encrypted'] }],
    },
  ]);
});

test.each<[string, Partial<Entry>, boolean]>([
  ['as it is', {}, true],
  // 0.026 degrees of latitude are 2.9 km, 0.028 are 3.1
  ['2.9 km away', { lat: 52.086 }, true],
  ['3.1 km away', { lat: 52.088 }, false],
  ['far away without a call', { lat: 53 }, false],
  ['on another output', { output: 168_025_000 }, false],
  ['with another input', { input: 173_025_000 }, false],
  ['with another tone', { access: { kind: 'analogue', send: null, expect: null } }, true],
])('one station: %s', (_, changes, same) => expect(sameStation(entry(), entry(changes))).toBe(same));

test('under one call a station may be written elsewhere; what sends where it receives is the same without an input', () => {
  expect(sameStation(entry({ call: 'Q7ABC' }), entry({ call: 'Q7ABC', lat: 53 }))).toBe(true);
  expect(sameStation(entry({ input: null }), entry({ input: 168_012_500 }))).toBe(true);
});

test('of any entries none is lost and none doubled, and one source’s are never taken together', () => {
  const some = fc.record({
    ref: fc.integer({ min: 0, max: 30 }).map((n) => `E${n}`),
    output: fc.constantFrom(145_600_000, 145_612_500, 433_500_000),
    lat: fc.constantFrom(52, 52.01, 53),
    updated: fc.constantFrom('2025-01-01', '2026-01-01'),
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(fc.constantFrom('a', 'b', 'c'), some), {
        selector: ([source, { ref }]) => `${source} ${ref}`,
        maxLength: 40,
      }),
      (list) => {
        const all = list.map(([source, changes]) => known(source, entry({ ...changes, input: null })));
        const stations = stationsOf(all);
        const keys = stations.flatMap((one) => [
          stationKey(one),
          ...one.also.map(({ source, ref }) => `${source} ${ref}`),
        ]);
        expect([...keys].sort()).toEqual(all.map(stationKey).sort());
        for (const { source, also } of stations)
          expect(new Set([source, ...also.map((other) => other.source)]).size).toBe(also.length + 1);
      },
    ),
  );
});
