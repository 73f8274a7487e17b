import fc from 'fast-check';
import { fillTemplate, fitName, foldName, tellApart } from '.';

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
  ])('%s in %d', (name, length, text, how) =>
    expect(fitName(name, { length, characters })).toEqual({ text, how }),
  );

  test('accents are folded, what the radio lacks goes', () => {
    expect(foldName('Åsgård  Høyde!', SIX)).toBe('ASGARD HOYDE');
    expect(foldName('a_b', { length: 6, characters: 'abAB_' })).toBe('a_b');
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

  test('told apart means unique', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('A', 'AB', 'ABCDEF', 'ABCDE2', 'ABCDEG'), { maxLength: 40 }),
        (texts) => {
          const apart = tellApart(
            texts.map((text) => ({ text, byHand: false })),
            SIX,
          );
          expect(new Set(apart).size).toBe(texts.length);
          expect(apart.every((text) => text.length <= 6)).toBe(true);
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
