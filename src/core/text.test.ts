import * as fc from './property.test.kit';
import { capital, cutText, isKeepable, keepableText, lengthOf } from './text';
import { text, trimmedText, wantedText } from './text.schema';

const reasonOf = (schema: ReturnType<typeof text>, value: unknown) =>
  schema.safeParse(value).error?.issues[0]?.message;
const UNKEPT = 'holds a character that cannot be kept (NUL, or half of a character)';

test.each([
  ['Ketterby', undefined],
  ['', undefined],
  // four characters of two halves each
  ['𝄞𝄞𝄞𝄞𝄞𝄞𝄞𝄞', undefined],
  ['123456789', 'is longer than 8 characters'],
  ['𝄞𝄞𝄞𝄞𝄞𝄞𝄞𝄞𝄞', 'is longer than 8 characters'],
  ['a\0b', UNKEPT],
  ['a\ud834', UNKEPT],
  ['\udd1eb', UNKEPT],
  ['\udd1e\ud834', UNKEPT],
])('as a text of 8 characters %j: %s', (value, reason) => expect(reasonOf(text(8), value)).toBe(reason));

test('white space at the ends does not count where it is taken off', () => {
  expect(trimmedText(3).parse('  abc ')).toBe('abc');
  expect(wantedText(3).safeParse('   ').error?.issues[0]?.message).toBe('is empty');
  expect(reasonOf(text(3), 'abc ')).toBe('is longer than 3 characters');
});

test.each([
  ['Ullsmere Hill', 8, 'Ullsmere'],
  // the space at the new end goes
  ['Ullsmere Hill', 9, 'Ullsmere'],
  ['Quay', 4, 'Quay'],
  ['𝄞𝄞𝄞', 2, '𝄞𝄞'],
  // e and a combining acute accent are one letter for people
  ['cafe\u0301', 4, 'caf'],
  ['cafe\u0301', 5, 'cafe\u0301'],
  // a family of three, five code points, is kept whole or not at all
  ['a👨‍👩‍👧', 5, 'a'],
  ['a👨‍👩‍👧', 6, 'a👨‍👩‍👧'],
])('%j cut to %i characters is %j', (whole, most, cut) => expect(cutText(whole, most)).toBe(cut));

/** Any text, halves of characters and NUL among it. */
const anyText = fc
  .anyText(60)
  .chain((whole) =>
    fc
      .array(fc.tuple(fc.nat(60), fc.constantFrom('\ud83d', '\ude00', '\0', '\u0301', '👨‍👩‍👧')))
      .map((strays) => strays.reduce((now, [at, stray]) => now.slice(0, at) + stray + now.slice(at), whole)),
  );

test('cutting gives a beginning, within the limit, and breaks no character; what is left after cleaning can be kept', () => {
  fc.assert(
    fc.property(anyText, fc.integer({ min: 1, max: 40 }), (whole, most) => {
      const clean = keepableText(whole);
      expect(isKeepable(clean)).toBe(true);
      const cut = cutText(clean, most);
      expect(clean.startsWith(cut)).toBe(true);
      expect(lengthOf(cut)).toBeLessThanOrEqual(most);
      expect(isKeepable(cut)).toBe(true);
      expect(text(most).safeParse(cut).success).toBe(true);
      // what is refused as unkeepable is exactly what a database refuses
      expect(isKeepable(whole)).toBe(
        !whole.includes('\0') && Buffer.from(whole, 'utf8').toString('utf8') === whole,
      );
    }),
    { numRuns: 500 },
  );
});

test('words begin as a sentence does', () => {
  expect(capital('no room')).toBe('No room');
  expect(capital('1 channel')).toBe('1 channel');
  expect(capital('')).toBe('');
});
