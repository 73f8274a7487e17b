import * as fc from '../property.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import { LAST_PERSON_ID } from '../people/person.schema';

import {
  decodePeople,
  encodePeople,
  nameOfPerson,
  peopleBytes,
  peopleMemoryOf,
  peopleRoom,
  type ShownName,
} from './people-memory';

const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex');

/** docs/models/osprey-d7.md has these, laid by hand. */
const TWO =
  '485250454f504c45' +
  '02000000' +
  '00000000' +
  '41420f00' +
  '51374144412041646120202020202020' +
  '89b31100' +
  '51375253202020202020202020202020';

test('two people lie as the page of the radio says, in whatever order they come', () => {
  const [ada, team] = [
    { id: 1_000_001, name: 'Q7ADA Ada' },
    { id: 1_160_073, name: 'Q7RS' },
  ];
  expect(hex(encodePeople([ada, team], ospreyD7))).toBe(TWO);
  expect(hex(encodePeople([team, ada], ospreyD7))).toBe(TWO);
  expect(decodePeople(new Uint8Array(Buffer.from(TWO, 'hex')), ospreyD7)).toEqual({
    ok: true,
    value: [ada, team],
  });
});

test('all of 400,000 take 8,000,016 bytes', () => {
  expect(peopleRoom(ospreyD7)).toBe(8_000_016);
  expect(peopleBytes(250_000, ospreyD7)).toBe(5_000_016);
  expect(peopleMemoryOf(kestrelC1)).toBeUndefined();
});

const anyName = fc.string({
  unit: fc.constantFrom(...ospreyD7.names.characters),
  minLength: 1,
  maxLength: 16,
});
const anyPeople = fc.uniqueArray(
  fc.record({
    id: fc.oneof(
      { weight: 3, arbitrary: fc.integer({ min: 1_000_000, max: 1_000_400 }) },
      { weight: 1, arbitrary: fc.integer({ min: 1, max: LAST_PERSON_ID }) },
    ),
    name: anyName.map((name) => name.trimEnd() || 'A'),
  }),
  { selector: ({ id }) => id, maxLength: 120, size: 'max' },
);

test('whoever goes in is found by their number, with their own name, and nobody else is', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anyPeople, fc.integer({ min: 999_990, max: 1_000_410 }), (people, asked) => {
      const bytes = encodePeople(people, ospreyD7);
      expect(decodePeople(bytes, ospreyD7)).toEqual({
        ok: true,
        value: [...people].sort((a, b) => a.id - b.id),
      });
      for (const { id, name } of people) expect(nameOfPerson(bytes, id, ospreyD7)).toBe(name);
      const who = people.find(({ id }) => id === asked);
      expect(nameOfPerson(bytes, asked, ospreyD7)).toBe(who?.name);
      reached.count('many', people.length > 20);
      reached.count('known', who !== undefined);
    }),
  );
  reached.expectShare('many', 0.2);
  reached.expectShare('known', 0.02);
});

test('what is cut off anywhere, or is of another kind, is no memory for people, and nobody is found in it', () => {
  const people: ShownName[] = Array.from({ length: 9 }, (_, n) => ({ id: 1_000_000 + n, name: `Q7A ${n}` }));
  const bytes = encodePeople(people, ospreyD7);
  for (let length = 0; length < bytes.length; length++) {
    expect(decodePeople(bytes.subarray(0, length), ospreyD7).ok).toBe(false);
    expect(nameOfPerson(bytes.subarray(0, length), 1_000_003, ospreyD7)).toBeUndefined();
  }
  const otherwise = bytes.slice();
  otherwise[0] = 0x4a;
  expect(decodePeople(otherwise, ospreyD7).ok).toBe(false);
  // The second row has the number of the first.
  const doubled = bytes.slice();
  doubled.set(bytes.subarray(16, 20), 36);
  expect(decodePeople(doubled, ospreyD7)).toMatchObject({
    ok: false,
    reason: expect.stringContaining('Person 2') as string,
  });
});

test('nobody is written twice, with too long a name, or into a radio that has no such memory', () => {
  const one = { id: 1_000_001, name: 'Q7ADA' };
  expect(() => encodePeople([one, { ...one, name: 'Q7ADB' }], ospreyD7)).toThrow('twice');
  expect(() => encodePeople([{ ...one, name: 'A'.repeat(17) }], ospreyD7)).toThrow('longer than 16');
  expect(() => encodePeople([one], kestrelC1)).toThrow('no memory for people');
});
