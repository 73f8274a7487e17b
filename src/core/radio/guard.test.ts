import { ALLOCATIONS, mayTransmit, type Grade, type Mode, type Region } from '.';

const ask = (hz: number, mode: Mode = 'FM', grade: Grade = 'full', region: Region = 'orrin') =>
  mayTransmit({ hz, mode, grade, region });

describe('the licence guard', () => {
  test('allows the amateur bands with their power', () => {
    expect(ask(145_500_000)).toMatchObject({ verdict: 'allowed', limit: 100_000 });
    expect(ask(145_500_000, 'FM', 'entry')).toMatchObject({ verdict: 'allowed', limit: 10_000 });
  });
  test('counts the width of the mode: FM takes 8 kHz to each side', () => {
    expect(ask(145_992_000)).toMatchObject({ verdict: 'allowed' });
    expect(ask(145_992_500)).toMatchObject({ verdict: 'edge', reason: expect.stringContaining('146.000') });
    expect(ask(145_994_000, 'NFM')).toMatchObject({ verdict: 'allowed' });
    // 144.397 to 144.413: the part for FM begins at 144.400
    expect(ask(144_405_000)).toMatchObject({
      verdict: 'edge',
      reason: expect.stringContaining('below 144.400'),
    });
    expect(ask(144_300_000)).toMatchObject({ verdict: 'mode' });
    // just past the end of the band: the edge is why, not that nobody is there
    expect(ask(146_005_000)).toMatchObject({ verdict: 'edge', reason: expect.stringContaining('146.000') });
    expect(ask(146_010_000)).toMatchObject({ verdict: 'outside' });
  });
  test('a sideband takes its own side only', () => {
    expect(ask(14_347_000, 'USB')).toMatchObject({ verdict: 'allowed' });
    expect(ask(14_348_000, 'USB')).toMatchObject({ verdict: 'edge' });
    expect(ask(14_348_000, 'LSB')).toMatchObject({ verdict: 'allowed' });
    expect(ask(14_001_000, 'LSB')).toMatchObject({ verdict: 'edge' });
  });
  test('says which grade is wanted, which mode, whose band', () => {
    expect(ask(223_500_000, 'FM', 'entry')).toMatchObject({
      verdict: 'grade',
      reason: expect.stringContaining('Full'),
    });
    expect(ask(14_200_000, 'FM')).toMatchObject({ verdict: 'mode' });
    expect(ask(156_800_000)).toMatchObject({ verdict: 'outside', reason: expect.stringContaining('marine') });
    expect(ask(300_000_000)).toMatchObject({ verdict: 'outside' });
  });
  test('without a licence only the licence-free band is open, with half a watt', () => {
    expect(ask(446_006_250, 'NFM', 'none')).toMatchObject({ verdict: 'allowed', limit: 500 });
    expect(ask(145_500_000, 'FM', 'none')).toMatchObject({ verdict: 'grade' });
  });
});

describe('what a country has beyond its region', () => {
  const at = (
    hz: number,
    additions: string[],
    region: Region = 'itu2',
    mode: Mode = 'FM',
    grade: Grade = 'full',
  ) => mayTransmit({ hz, mode, grade, region, additions });
  test('70 cm from 420 to 450 by No. 5.270, over its whole width', () => {
    expect(at(444_000_000, []).verdict).toBe('outside');
    expect(at(444_000_000, ['rr-5.270'])).toMatchObject({
      verdict: 'allowed',
      source: { title: expect.stringContaining('5.270') },
    });
    expect(at(440_000_000, ['rr-5.270']).verdict).toBe('allowed'); // over the seam of the two
    expect(at(449_995_000, ['rr-5.270']).verdict).toBe('edge');
    expect(at(444_000_000, ['rr-5.270'], 'itu3').verdict).toBe('allowed');
    expect(at(444_000_000, ['rr-5.270'], 'itu1').verdict).toBe('outside'); // not one of region 1
  });
  test('60 m: 15 W in every region, 20 or 25 by No. 5.133B', () => {
    const limit = (additions: string[], region: Region = 'itu2') => at(5_357_000, additions, region, 'USB');
    for (const region of ['itu1', 'itu2', 'itu3'] as const)
      expect(limit([], region)).toMatchObject({ limit: 15_000 });
    expect(limit(['rr-5.133b-20'])).toMatchObject({ limit: 20_000 });
    expect(limit(['rr-5.133b-25'])).toMatchObject({ limit: 25_000 });
    expect(limit(['rr-5.133b-25'], 'itu1')).toMatchObject({ limit: 15_000 });
  });
  test('licence-free for everybody, by its own power and modes', () => {
    expect(at(446_006_250, ['free-446'], 'itu1', 'NFM', 'none')).toMatchObject({
      verdict: 'allowed',
      limit: 500,
    });
    expect(at(446_006_250, ['free-446'], 'itu1', 'FM', 'none').verdict).not.toBe('allowed');
    expect(at(462_562_500, ['free-462'], 'itu2', 'NFM', 'none')).toMatchObject({ limit: 2000 });
    expect(at(467_562_500, ['free-462'], 'itu2', 'NFM', 'none')).toMatchObject({ limit: 500 });
    expect(at(476_425_000, ['free-477'], 'itu3', 'NFM', 'none')).toMatchObject({ limit: 5000 });
    expect(at(27_185_000, ['free-27-ecc'], 'itu1', 'USB', 'none')).toMatchObject({ limit: 12_000 });
  });
  test('a marine certificate opens the marine channels, and names its table', () => {
    const ship = { grade: 'none', region: 'orrin', mode: 'FM' } as const;
    expect(mayTransmit({ ...ship, hz: 156_400_000, marine: true })).toMatchObject({
      verdict: 'allowed',
      limit: 25_000,
      source: { title: expect.stringContaining('Appendix 18') },
    });
    expect(mayTransmit({ ...ship, hz: 156_400_000 }).verdict).toBe('outside');
    expect(mayTransmit({ ...ship, hz: 158_000_000, marine: true }).verdict).toBe('outside');
  });
});

/** Article 5 of the ITU Radio Regulations, MHz. */
describe('amateur band edges by region', () => {
  test.each([
    ['itu1', '160 m', 1.81, 1.85],
    ['itu2', '160 m', 1.8, 2],
    ['itu1', '80 m', 3.5, 3.8],
    ['itu2', '80 m', 3.5, 4],
    ['itu3', '80 m', 3.5, 3.9],
    ['itu1', '40 m', 7, 7.2],
    ['itu2', '40 m', 7, 7.3],
    ['itu3', '30 m', 10.1, 10.15],
    ['itu1', '20 m', 14, 14.35],
    ['itu1', '17 m', 18.068, 18.168],
    ['itu1', '15 m', 21, 21.45],
    ['itu1', '12 m', 24.89, 24.99],
    ['itu1', '10 m', 28, 29.7],
    ['itu1', '6 m', 50, 52],
    ['itu2', '6 m', 50, 54],
    ['itu1', '2 m', 144, 146],
    ['itu2', '2 m', 144, 148],
    ['itu3', '2 m', 144, 148],
    ['itu2', '1.25 m', 220, 225],
    ['itu1', '70 cm', 430, 440],
    ['itu2', '33 cm', 902, 928],
    ['itu1', '23 cm', 1240, 1300],
  ] as const)('%s %s', (region, band, from, to) => {
    const found = ALLOCATIONS[region].filter((allocation) => allocation.band === band);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      service: 'amateur',
      from: Math.round(from * 1e6),
      to: Math.round(to * 1e6),
    });
  });
  test('region 1 has no 33 cm band and ends 2 m at 146', () => {
    expect(ask(915_000_000, 'FM', 'full', 'itu1').verdict).toBe('outside');
    expect(ask(147_000_000, 'FM', 'full', 'itu1').verdict).toBe('outside');
    expect(ask(147_000_000, 'FM', 'full', 'itu2').verdict).toBe('allowed');
  });
});
