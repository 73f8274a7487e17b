import * as fc from '../property.test.kit';
import { callNumberText, hexadecimal, parseCallNumber } from './call-number';

const one = (number: number) => ({ ok: true, value: { kind: 'one', number } });

test('decimal and hexadecimal are both taken', () => {
  // 1 * 256 + 10 * 16 + 0 = 416
  for (const text of ['0x1A0', '0X1a0', '1A0h', '1a0', ' 1A0 ', '416d'])
    expect(parseCallNumber(text)).toEqual(one(416));
  expect(parseCallNumber('16777215d')).toEqual(one(0xffffff));
  expect(parseCallNumber('FFFFFF')).toEqual(one(0xffffff));
  expect(parseCallNumber('1.000.412d')).toEqual(one(1_000_412));
});

test('what reads as either is not guessed', () => {
  // 4 * 256 + 1 * 16 + 6 = 1046
  expect(parseCallNumber('416')).toEqual({
    ok: true,
    value: { kind: 'either', decimal: 416, hexadecimal: 1046 },
  });
  // one figure says the same both ways, seven are more than 24 bits
  expect(parseCallNumber('9')).toEqual(one(9));
  expect(parseCallNumber('1000412')).toEqual(one(1_000_412));
});

test('what is no number says so', () => {
  for (const text of ['', 'Isles', '0', '0x0', '16777214d', '0xFFFCE0', '123456789', '-4', '1g'])
    expect([text, parseCallNumber(text).ok]).toEqual([text, false]);
});

test('both ways of writing are read back', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 0xfffcdf }), (number) => {
      expect(parseCallNumber(hexadecimal(number))).toEqual(one(number));
      expect(parseCallNumber(`${number}d`)).toEqual(one(number));
      const bare = parseCallNumber(String(number));
      expect(bare.ok && (bare.value.kind === 'one' ? bare.value.number : bare.value.decimal)).toBe(number);
    }),
  );
  expect(callNumberText(416)).toBe('416 (0x1A0)');
});
