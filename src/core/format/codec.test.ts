import * as fc from '../property.test.kit';
import {
  canHold,
  imageBytes,
  ownedBits,
  ownedMask,
  readField,
  readTables,
  writeField,
  writeTables,
  type Codec,
  type FieldValue,
  type Format,
} from '.';

/** Single fields at their edges: what just fits, what does not, and bytes that hold no value. */

const bcd: Codec = { kind: 'bcd', at: 1, bytes: 2, unit: 10 };
const choice: Codec = { kind: 'choice', at: 0, shift: 2, width: 2, values: ['a', 'b', 'c'] };
const text: Codec = { kind: 'text', at: 0, bytes: 3 };
const context = { tones: [670, 885], codes: [23, 25], characters: 'ABC ' };
const written = (codec: Codec, value: FieldValue, bytes = new Uint8Array(4)) => {
  writeField(bytes, 0, codec, value, context);
  return [...bytes];
};
/** The value, or why there is none. */
const read = (codec: Codec, ...bytes: number[]) => {
  const result = readField(Uint8Array.from(bytes), 0, codec, context);
  return result.ok ? result.value : { none: result.reason };
};

test('a field can hold what it reads back as it was written, and nothing else', () => {
  expect([99_990, 70, null].map((value) => canHold(bcd, value, context))).toEqual([true, true, true]);
  expect([100_000, 12_345].map((value) => canHold(bcd, value, context))).toEqual([false, false]);
  expect(canHold(choice, 'b', context)).toBe(true);
  expect(canHold(choice, 'z', context)).toBe(false);
  // Written without a word and read back otherwise: cut, or without the space at its end.
  expect(['ABC', 'AB', ''].map((value) => canHold(text, value, context))).toEqual([true, true, true]);
  expect(['ABCA', 'AB '].map((value) => canHold(text, value, context))).toEqual([false, false]);
});

test('figures in BCD, the lowest pair first: four of them fit into two bytes', () => {
  expect(written(bcd, 99_990)).toEqual([0, 0x99, 0x99, 0]);
  expect(written(bcd, 12_340)).toEqual([0, 0x34, 0x12, 0]);
  expect(written(bcd, 70)).toEqual([0, 0x07, 0, 0]);
  expect(written(bcd, null)).toEqual([0, 0xff, 0xff, 0]);
  expect(() => written(bcd, 100_000)).toThrow('No BCD for 100000');
  expect(() => written(bcd, 12_345)).toThrow('No BCD for 12345');
  expect(read(bcd, 0, 0x34, 0x12, 0)).toBe(12_340);
  expect(read(bcd, 0, 0xff, 0xff, 0)).toBeNull();
  expect(read(bcd, 0, 0x3a, 0x12, 0)).toEqual({ none: 'figures 123a' });
  expect(read(bcd, 0, 0xff, 0x0f, 0)).toEqual({ none: 'figures 0fff' });
});

test('a choice has its bits and no others; a number beyond the last is none', () => {
  expect(written(choice, 'c', Uint8Array.of(0xff, 0, 0, 0))).toEqual([0xfb, 0, 0, 0]);
  expect(written(choice, 'b')).toEqual([0x04, 0, 0, 0]);
  expect(() => written(choice, 'd')).toThrow('d is not one of a, b, c');
  expect(read(choice, 0xf3)).toBe('a');
  expect(read(choice, 0xfb)).toBe('c');
  expect(read(choice, 0x0c)).toEqual({ none: 'choice 3 of 3' });
});

test('a text is filled with spaces, and no longer than its bytes', () => {
  expect(written(text, 'AB')).toEqual([0x41, 0x42, 0x20, 0]);
  expect(written(text, 'ABC')).toEqual([0x41, 0x42, 0x43, 0]);
  expect(() => written(text, 'ABCD')).toThrow('longer than 3');
  expect(read(text, 0x41, 0x20, 0x20)).toBe('A');
  expect(read(text, 0x41, 0x61, 0x20)).toMatchObject({ none: expect.stringContaining('characters') });
});

test('a flag is one bit, set for yes or for no', () => {
  const yes: Codec = { kind: 'flag', at: 0, bit: 3 };
  const no: Codec = { ...yes, set: false };
  expect(written(yes, true)).toEqual([0x08, 0, 0, 0]);
  expect(written(yes, false, Uint8Array.of(0xff, 0, 0, 0))).toEqual([0xf7, 0, 0, 0]);
  expect(written(no, true, Uint8Array.of(0xff, 0, 0, 0))).toEqual([0xf7, 0, 0, 0]);
  expect([read(yes, 0x08), read(yes, 0xf7), read(no, 0x08), read(no, 0xf7)]).toEqual([
    true,
    false,
    false,
    true,
  ]);
});

test('a tone or code stands by its place in the list of the radio, its polarity in a bit elsewhere', () => {
  const squelch: Codec = {
    kind: 'squelch',
    at: 0,
    tonesFrom: 1,
    codesFrom: 101,
    inverted: { at: 1, bit: 2 },
  };
  expect(written(squelch, { kind: 'tone', tone: 885 })).toEqual([2, 0, 0, 0]);
  expect(written(squelch, { kind: 'code', code: 25, inverted: true })).toEqual([102, 4, 0, 0]);
  expect(written(squelch, null, Uint8Array.of(9, 0xff, 0, 0))).toEqual([0, 0xfb, 0, 0]);
  expect(() => written(squelch, { kind: 'tone', tone: 948 })).toThrow('does not have');
  expect(() => written(squelch, 'text')).toThrow('no tone or code');
  expect(read(squelch, 101, 4)).toEqual({ kind: 'code', code: 23, inverted: true });
  expect(read(squelch, 3, 0)).toEqual({ none: 'tone or code number 3' });
  expect(read(squelch, 103, 0)).toEqual({ none: 'tone or code number 103' });
});

test('a codec changes the bits that it owns and no others', () => {
  const squelch: Codec = {
    kind: 'squelch',
    at: 0,
    tonesFrom: 1,
    codesFrom: 101,
    inverted: { at: 1, bit: 2 },
  };
  const cases: [Codec, FieldValue[]][] = [
    [bcd, [12_340, null]],
    [choice, ['a', 'c']],
    [text, ['', 'ABC']],
    [{ kind: 'flag', at: 2, bit: 7 }, [true, false]],
    [squelch, [null, { kind: 'tone', tone: 885 }, { kind: 'code', code: 23, inverted: true }]],
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...cases),
      fc.uint8Array({ minLength: 4, maxLength: 4 }),
      fc.nat(),
      (one, base, n) => {
        const [codec, values] = one;
        const value = values[n % values.length]!;
        const mask = [0, 0, 0, 0];
        for (const [at, bits] of ownedBits(codec)) mask[at] = mask[at]! | bits;
        const after = written(codec, value, base.slice());
        expect(after.map((byte, at) => byte & ~mask[at]!)).toEqual(
          [...base].map((byte, at) => byte & ~mask[at]!),
        );
        expect(read(codec, ...after)).toEqual(value);
      },
    ),
  );
});

describe('a format of all shapes that there are', () => {
  /** Two files of a card: names in a table of their own, rows that are counted, and rows that say by a field that they are there. */
  const format: Format = {
    signature: { part: 'NAMES', at: 12, text: 'NAME' },
    container: {
      kind: 'parts',
      parts: [
        { name: 'MAIN', bytes: 32 },
        { name: 'NAMES', bytes: 16 },
      ],
    },
    areas: [],
    layouts: [
      {
        table: 'channels',
        part: 'MAIN',
        at: 2,
        stride: 3,
        count: 4,
        first: 1,
        present: { kind: 'count', part: 'MAIN', at: 0, bytes: 2 },
        row: { rx: { kind: 'bcd', at: 0, bytes: 2, unit: 10 } },
        columns: [
          {
            kind: 'table',
            part: 'NAMES',
            at: 0,
            stride: 4,
            row: { name: { kind: 'text', at: 0, bytes: 3 } },
          },
          { kind: 'bitmap', part: 'MAIN', at: 30, field: 'scan' },
        ],
      },
      {
        table: 'edges',
        part: 'MAIN',
        at: 20,
        stride: 2,
        count: 3,
        first: 0,
        present: { kind: 'sentinel', field: 'at' },
        row: { at: { kind: 'bcd', at: 0, bytes: 2, unit: 1 } },
      },
    ],
    settings: [{ key: 'mode', part: 'NAMES', codec: { ...choice, at: 3 } }],
    checksums: [],
  };
  const content = {
    tables: {
      channels: [
        { number: 1, fields: { rx: 12_340, name: 'AB', scan: true } },
        { number: 2, fields: { rx: 70, name: 'C', scan: false } },
      ],
      edges: [{ number: 2, fields: { at: 77 } }],
    },
    settings: { mode: 'b' },
  };
  test('stands in its bytes', () => {
    const image = writeTables(content, new Uint8Array(48), format, context);
    // two rows; 12340 and 70 in tens of Hz, pairs turned round; two empty rows with all bits of theirs set
    expect([...image.subarray(0, 14)]).toEqual([
      2, 0, 0x34, 0x12, 0, 0x07, 0, 0, 0xff, 0xff, 0, 0xff, 0xff, 0,
    ]);
    expect([...image.subarray(20, 26)]).toEqual([0xff, 0xff, 0xff, 0xff, 0x77, 0]);
    expect(image[30]).toBe(0b0001);
    expect(Buffer.from(image.subarray(32, 40)).toString('latin1')).toBe('AB \u0004C  \0');
    expect(imageBytes(format)).toBe(48);
    expect(readTables(image, format, context)).toEqual({
      ok: true,
      value: { ...content, odd: [], unknown: {} },
    });
  });
  test('leaves all else as it was', () => {
    const mask = ownedMask(format);
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 48, maxLength: 48 }), (base) => {
        const image = writeTables(content, base, format, context);
        expect([...image].map((byte, at) => byte & ~mask[at]!)).toEqual(
          [...base].map((byte, at) => byte & ~mask[at]!),
        );
        expect(readTables(image, format, context)).toEqual({
          ok: true,
          value: { ...content, odd: [], unknown: {} },
        });
      }),
    );
    expect(() => writeTables(content, new Uint8Array(47), format, context)).toThrow('47 bytes');
  });
});

test('figures as text, filled with zeros; spaces are none', () => {
  const digits: Codec = { kind: 'digits', at: 0, bytes: 3, unit: 100 };
  expect(written(digits, 4200)).toEqual([0x30, 0x34, 0x32, 0]);
  expect(written(digits, null)).toEqual([0x20, 0x20, 0x20, 0]);
  for (const value of [100_000, 4250, -100, 'x'])
    expect(() => written(digits, value)).toThrow('No 3 figures');
  expect(read(digits, 0x39, 0x39, 0x39)).toBe(99_900);
  expect(read(digits, 0x20, 0x20, 0x20)).toBeNull();
  expect(read(digits, 0x20, 0x34, 0x32)).toEqual({ none: '“ 42” where figures belong' });
});

test('a word for each value, and no other word', () => {
  const words = [
    { word: 'ON', value: true },
    { word: 'OFF', value: false },
  ];
  const word: Codec = { kind: 'word', at: 1, bytes: 3, words };
  expect(written(word, true)).toEqual([0, 0x4f, 0x4e, 0x20]);
  expect(written(word, false)).toEqual([0, 0x4f, 0x46, 0x46]);
  expect(() => written(word, 'on')).toThrow('has no word');
  expect(read(word, 0, 0x4f, 0x46, 0x46)).toBe(false);
  expect(read(word, 0, 0x6f, 0x6e, 0x20)).toEqual({ none: 'the word “on”' });
});

describe('files of lines of text', () => {
  const format: Format = {
    signature: { part: 'HEAD.TXT', at: 0, text: 'V1.0' },
    container: {
      kind: 'lines',
      parts: [
        { name: 'HEAD.TXT', width: 4, lines: 1 },
        { name: 'CHAN.TXT', width: 16, lines: 3 },
      ],
    },
    areas: [],
    layouts: [
      {
        table: 'channels',
        part: 'CHAN.TXT',
        at: 0,
        stride: 18,
        count: 3,
        first: 1,
        present: { kind: 'sentinel', field: 'rx' },
        row: {
          rx: { kind: 'digits', at: 0, bytes: 7, unit: 100 },
          name: { kind: 'text', at: 8, bytes: 3 },
          scan: {
            kind: 'word',
            at: 12,
            bytes: 4,
            words: [
              { word: 'SCAN', value: true },
              { word: 'PASS', value: false },
            ],
          },
        },
      },
    ],
    settings: [],
    checksums: [],
  };
  const blank = `V1.0\r\n${`${' '.repeat(16)}\r\n`.repeat(3)}`;
  const bytes = (text: string) => Uint8Array.from(Buffer.from(text, 'latin1'));
  const content = {
    tables: {
      channels: [
        { number: 1, fields: { rx: 145_500_000, name: 'CAB', scan: true } },
        { number: 3, fields: { rx: 433_500_000, name: 'A', scan: false } },
      ],
    },
    settings: {},
  };
  test('are written as one reads them', () => {
    const image = writeTables(content, bytes(blank), format, context);
    expect(Buffer.from(image).toString('latin1')).toBe(
      'V1.0\r\n1455000 CAB SCAN\r\n                \r\n4335000 A   PASS\r\n',
    );
    expect(readTables(image, format, context)).toEqual({
      ok: true,
      value: { ...content, odd: [], unknown: {} },
    });
    // what is not named any more is blank again
    expect(writeTables({ tables: {}, settings: {} }, image, format, context)).toEqual(bytes(blank));
  });
  test('are refused where a line has another length, with the line', () => {
    const shifted = blank.replace(/\r\n {16}\r\n {16}/, '\r\n                 \r\n               ');
    expect(shifted).toHaveLength(blank.length);
    expect(readTables(bytes(shifted), format, context)).toEqual({
      ok: false,
      reason: 'Line 1 of CHAN.TXT is not 16 characters long.',
    });
    expect(readTables(bytes(blank.replace('V1.0\r', 'V1.0 ')), format, context)).toMatchObject({
      reason: expect.stringContaining('Line 1 of HEAD.TXT'),
    });
  });
});
