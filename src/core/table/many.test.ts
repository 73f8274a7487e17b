import { channel, id } from '../samples.test.kit';
import {
  alikeTo,
  changesFor,
  commonFields,
  countDown,
  countedName,
  previewReplacing,
  replacingChanges,
} from '.';

const RULES = { region: 'orrin' as const };
const tone = (tenths: number) => ({
  kind: 'analogue' as const,
  send: { kind: 'tone' as const, tone: tenths },
  expect: null,
});
const hill = channel(1, 145_612_500, { name: 'ullsmere hill', tx: 145_012_500, access: tone(885) });
const calling = channel(2, 145_500_000, { name: 'Q7ABC calling' });
const weather = channel(3, 162_400_000, { name: 'WEATHER', tx: null });
const all = [hill, calling, weather];
const sets = (wish: Parameters<typeof changesFor>[1]) =>
  Object.fromEntries(
    changesFor(all, wish, RULES).changes.map(({ id: of, set }) => [Number(of.slice(-4)), set]),
  );

describe('one stroke for all that is chosen', () => {
  test('what stands so already is no change', () => {
    expect(sets({ what: 'listen only' })).toEqual({ 1: { tx: null }, 2: { tx: null } });
    expect(sets({ what: 'same as receive' })).toEqual({
      1: { tx: 145_612_500, txFixed: false },
      3: { tx: 162_400_000, txFixed: false },
    });
    expect(sets({ what: 'set', set: { power: 4000, mode: 'NFM' } })).toEqual({
      1: { power: 4000, mode: 'NFM' },
      2: { power: 4000, mode: 'NFM' },
      3: { power: 4000, mode: 'NFM' },
    });
    expect(sets({ what: 'set', set: { scan: true } })).toEqual({});
  });
  test('the usual shift goes where there is one; the others stay, with the reason', () => {
    const { changes, left, reason } = changesFor(
      [{ ...hill, tx: null }, calling, weather],
      { what: 'usual shift' },
      RULES,
    );
    // 145.6125 - 0.6
    expect(changes).toEqual([{ id: id(1), set: { tx: 145_012_500, txFixed: false } }]);
    expect(left).toBe(2);
    expect(reason).toBe('There is no usual shift at 145.500.');
  });
  test('a name from a template', () => {
    const source = { directory: 'register', entry: 'a', service: 'amateur', call: 'Q7UL', place: 'Ullsmere' };
    const { changes, left, reason } = changesFor(
      [{ ...hill, source }, calling],
      { what: 'name', template: '{call} {band} {n}' },
      RULES,
    );
    expect(changes.map(({ set }) => set.name)).toEqual(['Q7UL 2 m 1', '2 m 2']);
    expect([left, reason]).toEqual([0, null]);
    expect(changesFor(all, { what: 'name', template: '{town}' }, RULES)).toMatchObject({
      changes: [],
      left: 3,
      reason: expect.stringContaining('no field {town}'),
    });
    expect(changesFor([hill], { what: 'name', template: `{name} ${'x'.repeat(30)}` }, RULES)).toMatchObject({
      left: 1,
      reason: expect.stringContaining('32 at most'),
    });
  });
  test('letters: what has figures in it stays', () => {
    expect(sets({ what: 'case', to: 'Each Word' })).toEqual({
      1: { name: 'Ullsmere Hill' },
      2: { name: 'Q7ABC Calling' },
      3: { name: 'Weather' },
    });
    expect(sets({ what: 'case', to: 'capitals' })).toEqual({
      1: { name: 'ULLSMERE HILL' },
      2: { name: 'Q7ABC CALLING' },
    });
    expect(sets({ what: 'case', to: 'small' })).toEqual({
      2: { name: 'q7abc calling' },
      3: { name: 'weather' },
    });
  });
  test('tags are put on and taken off, in any case of letters', () => {
    const tagged = { ...hill, tags: ['Regatta', 'north'] };
    expect(changesFor([tagged, calling], { what: 'tag', tag: 'regatta', on: true }, RULES).changes).toEqual([
      { id: id(2), set: { tags: ['regatta'] } },
    ]);
    expect(changesFor([tagged, calling], { what: 'tag', tag: 'REGATTA', on: false }, RULES).changes).toEqual([
      { id: id(1), set: { tags: ['north'] } },
    ]);
    const full = { ...hill, tags: [...'abcdefghijkl'] };
    expect(changesFor([full], { what: 'tag', tag: 'm', on: true }, RULES)).toEqual({
      changes: [],
      left: 1,
      reason: 'A channel has 12 tags at most.',
    });
  });
  test('what they have in common, and what is mixed', () => {
    const tagged = { ...hill, tags: ['north', 'sea'] };
    expect(commonFields([tagged, { ...calling, access: tone(885), tags: ['sea'] }])).toEqual({
      shift: { kind: 'mixed' },
      access: { kind: 'all', value: tone(885) },
      mode: { kind: 'all', value: 'FM' },
      power: { kind: 'all', value: 4000 },
      scan: { kind: 'all', value: true },
      note: { kind: 'all', value: '' },
      tags: [
        { tag: 'sea', n: 2 },
        { tag: 'north', n: 1 },
      ],
    });
  });
});

describe('all like this', () => {
  const context = { rules: RULES, findings: (one: { id: string }) => (one.id === id(3) ? ['off-step'] : []) };
  const like = (one: typeof hill, alike: Parameters<typeof alikeTo>[2], among = all) =>
    alikeTo(among, one, alike, context).map((of) => Number(of.slice(-4)));
  const split = channel(4, 438_650_000, { tx: 438_050_000, mode: 'DMR' });
  test.each([
    ['band', hill, [1, 2]],
    ['mode', split, [4]],
    ['access', hill, [1]],
    ['access', weather, [2, 3, 4]],
    ['shift', hill, [1, 4]],
    ['shift', weather, [3]],
    ['source', hill, [1, 2, 3, 4]],
    ['finding', weather, [3]],
    // like none, itself neither
    ['finding', hill, []],
  ] as const)('%s', (alike, one, found) => expect(like(one, alike, [...all, split])).toEqual(found));
  test('codes that are one on air are alike', () => {
    // 023 and its inverse 047 are one word read the two ways round.
    const code = (value: number, inverted: boolean) => ({
      kind: 'analogue' as const,
      send: { kind: 'code' as const, code: value, inverted },
      expect: null,
    });
    const [a, b] = [
      channel(5, 145_500_000, { access: code(23, false) }),
      channel(6, 145_525_000, { access: code(47, true) }),
    ];
    expect(like(a, 'access', [a, b])).toEqual([5, 6]);
  });
});

describe('counting down', () => {
  const rows = [1, 2, 3, 4].map((slot) => channel(slot, 446_006_250, { name: 'Free 01' }));
  test('by the step of the radio where they are alike', () =>
    expect(countDown(rows, ['name', 'rx'], 12_500)).toEqual([
      { id: id(2), set: { rx: 446_018_750, tx: 446_018_750, txFixed: false, name: 'Free 02' } },
      { id: id(3), set: { rx: 446_031_250, tx: 446_031_250, txFixed: false, name: 'Free 03' } },
      { id: id(4), set: { rx: 446_043_750, tx: 446_043_750, txFixed: false, name: 'Free 04' } },
    ]));
  test('by the step between the first two, down as well, with the shift carried', () => {
    const [a, b, c] = [
      channel(1, 145_700_000, { name: 'R 10', tx: 145_100_000 }),
      channel(2, 145_675_000, { name: 'R 8' }),
      channel(3, 145_000_000),
    ];
    expect(countDown([a, b, c], ['name', 'rx'], 12_500)).toEqual([
      { id: id(2), set: { rx: 145_675_000, tx: 145_075_000, txFixed: false, name: 'R 8' } },
      { id: id(3), set: { rx: 145_650_000, tx: 145_050_000, txFixed: false, name: 'R 6' } },
    ]);
  });
  test.each([
    ['Free 01', 9, 'Free 10'],
    ['Free 99', 1, 'Free 100'],
    ['R7b', 2, 'R9b'],
    ['Hill', 1, null],
    ['R 1', -2, null],
    [`${'x'.repeat(31)}9`, 1, null],
  ])('%s and %i more is %s', (name, by, counted) => expect(countedName(name, by)).toBe(counted));
  test('nothing from nothing', () => expect(countDown([], ['rx'], 12_500)).toEqual([]));
});

describe('find and replace', () => {
  const context = { region: 'orrin' as const, bands: [{ from: 136_000_000, to: 174_000_000 }] };
  const find = (wish: Partial<Parameters<typeof previewReplacing>[1]>) =>
    previewReplacing(
      all,
      { find: '', by: '', columns: ['name'], exactCase: false, wholeCell: false, ...wish },
      context,
    );
  test('every cell in which it stands, with what becomes of it', () => {
    expect(find({ find: 'ULLSMERE', by: 'Farrow' })).toEqual([
      {
        id: id(1),
        column: 'name',
        before: 'ullsmere hill',
        after: 'Farrow hill',
        set: { name: 'Farrow hill' },
        reason: null,
      },
    ]);
    expect(find({ find: 'ULLSMERE', by: 'Farrow', exactCase: true })).toEqual([]);
    expect(find({ find: 'weather', by: '$&', wholeCell: true })[0]!.after).toBe('$&');
    expect(find({ find: 'hill', by: 'x', wholeCell: true })).toEqual([]);
    expect(find({})).toEqual([]);
  });
  test('what cannot stand there says why, and the rest is changed', () => {
    const found = find({ find: '88.5', by: '88.5x', columns: ['access'] });
    expect(found).toMatchObject([{ before: '88.5', set: null, reason: expect.stringContaining('88.5X') }]);
    expect(replacingChanges([...found, ...find({ find: 'hill', by: 'top' })])).toEqual([
      { id: id(1), set: { name: 'ullsmere top' } },
    ]);
  });
  test('signs are looked for as they are', () =>
    expect(find({ find: '.', by: ',', columns: ['name'] })).toEqual([]));
  test('transmit is read against the receive of the same stroke', () => {
    const found = find({ find: '6', by: '7', columns: ['rx', 'tx'] });
    expect(replacingChanges(found)).toEqual([
      // 145.6125 becomes 145.7125, -0.6 becomes -0.7; 162.4 would be 172.4, which listens still
      { id: id(1), set: { rx: 145_712_500, tx: 145_012_500, txFixed: false } },
      { id: id(3), set: { rx: 172_400_000 } },
    ]);
  });
});
