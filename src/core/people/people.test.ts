import * as fc from '../property.test.kit';

import { findPeople, lineOf, rollReader, type Person, type PeopleText } from '.';

/** The Ident Roll as it comes, whole, in pieces, cut off and spoilt; and people found in it. */

const encode = (text: string) => new TextEncoder().encode(text);
const row = (id: unknown, more: object = {}) => ({
  ...{ id, call: 'Q7WND', first: 'Wenna', last: 'Daskow', town: 'Ketterby', island: 'Ullsmere' },
  ...more,
});
const roll = (people: unknown[]) => JSON.stringify({ roll: 'Ident Roll', made: '2026-11-20', people });

/** Reads bytes in pieces that end at some places. */
function read(bytes: Uint8Array, places: readonly number[] = []) {
  const reader = rollReader();
  const people: Person[] = [];
  const ends = [...new Set([...places, bytes.length])].sort((a, b) => a - b);
  let from = 0;
  for (const to of ends) {
    const taken = reader.take(bytes.subarray(from, to));
    if (!taken.ok) return { people, end: taken };
    people.push(...taken.value);
    from = to;
  }
  return { people, end: reader.end() };
}

test('a roll is read as it stands, with who made it when', () => {
  const { people, end } = read(encode(roll([row(1_000_001), row(1_000_002, { call: 'q8bee', town: null })])));
  expect(people).toEqual([
    { id: 1_000_001, call: 'Q7WND', first: 'Wenna', last: 'Daskow', town: 'Ketterby', area: 'Ullsmere' },
    { id: 1_000_002, call: 'Q8BEE', first: 'Wenna', last: 'Daskow', town: '', area: 'Ullsmere' },
  ]);
  expect(end).toEqual({ ok: true, value: { made: '2026-11-20', people: 2, odd: { count: 0, first: [] } } });
});

test.each([
  ['a number that comes twice', row(1_000_001), '1000001 stands there twice; its first row was taken.'],
  // 24 bits go to 16,777,215; the last 511 and 0 are nobody's.
  ['a number beyond', row(16_776_416), '16776416 is no number of a person: they run from 1 to 16776415.'],
  ['nobody', row(0), '0 is no number of a person'],
  ['a number as text', row('1000009'), 'Its number is no whole number.'],
  ['half a number', row(10.5), 'Its number is no whole number.'],
  ['no number', { call: 'Q7AAA' }, 'Its number is missing.'],
  [
    'neither name nor call',
    row(1_000_009, { call: '', first: ' ', last: '\u0007' }),
    'neither a call sign nor a name',
  ],
  ['a text', 'Wenna', 'It is no row of a roll.'],
  ['nothing', null, 'It is no row of a roll.'],
])('%s is left out and told, and the others are taken', (_what, bad, reason) => {
  const { people, end } = read(encode(roll([row(1_000_001), bad, row(1_000_002)])));
  expect(people.map(({ id }) => id)).toEqual([1_000_001, 1_000_002]);
  expect(end.ok && end.value.odd).toEqual({
    count: 1,
    first: [{ row: 2, reason: expect.stringContaining(reason) as string }],
  });
});

test('names in any script are kept; signs that no list has are not; what is too long is cut and told', () => {
  const { people, end } = read(
    encode(
      roll([row(5, { first: 'Ж\u0000о\u0007н', last: '李 \t 氏' }), row(6, { first: 'L'.repeat(10_000) })]),
    ),
  );
  expect(people[0]).toMatchObject({ first: 'Жо н', last: '李 氏' });
  expect(people[1]!.first).toBe('L'.repeat(40));
  expect(end.ok && end.value.odd.first).toEqual([{ row: 2, reason: '6: first cut, it was too long.' }]);
});

test.each([
  ['nothing', '', 'Nothing came of the roll.'],
  ['a page', '<html>The roll is being copied out</html>', 'What came is no Ident Roll: it is no JSON.'],
  ['another shape', '{"listed":[{"id":1}]}', 'There is nobody in what came'],
  ['an empty list', '{"people":[]}', 'There is nobody in what came'],
  [
    'only odd rows',
    '{"people":[1,2]}',
    'None of the 2 rows of this roll is a person. The first: It is no row of a roll.',
  ],
  ['half of it', roll([row(1), row(2)]).slice(0, -40), 'It was cut off after row 1.'],
  [
    'a page in the middle',
    `${roll([row(1)]).slice(0, -2)},<html>`,
    'It breaks off after row 1: what follows is no JSON.',
  ],
  [
    'a row without an end',
    `{"people":[{"id":1,"call":"${'x'.repeat(1_100_000)}`,
    'Row 1 goes on for more than 1 MB',
  ],
])('%s is no roll, and is said to be so', (_what, text, reason) => {
  const { end } = read(encode(text));
  expect(!end.ok && end.reason).toContain(reason);
});

const anyText = fc.oneof(
  fc.constantFrom('Wenna', 'Torrin', 'Q7WND', 'Ketterby', 'São', 'ŌTARA'),
  fc.string({ unit: 'grapheme', maxLength: 30 }),
);
const anyRow = fc.oneof(
  {
    weight: 9,
    arbitrary: fc
      .record(
        {
          id: fc.oneof(
            { weight: 8, arbitrary: fc.integer({ min: 1, max: 60 }) },
            { weight: 1, arbitrary: fc.integer() },
          ),
          call: anyText,
          first: anyText,
          last: anyText,
          town: anyText,
          island: anyText,
        },
        { noNullPrototype: true },
      )
      .map((one) => (one.id % 3 === 0 ? one : { ...one, call: `of ${one.id}` })),
  },
  { weight: 1, arbitrary: fc.jsonValue() },
);

test('in whatever pieces it comes, it is the same; cut off anywhere it is none; every row is taken or told', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      fc.array(anyRow, { minLength: 1, maxLength: 30 }),
      fc.array(fc.nat({ max: 4000 })),
      fc.nat({ max: 10_000 }),
      (rows, places, cutAt) => {
        const bytes = encode(roll(rows));
        const whole = read(bytes);
        const within = places.filter((place) => place < bytes.length);
        expect(read(bytes, within)).toEqual(whole);
        const numbers = whole.people.map(({ id }) => id);
        expect(new Set(numbers).size).toBe(numbers.length);
        // Its own row, and no other: a number and its name never part.
        for (const { id, call } of whole.people) if (call.startsWith('OF ')) expect(call).toBe(`OF ${id}`);
        if (whole.end.ok) {
          const { people, odd } = whole.end.value;
          expect(people).toBe(whole.people.length);
          const cut = odd.first.filter(({ reason }) => reason.includes('cut, it was too long')).length;
          expect(people + odd.count - cut).toBe(rows.length);
        }
        reached.count('read', whole.end.ok);
        reached.count('cut', cutAt < bytes.length);
        if (cutAt < bytes.length) {
          expect(read(bytes.subarray(0, cutAt)).end.ok).toBe(false);
        }
      },
    ),
    { numRuns: 300 },
  );
  reached.expectShare('read', 0.2);
  reached.expectShare('cut', 0.1);
});

const person = (id: number, call: string, first: string, last: string, town: string): Person => ({
  ...{ id, call, first, last, town, area: 'Ullsmere' },
});
const LISTED = [
  person(1_000_001, 'Q7WND', 'Wenna', 'Daskow', 'Ketterby'),
  person(1_000_012, 'Q7WNE', 'Torrin', 'Harrick', 'Tamsin Quay'),
  person(1_000_123, 'Q8ABC', 'Édel', 'Wendick', 'Wend'),
];
const all: PeopleText = {
  text: LISTED.map(({ id, call, first, last, town, area }) =>
    lineOf(id, `${call} ${first} ${last} ${town} ${area}`),
  ).join(''),
};

test.each([
  ['q7w', [1_000_001, 1_000_012]],
  ['wen', [1_000_001, 1_000_123]],
  ['1000012', [1_000_012]],
  ['10000', [1_000_001, 1_000_012]],
  ['torrin tam', [1_000_012]],
  ['quay', [1_000_012]],
  ['edel', [1_000_123]],
  ['ÉDEL ullsmere', [1_000_123]],
  // The beginning of a word, not its middle.
  ['enna', []],
  ['wenna tamsin', []],
  ['', []],
  [' , ', []],
])('“%s” finds those of whom every word begins a word', (question, ids) => {
  expect(findPeople(all, question, 10)).toEqual({ ids, more: false });
});

test('no more than are wanted, and whether there are others', () => {
  expect(findPeople(all, 'ullsmere', 2)).toEqual({ ids: [1_000_001, 1_000_012], more: true });
  expect(findPeople(all, 'ullsmere', 3)).toEqual({ ids: [1_000_001, 1_000_012, 1_000_123], more: false });
});
