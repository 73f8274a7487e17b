import { nearSpellings } from './spelling';

const TOWNS = ['Ketterby', 'Little Ketter', 'Norrast', 'Strand', 'Hollin Bay', 'Hallin', 'Farrow Point'];
const of = (typed: string) => nearSpellings(typed, TOWNS, (name) => name);

test.each([
  ['Keterby', 'Ketterby'], // one letter of eight
  ['ketterbee', 'Ketterby'], // two of nine
  ['norast', 'Norrast'],
  ['Fárrow-Point', 'Farrow Point'], // signs and accents are nothing
  ['Hollin', 'Hallin'], // one of six, and Hollin Bay is four away
])('%s surely means %s, or not', (typed, meant) => {
  expect(of(typed).meant).toBe(meant);
});

test('of several as near none is sure; all are offered, nearest first', () => {
  expect(nearSpellings('bard', ['Card', 'Ward', 'Lard'], (name) => name)).toEqual({
    near: ['Card', 'Ward', 'Lard'],
    meant: null,
  });
  expect(of('Halin').near[0]).toBe('Hallin');
});

test('what is like none is not offered any', () => {
  expect(of('Xyzzyxyz')).toEqual({ near: [], meant: null });
  expect(of('')).toEqual({ near: [], meant: null });
});
