import type { ValueKind } from './setting.schema';
import { factoryValue, isValue, valueFault, valueWords, wantedWords, withNumbers, withRecords } from '.';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ ';

const seconds: ValueKind = { kind: 'choice', values: [0, 30, 60], words: { 0: 'off' }, unit: 's' };
const shift: ValueKind = { kind: 'number', unit: 'kHz', scale: 1000, least: 0, most: 9_995_000, step: 5000 };
const count: ValueKind = { kind: 'number', unit: '', scale: 1, least: 1, most: 16_776_415, step: 1 };
const text: ValueKind = { kind: 'text', length: 4 };
const digits: ValueKind = { kind: 'text', length: 4, characters: '0123456789' };
const curve: ValueKind = { kind: 'curve', points: 3, unit: 'dB', scale: 1, least: 0, most: 60, step: 1 };
const memories: ValueKind = { kind: 'list', count: 2, of: digits };
const zone: ValueKind = { kind: 'reference', to: 'zone' };
const place: ValueKind = { kind: 'coordinate' };
const shown: ValueKind = {
  kind: 'sides',
  sides: ['Left', 'Right'],
  of: { kind: 'choice', values: ['name', 'frequency'] },
};

const of = (kind: ValueKind, ...values: unknown[]) =>
  values.map((value) => isValue(kind, value as never, LETTERS));

test('a value is held to its kind', () => {
  expect(of(seconds, 0, 60, 61, '60', true, null)).toEqual([true, true, false, false, false, false]);
  expect(of({ kind: 'switch' }, true, false, 1, 'on')).toEqual([true, true, false, false]);
  // Ends of the range, a step, between two steps, beyond, no number.
  expect(of(shift, 0, 9_995_000, 600_000, 602_500, 10_000_000, -5000, '0')).toEqual([
    ...[true, true, true, false, false, false, false],
  ]);
  expect(of(text, '', 'ABCD', 'ABCDE', 'abc', 5)).toEqual([true, true, false, false, false]);
  expect(of(digits, '0123', 'A')).toEqual([true, false]);
  expect(of(curve, [0, 0, 60], [1, 2], [1, 3, 2], [0, 0, 61], 3)).toEqual([
    ...[true, false, false, false, false],
  ]);
  expect(of(memories, [], ['12', null], [null, '9'], ['1', '2', '3'], ['A'])).toEqual([
    ...[true, true, true, false, false],
  ]);
  expect(of(zone, { kind: 'zone', id: 'zo_a' }, { kind: 'channel', id: 'ch_a' }, 1)).toEqual([
    ...[true, false, false],
  ]);
  expect(of(place, { lat: 52, lon: -29 }, [52, -29])).toEqual([true, false]);
  expect(of(shown, ['name', 'frequency'], ['name'], ['name', 'slot'], 'name')).toEqual([
    ...[true, false, false, false],
  ]);
});

test('a value is said in words', () => {
  const words: [ValueKind, unknown, string][] = [
    [seconds, 0, 'off'],
    [seconds, 30, '30 s'],
    [{ kind: 'switch' }, true, 'on'],
    [{ kind: 'switch' }, false, 'off'],
    [shift, 7_600_000, '7600 kHz'],
    [count, 12, '12'],
    [text, 'ABC', 'ABC'],
    [text, '', 'nothing'],
    [count, null, 'nothing'],
    [count, undefined, 'nothing'],
    [curve, [0, 12, 30], '0 12 30 dB'],
    [memories, ['12', null], '12, nothing'],
    [memories, [], 'nothing'],
    [zone, { kind: 'zone', id: 'zo_a' }, 'Hills'],
    [zone, { kind: 'zone', id: 'zo_b' }, 'zo_b'],
    [zone, 3, 'zone 3'],
    [place, { lat: 52.5, lon: -29 }, '52.5, -29'],
    [shown, ['name', 'frequency'], 'Left name, Right frequency'],
  ];
  for (const [kind, value, wanted] of words)
    expect(valueWords(kind, value as never, (_, id) => (id === 'zo_a' ? 'Hills' : undefined))).toBe(wanted);
});

test('what is refused says what may be set', () => {
  expect(valueFault({ name: 'Backlight', value: seconds }, 45, LETTERS)).toBe(
    'Backlight cannot be “45 s”: it is one of off, 30 s, 60 s.',
  );
  expect(valueFault({ name: 'Own ID', value: count }, 16_776_416, LETTERS)).toBe(
    'Own ID cannot be “16776416”: it is a whole number from 1 to 16,776,415.',
  );
  expect(valueFault({ name: 'Shift', value: shift }, 2500, LETTERS)).toBe(
    'Shift cannot be “2.5 kHz”: it is a number from 0 to 9,995 kHz in steps of 5.',
  );
  expect(valueFault({ name: 'Backlight', value: seconds }, 30, LETTERS)).toBeNull();
  expect([text, curve, memories, zone, place, shown, { kind: 'switch' } as const].map(wantedWords)).toEqual([
    'at most 4 characters that its display has',
    '3 numbers from 0 to 60 dB, none below the one before',
    'at most 2 entries, each at most 4 characters that its display has',
    'a zone of the plan',
    'a latitude from -90 to 90 and a longitude from -180 to 180 degrees',
    'for each of Left and Right one of name, frequency',
    'on or off',
  ]);
});

test('records are numbers in a radio, and records again in its plan', () => {
  const keys: ValueKind = {
    kind: 'sides',
    sides: ['Left', 'Right'],
    of: { kind: 'list', count: 2, of: zone },
  };
  const value = [[{ kind: 'zone' as const, id: 'zo_a' }, null], [{ kind: 'zone' as const, id: 'zo_gone' }]];
  const held = withNumbers(value, ({ id }) => (id === 'zo_a' ? 4 : null));
  expect(held).toEqual([[4, null], [null]]);
  expect(withRecords(keys, held, (kind, number) => (number === 4 ? { kind, id: 'zo_a' } : null))).toEqual([
    [{ kind: 'zone', id: 'zo_a' }, null],
    [null],
  ]);
  // A plain number stays one.
  expect(withRecords(count, 4, () => null)).toBe(4);
});

test('the factory value depends on the region of the unit', () => {
  const setting = { default: 600_000, byRegion: { 2: 1_000_000 } };
  expect([factoryValue(setting), factoryValue(setting, 1), factoryValue(setting, 2)]).toEqual([
    600_000, 600_000, 1_000_000,
  ]);
});
