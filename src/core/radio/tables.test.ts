import {
  ADDITIONS,
  ALLOCATIONS,
  BAND_PLANS,
  CITIZENS_27,
  CITIZENS_477,
  CODES,
  DISTRESS,
  distressAt,
  FAMILY_462,
  FAMILY_467,
  FREE_446,
  isCalling,
  MARINE_CHANNELS,
  marineChannel,
  MODE_TRAITS,
  MULTI_151,
  MULTI_154,
  REGIONS,
  STEPS,
  TONES,
  USUAL_SHIFTS,
  type Addition,
} from '.';

/**
 * Every table a second time, written down from the published figures and not from the code: in MHz, Hz and watts as people
 * write them, a row a line. A figure that is moved in one of the two is found.
 */

const lines = (table: string) => table.trim().split(/\s*\n\s*/);
const hz = (mhz: string) => Math.round(Number(mhz) * 1e6);

// Band; edges in MHz; W for Entry and for Full (- where the grade may not send); modes where not any.
const ORRIN = `
  160 m     1.81      2.0       -     400   CW LSB USB
  80 m      3.5       3.8       10    400   CW LSB USB
  60 m      5.3515    5.3665    -     15    CW LSB USB
  40 m      7.0       7.2       10    400   CW LSB USB
  30 m      10.1      10.15     -     100   CW
  20 m      14.0      14.35     10    400   CW LSB USB
  17 m      18.068    18.168    -     400   CW LSB USB
  15 m      21.0      21.45     10    400   CW LSB USB
  12 m      24.89     24.99     -     400   CW LSB USB
  10 m      28.0      29.7      10    400
  6 m       50.0      52.0      10    100
  2 m       144.0     144.4     10    100   CW LSB USB
  2 m       144.4     146.0     10    100
  1.25 m    222.0     225.0     -     50
  70 cm     430.0     440.0     10    100
  23 cm     1240      1300      -     25`;
// Others of the Orrin table: service, edges in MHz.
const ORRIN_OTHERS = `
  air            117.975   137
  marine         156.0     162.05
  weather        162.375   162.575
  public safety  168.0     169.0
  public safety  410.0     412.0
  licence-free   446.0     446.2
  business       450.0     470.0`;

// ITU Radio Regulations (2020), Article 5, amateur service: edges in MHz by region (- where it has no such band), and the limit
// in W that the table sets, else 1500.
const ITU = `
  2200 m   0.1357-0.1378    0.1357-0.1378    0.1357-0.1378    1     1     1
  630 m    0.472-0.479      0.472-0.479      0.472-0.479      1     1     1
  160 m    1.81-1.85        1.8-2            1.8-2            1500  1500  1500
  80 m     3.5-3.8          3.5-4            3.5-3.9          1500  1500  1500
  60 m     5.3515-5.3665    5.3515-5.3665    5.3515-5.3665    15    15    15
  40 m     7-7.2            7-7.3            7-7.2            1500  1500  1500
  30 m     10.1-10.15       10.1-10.15       10.1-10.15       1500  1500  1500
  20 m     14-14.35         14-14.35         14-14.35         1500  1500  1500
  17 m     18.068-18.168    18.068-18.168    18.068-18.168    1500  1500  1500
  15 m     21-21.45         21-21.45         21-21.45         1500  1500  1500
  12 m     24.89-24.99      24.89-24.99      24.89-24.99      1500  1500  1500
  10 m     28-29.7          28-29.7          28-29.7          1500  1500  1500
  6 m      50-52            50-54            50-54            1500  1500  1500
  2 m      144-146          144-148          144-148          1500  1500  1500
  1.25 m   -                220-225          -                -     1500  -
  70 cm    430-440          430-440          430-440          1500  1500  1500
  33 cm    -                902-928          -                -     1500  -
  23 cm    1240-1300        1240-1300        1240-1300        1500  1500  1500
  13 cm    2300-2450        2300-2450        2300-2450        1500  1500  1500
  9 cm     -                3300-3500        3300-3500        -     1500  1500
  6 cm     5650-5850        5650-5925        5650-5850        1500  1500  1500
  3 cm     10000-10500      10000-10500      10000-10500      1500  1500  1500
  1.2 cm   24000-24250      24000-24250      24000-24250      1500  1500  1500
  6 mm     47000-47200      47000-47200      47000-47200      1500  1500  1500
  4 mm     76000-81000      76000-81000      76000-81000      1500  1500  1500
  2.5 mm   122250-123000    122250-123000    122250-123000    1500  1500  1500
  2 mm     134000-141000    134000-141000    134000-141000    1500  1500  1500
  1 mm     241000-250000    241000-250000    241000-250000    1500  1500  1500`;

/** The amateur rows of a region, as the second writing has them. */
const rowsOf = (region: (typeof REGIONS)[number]) =>
  ALLOCATIONS[region]
    .filter(({ service }) => service === 'amateur')
    .map(({ band, from, to, power, modes }) => ({ band, from, to, power, modes: modes && [...modes].sort() }))
    .sort((a, b) => a.from - b.from);

test('the Orrin allocations, row by row', () => {
  const rows = lines(ORRIN).map((line) => {
    const [band, from, to, entry, full, modes] = line.split(/ {2,}/);
    const power = { full: Number(full) * 1000, ...(entry !== '-' && { entry: Number(entry) * 1000 }) };
    return { band, from: hz(from!), to: hz(to!), power, modes: modes?.split(' ').sort() };
  });
  expect(rowsOf('orrin')).toEqual(rows);
  const others = ALLOCATIONS.orrin.filter(({ service }) => service !== 'amateur');
  expect(others.map(({ service, from, to }) => [service, from, to])).toEqual(
    lines(ORRIN_OTHERS).map((line) => {
      const [service, from, to] = line.split(/ {2,}/);
      return [service, hz(from!), hz(to!)];
    }),
  );
  // half a watt for everybody in the licence-free band, nothing for anybody in the others
  for (const { service, power, modes } of others) {
    const free = service === 'licence-free';
    expect(power).toEqual(free ? { none: 500, entry: 500, full: 500 } : {});
    expect(modes).toEqual(free ? ['NFM', 'DMR'] : undefined);
  }
});

test.each([
  ['itu1', 1],
  ['itu2', 2],
  ['itu3', 3],
] as const)('the amateur bands of %s, row by row', (region, column) => {
  const rows = lines(ITU).flatMap((line) => {
    const cells = line.split(/ {2,}/);
    if (cells[column] === '-') return [];
    const [from, to] = cells[column]!.split('-');
    const watts = Number(cells[column + 3]) * 1000;
    return [
      {
        band: cells[0],
        from: hz(from!),
        to: hz(to!),
        power: { entry: watts, full: watts },
        modes: undefined,
      },
    ];
  });
  expect(rowsOf(region)).toEqual(rows);
  expect(ALLOCATIONS[region]).toHaveLength(rows.length);
});

// Band; repeater outputs from and to, and the shift, in MHz. Orrin: the Orrin Spectrum Office.
const SHIFTS = {
  orrin: `
    10 m    29.6     29.7     -0.1
    6 m     51.3     51.99    -0.5
    2 m     145.6    145.8    -0.6
    1.25 m  223.85   225      -1.6
    70 cm   430.4    431.2    +7.6
    70 cm   433.0    433.4    +1.6
    70 cm   438.65   439.45   -7.6
    23 cm   1297     1298     -6`,
  itu1: `
    10 m    29.61    29.7     -0.1
    6 m     51.81    51.99    -0.6
    2 m     145.575  145.7935 -0.6
    70 cm   433.0    433.4    +1.6
    70 cm   438.2    438.525  -7.6
    70 cm   438.65   439.425  -7.6
    23 cm   1297     1297.475 -6`,
  itu2: `
    10 m    29.61    29.7     -0.1
    6 m     51.62    51.98    -0.5
    6 m     52.5     52.98    -0.5
    6 m     53.5     53.98    -0.5
    2 m     145.2    145.5    -0.6
    2 m     146.61   146.995  -0.6
    2 m     147.0    147.39   +0.6
    1.25 m  223.85   225      -1.6
    70 cm   442      445      +5
    70 cm   447      450      -5
    33 cm   927      928      -25
    23 cm   1282     1288     -12`,
  itu3: `
    10 m    29.61    29.7     -0.1
    6 m     53       54       -1
    2 m     146.6    147.0    -0.6
    2 m     147.005  147.4    +0.6
    70 cm   438      439.999  -5
    23 cm   1273     1274     +20`,
} as const;

test.each(REGIONS)('the usual shifts of %s, row by row', (region) =>
  expect(USUAL_SHIFTS[region]).toEqual(
    lines(SHIFTS[region]).map((line) => {
      const [, band, from, to, shift] = /^(\S+ \S+) +(\S+) +(\S+) +(\S+)$/.exec(line)!;
      return { band, from: hz(from!), to: hz(to!), shift: hz(shift!) };
    }),
  ),
);

test('the CTCSS tones, Hz', () =>
  expect(TONES.map((tenths) => (tenths / 10).toFixed(1)).join(' ')).toBe(
    '67.0 69.3 71.9 74.4 77.0 79.7 82.5 85.4 88.5 91.5 94.8 97.4 100.0 103.5 107.2 110.9 114.8 118.8 123.0 127.3 ' +
      '131.8 136.5 141.3 146.2 151.4 156.7 159.8 162.2 165.5 167.9 171.3 173.8 177.3 179.9 183.5 186.2 189.9 192.8 ' +
      '196.6 199.5 203.5 206.5 210.7 218.1 225.7 229.1 233.6 241.8 250.3 254.1',
  ));

test('the DCS codes, octal, by their first figure', () => {
  const written: Record<string, string> = {
    0: '23 25 26 31 32 36 43 47 51 53 54 65 71 72 73 74',
    1: '14 15 16 22 25 31 32 34 43 45 52 55 56 62 65 72 74',
    2: '05 12 23 25 26 43 44 45 46 51 52 55 61 63 65 66 71 74',
    3: '06 11 15 25 31 32 43 46 51 56 64 65 71',
    4: '11 12 13 23 31 32 45 46 52 54 55 62 64 65 66',
    5: '03 06 16 23 26 32 46 65',
    6: '06 12 24 27 31 32 54 62 64',
    7: '03 12 23 31 32 34 43 54',
  };
  const all = Object.entries(written).flatMap(([first, rest]) =>
    rest.split(' ').map((figures) => Number(first + figures)),
  );
  expect(all).toHaveLength(104);
  expect(CODES).toEqual(all);
});

test('the steps, kHz, and the widths of the modes, kHz', () => {
  expect(STEPS.map((step) => (step === '8.33' ? step : String(step / 1000))).join(' ')).toBe(
    '0.01 5 6.25 8.33 10 12.5 15 20 25 50 100',
  );
  expect(Object.entries(MODE_TRAITS).map(([mode, { width }]) => `${mode} ${width / 1000}`)).toEqual([
    'FM 16',
    'NFM 11',
    'AM 8',
    'LSB 3',
    'USB 3',
    'CW 0.5',
    'DMR 12.5',
    'P25 12.5',
    'C4FM 12.5',
    'NXDN 6.25',
  ]);
});

// What some countries have beyond their region: id, regions, then an allocation a line: edges in MHz, W, modes where not any.
const ADDITIONAL = `
  rr-5.96       1     1.85-2                 10
  rr-5.169      1     50-54                  1500
  rr-5.270      2 3   420-430                1500
  rr-5.270      2 3   440-450                1500
  rr-5.133b-20  2     5.3515-5.3665          20
  rr-5.133b-25  2     5.3515-5.3665          25
  free-446      1     446-446.2              0.5   DMR NFM
  free-27-ecc   1     26.96-27.41            4     AM FM NFM
  free-27-ecc   1     26.96-27.41            12    LSB USB
  free-462      2     462.54375-462.73125    2     NFM
  free-462      2     467.55625-467.71875    0.5   NFM
  free-151      2     151.8144-151.9456      2     NFM
  free-151      2     154.56-154.61          2     FM NFM
  free-27-cfr   2     26.96-27.41            4     AM FM NFM
  free-27-cfr   2     26.96-27.41            12    LSB USB
  free-477      3     476.41875-477.41875    5     NFM`;

test('what countries have beyond their region, row by row; what is licence-free is so for everybody', () => {
  const rows = (ADDITIONS as readonly Addition[]).flatMap(({ id, regions, allocations }) =>
    allocations.map(({ from, to, power, modes, service }) => {
      expect(power.entry).toBe(power.full);
      expect(power.none).toBe(service === 'licence-free' ? power.full : undefined);
      expect(service).toBe(id.startsWith('free') ? 'licence-free' : 'amateur');
      return [
        id,
        regions.map((region) => region.slice(3)).join(' '),
        from,
        to,
        power.full,
        modes?.toSorted().join(' '),
      ];
    }),
  );
  expect(rows).toEqual(
    lines(ADDITIONAL).map((line) => {
      const [id, regions, span, watts, modes] = line.split(/ {2,}/);
      const [from, to] = span!.split('-').map(hz);
      return [id, regions, from, to, Number(watts) * 1000, modes];
    }),
  );
});

// Appendix 18: number, ship and coast in MHz; those of one frequency have one. A sample of every row of the published table's kinds.
test('marine channels: one frequency or a pair 4.6 MHz apart', () => {
  const known: Record<number, string> = {
    1: '156.050 160.650',
    6: '156.300',
    13: '156.650',
    16: '156.800',
    17: '156.850',
    18: '156.900 161.500',
    22: '157.100 161.700',
    28: '157.400 162.000',
    60: '156.025 160.625',
    66: '156.325 160.925',
    67: '156.375',
    70: '156.525',
    77: '156.875',
    78: '156.925 161.525',
    86: '157.325 161.925',
    88: '157.425',
  };
  for (const [number, text] of Object.entries(known)) {
    const [ship, coast = ship] = text.split(' ');
    const channel = MARINE_CHANNELS.find((one) => one.number === Number(number));
    expect(channel).toEqual({ number: Number(number), ship: hz(ship!), coast: hz(coast!) });
  }
  expect(MARINE_CHANNELS).toHaveLength(57);
  expect(MARINE_CHANNELS.filter(({ ship, coast }) => ship === coast)).toHaveLength(24);
  expect(marineChannel(161_700_000, 157_100_000)?.number).toBe(22);
  expect(marineChannel(157_100_000, 161_700_000)?.number).toBe(22);
  expect(marineChannel(156_800_000, 156_800_000)?.number).toBe(16);
  expect(marineChannel(161_700_000, 157_050_000)).toBeUndefined();
});

test('distress, calling and emergency, MHz', () => {
  const said = (service: string) =>
    DISTRESS.filter((one) => one.service === service).map(({ from, to }) => [from, to].map((f) => f / 1e6));
  expect(
    said('sea')
      .map(([from]) => from)
      .join(' '),
  ).toBe(
    '2.1745 2.182 2.1875 4.125 4.1775 4.2075 6.215 6.268 6.312 8.291 8.3765 8.4145 12.29 12.52 12.577 16.42 16.695 16.8045 ' +
      '156.3 156.525 156.65 156.8 161.975 162.025',
  );
  expect(
    said('air')
      .map(([from]) => from)
      .join(' '),
  ).toBe('3.023 5.68 121.5 123.1 123.45 243');
  expect(said('beacons')).toEqual([[406, 406.1]]);
  // FM takes 8 kHz to each side, and so does the receiver there: 156.784 touches 156.792, 156.783 does not
  expect(distressAt(156_784_100, 'FM')?.purpose).toContain('channel 16');
  expect(distressAt(156_783_900, 'FM')).toBeUndefined();
  // a sideband reaches to its own side only: 2.1805 with 3 kHz above it covers 2.182, below it does not
  expect(distressAt(2_180_000, 'USB')?.purpose).toContain('voice');
  expect(distressAt(2_180_000, 'LSB')).toBeUndefined();
  expect(distressAt(406_050_000, 'NFM')?.service).toBe('beacons');
});

// Narrow parts and satellite parts in MHz, FM calling channels.
test('parts of the bands, and calling channels', () => {
  const parts: Record<(typeof REGIONS)[number], string> = {
    orrin: '28-29 50-50.4 432-432.5',
    itu1: '28-29 50-50.4 144-144.491 432-432.49',
    itu2: '28-29 50-50.3 144-144.3 432-432.4',
    itu3: '28-29 50-50.1 144-144.035 431.9-432.24',
  };
  const calling: Record<(typeof REGIONS)[number], string> = {
    orrin: '29.6 51.51 145.5 433.5',
    itu1: '29.6 51.51 145.5 433.5',
    itu2: '29.6 52.525 146.52 223.5 446',
    itu3: '29.6',
  };
  for (const region of REGIONS) {
    const said = (use: string) =>
      BAND_PLANS[region].parts
        .filter((part) => part.use === use)
        .map(({ from, to }) => `${from / 1e6}-${to / 1e6}`);
    expect(said('narrow').join(' ')).toBe(`0.1357-25 ${parts[region]}`);
    expect(said('satellite').join(' ')).toBe('29.3-29.51 145.8-146 435-438');
    for (const mhz of calling[region].split(' ')) {
      expect(isCalling(hz(mhz), 'FM', region)).toBe(true);
      expect(isCalling(hz(mhz), 'USB', region)).toBe(false);
    }
    expect(isCalling(145_525_000, 'FM', region)).toBe(false);
  }
  expect(isCalling(145_500_000, 'FM', 'itu2')).toBe(false);
});

test('licence-free channels, MHz: how many, the first and the last, and 23 to 25 of the citizens’ band in their odd order', () => {
  const ends = (channels: readonly number[]) => [channels.length, channels[0]! / 1e6, channels.at(-1)! / 1e6];
  expect(ends(FREE_446)).toEqual([16, 446.00625, 446.19375]);
  expect(ends(FAMILY_462)).toEqual([15, 462.5625, 462.725]);
  expect(FAMILY_462[6]! / 1e6).toBe(462.7125);
  expect(FAMILY_462[7]! / 1e6).toBe(462.55);
  expect(ends(FAMILY_467)).toEqual([7, 467.5625, 467.7125]);
  expect(ends(CITIZENS_477)).toEqual([80, 476.425, 477.4125]);
  expect(MULTI_151.map((hz) => hz / 1e6)).toEqual([151.82, 151.88, 151.94]);
  expect(MULTI_154.map((hz) => hz / 1e6)).toEqual([154.57, 154.6]);
  expect(ends(CITIZENS_27)).toEqual([40, 26.965, 27.405]);
  expect(CITIZENS_27.slice(22, 26).map((hz) => hz / 1e6)).toEqual([27.255, 27.235, 27.245, 27.265]);
  expect(CITIZENS_27.every((hz) => hz % 10_000 === 5_000)).toBe(true);
  // the five that were never given
  for (const mhz of [26.995, 27.045, 27.095, 27.145, 27.195])
    expect(CITIZENS_27).not.toContain(hz(String(mhz)));
  expect(new Set(CITIZENS_27).size).toBe(40);
});
