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
    expect(ask(144_405_000)).toMatchObject({ verdict: 'mode' });
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
