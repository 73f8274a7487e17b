import * as fc from '../property.test.kit';
import { decodeText, FILE_LIMIT } from '.';

const bytes = (...list: number[]) => Uint8Array.from(list);

test.each([
  ['UTF-8', [0x48, 0xc3, 0xbc, 0x67, 0x65, 0x6c], 'Hügel', 'UTF-8'],
  ['UTF-8 with its mark', [0xef, 0xbb, 0xbf, 0x48, 0x69], 'Hi', 'UTF-8'],
  ['Windows-1252', [0x48, 0xfc, 0x67, 0x65, 0x6c, 0x20, 0x80], 'Hügel €', 'Windows-1252'],
  ['UTF-16 LE with its mark', [0xff, 0xfe, 0x48, 0x00, 0xfc, 0x00], 'Hü', 'UTF-16'],
  ['UTF-16 BE with its mark', [0xfe, 0xff, 0x00, 0x48, 0x00, 0xfc], 'Hü', 'UTF-16'],
  ['UTF-16 LE without', [0x48, 0x00, 0x69, 0x00, 0x2c, 0x00], 'Hi,', 'UTF-16'],
  ['UTF-16 BE without', [0x00, 0x48, 0x00, 0x69, 0x00, 0x2c], 'Hi,', 'UTF-16'],
])('%s', (_, list, text, encoding) => {
  expect(decodeText(bytes(...list))).toEqual({ ok: true, value: { text, encoding } });
});

test.each([
  ['nothing', [], /empty/],
  ['a picture', [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a], /a picture \(PNG\), whatever its name says/],
  ['a zip', [0x50, 0x4b, 0x03, 0x04, 0x14], /a zip archive or an office document/],
  ['a zero', [0x41, 0x42, 0x43, 0x00, 0x44, 0x45], /byte 3 is zero/],
])('%s is refused by what it is', (_, list, reason) => {
  expect(decodeText(bytes(...list))).toMatchObject({
    ok: false,
    reason: expect.stringMatching(reason) as string,
  });
});

test('what is too large is refused before it is read', () => {
  expect(decodeText(new Uint8Array(FILE_LIMIT + 1_000_000))).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/21 MB; 20 MB are the most/) as string,
  });
});

test('what is written in an encoding is read in it', () => {
  const latin = fc.string({ unit: fc.constantFrom(...'Hill 145,6125;ÄÖÜßéñ'), minLength: 8 });
  fc.assert(
    fc.property(latin, (text) => {
      const utf16 = Uint8Array.from(
        [0xfeff, ...Array.from(text, (sign) => sign.charCodeAt(0))].flatMap((code) => [
          code & 255,
          code >> 8,
        ]),
      );
      expect(decodeText(utf16)).toEqual({ ok: true, value: { text, encoding: 'UTF-16' } });
      const utf8 = new TextEncoder().encode(text);
      expect(decodeText(utf8)).toMatchObject({ value: { text } });
      // Latin letters alone are no UTF-8, or read there as what they are not: only what fails as UTF-8 is taken for them.
      const single = Uint8Array.from(Array.from(text, (sign) => sign.charCodeAt(0)));
      const read = decodeText(single);
      if (read.ok && read.value.encoding === 'Windows-1252') expect(read.value.text).toBe(text);
    }),
  );
});
