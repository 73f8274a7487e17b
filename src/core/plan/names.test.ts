import * as fc from '../property.test.kit';
import transliterate from '@sindresorhus/transliterate';
import { fillTemplate, fitName, foldName, tellApart } from '.';
import LETTERS from './letters.json';
import { latin } from './names';

const characters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789 -/+.*';
const SIX = { length: 6, characters };

describe('the name fitter', () => {
  test.each([
    ['Quill', 6, 'QUILL', 'whole'],
    ['Farrow Hill', 9, 'FARROW HL', 'abbreviated'],
    ['Calling 2 m', 6, 'CL 2 M', 'abbreviated'],
    ['Garrowick', 8, 'GARROWCK', 'vowels'],
    ['Garrowick', 6, 'GRRWCK', 'vowels'],
    ['Isle Weather North', 6, 'IS WXN', 'spaces'],
    ['Ashgill', 5, 'ASHGL', 'cut'],
    ['Ullsmere Hill', 6, 'ULL HL', 'cut'],
    ['Garrowick Ridge 2', 6, 'G RD 2', 'cut'],
    // call signs and figures are whole as long as anything else can go
    ['Ullsmere Q7ABE', 8, 'UL Q7ABE', 'cut'],
    ['Ashgill 438.425', 8, 'A438.425', 'cut'],
    ['Q7ABE Ullsmere', 6, 'Q7ABEU', 'cut'],
    ['438.425 Ashgill', 7, '438.425', 'cut'],
    ['Harbour 1 2', 6, 'HBR1 2', 'spaces'],
    // a vowel behind a sign begins a word of its own
    ['Be.ach', 5, 'B.ACH', 'vowels'],
    // a dash parts words, whose abbreviations are known in any case
    ['PERRIN-cross', 8, 'PERRIN-X', 'abbreviated'],
  ])('%s in %d', (name, length, text, how) =>
    expect(fitName(name, { length, characters })).toEqual({ text, how }),
  );

  test('accents are folded, what the radio lacks goes', () => {
    expect(foldName('Åsgård  Høyde!', SIX)).toBe('ASGARD HOYDE');
    expect(foldName('a_b', { length: 6, characters: 'abAB_' })).toBe('a_b');
    expect(foldName('a_b', SIX)).toBe('A B');
    const letters = { length: 16, characters: 'ABCDEFGHIJKLMNOPQRSTUVWXYZ ' };
    expect(foldName('Perrin–Cross', letters)).toBe('PERRIN CROSS');
    expect(foldName("Hestin's", letters)).toBe('HESTINS');
  });

  test('letters that are more than an accent, and other scripts, are written in Latin ones', () => {
    expect(foldName('Łódka', SIX)).toBe('LODKA');
    expect(foldName('Đurđ', SIX)).toBe('DURD');
    expect(foldName('Þingey', SIX)).toBe('THINGEY');
    expect(foldName('Мост', SIX)).toBe('MOST');
    expect(foldName('Όρος', SIX)).toBe('OROS');
    expect(foldName('丘', SIX)).toBe('');
  });

  test('the table of letters says what the transliteration package says, alone and one after the other', () => {
    const expected = (text: string) => {
      const plain = text.normalize('NFKD').replace(/(?<=\p{Script=Latin})\p{M}+/gu, '');
      // Signs of ASCII that can be accents (^ and `) stay where nothing else is written otherwise.
      return /^\p{ASCII}*$/u.test(plain) ? plain : transliterate(plain.normalize('NFC'));
    };
    // Every character of the first plane, those of the signs above it, and all that the table has.
    const all = Array.from({ length: 0x1_f800 }, (_, code) => code)
      .filter((code) => code < 0xd800 || (code > 0xdfff && code <= 0xffff) || code >= 0x1_f000)
      .map((code) => String.fromCodePoint(code));
    const letters = Object.keys(LETTERS);
    expect(letters.length).toBeGreaterThan(500);
    expect([...all, ...letters].filter((letter) => latin(letter) !== expected(letter))).toEqual([]);
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.constantFrom(...letters), fc.string({ unit: 'grapheme', maxLength: 2 })), {
          maxLength: 12,
        }),
        (parts) => expect(latin(parts.join(''))).toBe(expected(parts.join(''))),
      ),
      { numRuns: 500 },
    );
  });

  test('abbreviations go by the word, whatever its case', () => {
    const both = { length: 6, characters: characters + characters.toLowerCase() };
    expect(fitName('quill HARBOUR', { ...both, length: 9 }, [['Harbour', 'Hbr']]).text).toBe('quill Hbr');
  });

  test('whatever comes out can be shown', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 32 }),
        fc.integer({ min: 3, max: 16 }),
        (name, length) => {
          const { text } = fitName(name, { length, characters });
          expect(text.length).toBeLessThanOrEqual(length);
          expect([...text].every((character) => characters.includes(character))).toBe(true);
        },
      ),
    );
  });

  test('alike names are told apart at the tail, hand-fitted ones stay', () => {
    const names = ['KTRBY', 'KTRBY', 'KETTER', 'KETTER', ''].map((text, i) => ({ text, byHand: i === 1 }));
    expect(tellApart(names, SIX)).toEqual(['KTRBY2', 'KTRBY', 'KETTER', 'KETTE2', '']);
  });

  test.each([
    // a tail makes no name that a third has by right, before it or after it, and no other number
    [
      ['CH 1', 'CH 1', 'CH 12'],
      ['CH 1', 'CH 1B', 'CH 12'],
    ],
    [
      ['CH 1B', 'CH 1', 'CH 1'],
      ['CH 1B', 'CH 1', 'CH 1C'],
    ],
    [
      ['438.4', '438.4'],
      ['438.4', '438.4B'],
    ],
    [
      ['QUAY', 'QUAY', 'QUAY2'],
      ['QUAY', 'QUAY3', 'QUAY2'],
    ],
    [
      ['STN 12', 'STN 12'],
      ['STN 12', 'ST 12B'],
    ],
    [
      ['123456', '123456'],
      ['123456', '23456B'],
    ],
  ])('%j', (texts, apart) =>
    expect(
      tellApart(
        texts.map((text) => ({ text, byHand: false })),
        SIX,
      ),
    ).toEqual(apart),
  );

  test('told apart means unique, the first of each kept, and no number run into another', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'A',
            'AB',
            'ABCDEF',
            'ABCDE2',
            'ABCDEG',
            'CH 1',
            'CH 12',
            'CH 1B',
            '438.42',
            '123456',
          ),
          { maxLength: 60 },
        ),
        (texts) => {
          const apart = tellApart(
            texts.map((text) => ({ text, byHand: false })),
            SIX,
          );
          expect(new Set(apart).size).toBe(texts.length);
          expect(apart.every((text) => text.length <= 6)).toBe(true);
          for (const [i, text] of texts.entries()) {
            if (texts.indexOf(text) === i) expect(apart[i]).toBe(text);
            else if (/\d$/.test(text)) expect(apart[i]).toMatch(/[A-Z]\d*$/);
          }
        },
      ),
    );
  });
});

describe('name templates', () => {
  const fields = { call: 'Q7KET', city: 'Ketterby', band: '2 m' };
  test('fields and widths', () => {
    expect(fillTemplate('{call}', fields)).toEqual({ ok: true, value: 'Q7KET' });
    expect(fillTemplate('{city:3}-{band}', fields)).toEqual({ ok: true, value: 'Ket-2 m' });
  });
  test('an unknown field or open brace is refused, naming it', () => {
    expect(fillTemplate('{town}', fields)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('{town}'),
    });
    expect(fillTemplate('{call', fields)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('not closed'),
    });
  });
});
