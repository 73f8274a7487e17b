import { channel, everything, id, plan } from '../samples.test.kit';
import { ternP2 } from '../models/tern-p2';
import type { ChannelFields, Plan } from '../plan';
import { check, mendsOf } from '.';

/** What goes on air that should not: beyond the case that each rule has, where it begins and where it ends. */

const onAll = (p: Plan, rule: string) => check(p, everything).filter((finding) => finding.rule === rule);
const one = (rx: number, fields: Partial<ChannelFields> = {}) =>
  plan([channel(1, rx, { name: 'Norrast', ...fields })]);

test('the nearest of several repeaters is named; AM on shortwave and what the licence bars are no matter of narrow parts', () => {
  const two = [
    { name: 'Far', output: 145_687_500, input: 145_087_500, lat: 52, lon: -30 },
    { name: 'Near', output: 145_705_000, input: 145_105_000, lat: 52, lon: -30 },
  ];
  const source = { directory: 'd', entry: 'e', service: 'amateur', lat: 52, lon: -30 };
  const said = check(one(145_700_000, { source }), ternP2, undefined, two);
  expect(said.map(({ text }) => text)).toEqual([
    'Disturbs “Near”: its output 145.705 is only 5 kHz away, and this is 16 kHz wide.',
  ]);
  const narrow = (rx: number, fields: Partial<ChannelFields>) =>
    onAll(plan([channel(1, rx, fields)], { region: 'itu1' }), 'wide-in-narrow').length;
  expect(narrow(7_150_000, { mode: 'AM' })).toBe(0);
  expect(narrow(7_150_000, { mode: 'FM' })).toBe(1);
  expect(narrow(144_200_000, { mode: 'AM' })).toBe(1);
  expect(narrow(144_200_000, { mode: 'USB' })).toBe(0);
  expect(narrow(144_200_000, { mode: 'FM', tx: null })).toBe(0);
  expect(narrow(13_000_000, { mode: 'FM' })).toBe(0);
  // AM, sidebands and Morse: left out, or listened for in FM; digital is noise there
  const ways = (mode: 'AM' | 'USB' | 'DMR') => {
    const p = one(145_525_000, { mode });
    const [found] = check(p, ternP2).filter(({ rule }) => rule === 'mode-not-held');
    return mendsOf(found!, p, ternP2).map(({ label }) => label);
  };
  expect(ways('AM')).toEqual(['Leave it out', 'Only listen, in FM']);
  expect(ways('USB')).toEqual(['Leave it out', 'Only listen, in FM']);
  expect(ways('DMR')).toEqual(['Leave it out']);
  // FM in one width is understood by a radio that has the other
  const onlyFm = { ...ternP2, modes: ['FM' as const] };
  const narrowFm = one(145_500_000, { mode: 'NFM' });
  const [held] = check(narrowFm, onlyFm).filter(({ rule }) => rule === 'mode-not-held');
  expect(mendsOf(held!, narrowFm, onlyFm).map(({ label }) => label)).toEqual(['Use FM', 'Leave it out']);
});

test('a ship may call at sea, but not on the channels of aircraft; the licence then says nothing more', () => {
  const ship = (rx: number) => plan([channel(1, rx, { power: 25_000 })], { marine: true });
  expect(onAll(ship(156_800_000), 'distress-channel')).toEqual([]);
  expect(onAll(ship(156_800_000), 'outside-licence')).toEqual([]);
  expect(onAll(ship(121_500_000), 'distress-channel')).toHaveLength(1);
  expect(onAll(one(156_800_000), 'outside-licence')).toEqual([]);
});

test('what decided is named: the table, or its footnote', () => {
  const source = (p: Plan, rule: string) => onAll(p, rule)[0]?.source;
  expect(source(one(156_800_000), 'distress-channel')).toContain('Appendix 15');
  expect(source(one(300_000_000), 'outside-licence')).toContain('Orrin Spectrum Office');
  expect(source(plan([channel(1, 300_000_000)], { region: 'itu2' }), 'outside-licence')).toBe(
    'ITU Radio Regulations, Article 5 (2020)',
  );
  expect(source(one(145_700_000, { tx: 145_200_000 }), 'odd-shift')).toContain('repeater plan');
});

describe('repeaters nearby', () => {
  const place = (lat: number) => ({ directory: 'd', entry: 'e', service: 'amateur', lat, lon: -30 });
  const hill = { name: 'Ullsmere Hill', output: 145_700_000, input: 145_100_000, lat: 52, lon: -30 };
  const said = (rx: number, fields: Partial<ChannelFields> = {}, near = [hill]) =>
    check(one(rx, { source: place(52), ...fields }), ternP2, undefined, near)
      .filter(({ rule }) => rule === 'over-repeater')
      .map(({ text }) => text);
  test('that no plan holds are seen: on the output, beside it by less than the mode is wide, on the input', () => {
    expect(said(145_700_000)).toEqual(['Talks over “Ullsmere Hill”: 145.700 is its output.']);
    // FM is 16 kHz wide, narrow FM 11
    expect(said(145_712_500)).toEqual([
      'Disturbs “Ullsmere Hill”: its output 145.700 is only 12.5 kHz away, and this is 16 kHz wide.',
    ]);
    expect(said(145_687_500)).toHaveLength(1);
    expect(said(145_712_500, { mode: 'NFM' })).toEqual([]);
    expect(said(145_720_000)).toEqual([]);
    expect(said(145_100_000)).toEqual(['May open “Ullsmere Hill”: 145.100 is its input.']);
  });
  test('are no trouble to who uses them, only listens, works a satellite or is far away', () => {
    expect(said(145_700_000, { tx: 145_100_000 })).toEqual([]);
    expect(said(145_700_000, { tx: null })).toEqual([]);
    expect(said(145_700_000, { satellite: true })).toEqual([]);
    expect(said(145_700_000, { source: place(54) })).toEqual([]); // 222 km
  });
  test('of a plan that knows no place nothing is said of what only a directory knows', () => {
    expect(said(145_700_000, { source: null })).toEqual([]);
    const p = plan([channel(1, 145_700_000), channel(2, 433_500_000, { source: place(52) })]);
    expect(check(p, ternP2, undefined, [hill]).map(({ rule, id: of }) => [rule, of])).toEqual([
      ['over-repeater', id(1)],
    ]);
  });
});

test('pairs that belong together are no splits: marine duplex, and what works a satellite', () => {
  const marine = one(161_700_000, { tx: 157_100_000 });
  expect(onAll(marine, 'odd-shift')).toEqual([]);
  expect(onAll(one(161_700_000, { tx: 157_050_000 }), 'odd-shift')).toHaveLength(1);
  const pair = { tx: 145_950_000, txFixed: true };
  expect(onAll(one(435_500_000, pair), 'odd-shift')).toHaveLength(1);
  expect(check(one(435_500_000, { ...pair, satellite: true }), ternP2)).toEqual([]);
});
