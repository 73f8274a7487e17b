import { ternP2 } from '../models/tern-p2';
import type { Codec } from '../models';
import { readField, UnreadableField, writeField } from './codec';

/** Single fields at their edges: what just fits, what does not, and bytes that hold no value. */

const bcd: Codec = { kind: 'bcd', at: 1, bytes: 2, unit: 10 };
const choice: Codec = { kind: 'choice', at: 0, shift: 2, width: 2, values: ['a', 'b', 'c'] };
const text: Codec = { kind: 'text', at: 0, bytes: 3 };
const written = (codec: Codec, value: string | number | null, bytes = new Uint8Array(4)) => {
  writeField(bytes, 0, codec, value, ternP2);
  return [...bytes];
};
const read = (codec: Codec, ...bytes: number[]) => readField(Uint8Array.from(bytes), 0, codec, ternP2);

test('figures in BCD, the lowest pair first: four of them fit into two bytes', () => {
  expect(written(bcd, 99_990)).toEqual([0, 0x99, 0x99, 0]);
  expect(written(bcd, 12_340)).toEqual([0, 0x34, 0x12, 0]);
  expect(written(bcd, 70)).toEqual([0, 0x07, 0, 0]);
  expect(written(bcd, null)).toEqual([0, 0xff, 0xff, 0]);
  expect(() => written(bcd, 100_000)).toThrow('No BCD for 100000');
  expect(() => written(bcd, 12_345)).toThrow('No BCD for 12345');
  expect(read(bcd, 0, 0x34, 0x12, 0)).toBe(12_340);
  expect(read(bcd, 0, 0xff, 0xff, 0)).toBeNull();
  expect(() => read(bcd, 0, 0x3a, 0x12, 0)).toThrow(UnreadableField);
  expect(() => read(bcd, 0, 0xff, 0x0f, 0)).toThrow(UnreadableField);
});

test('a choice has its bits and no others; a number beyond the last is none', () => {
  expect(written(choice, 'c', Uint8Array.of(0xff, 0, 0, 0))).toEqual([0xfb, 0, 0, 0]);
  expect(written(choice, 'b')).toEqual([0x04, 0, 0, 0]);
  expect(() => written(choice, 'd')).toThrow('d is not one of a, b, c');
  expect(read(choice, 0xf3)).toBe('a');
  expect(read(choice, 0xfb)).toBe('c');
  expect(() => read(choice, 0x0c)).toThrow('choice 3 of 3');
});

test('a text is filled with spaces, and no longer than its bytes', () => {
  expect(written(text, 'AB')).toEqual([0x41, 0x42, 0x20, 0]);
  expect(written(text, 'ABC')).toEqual([0x41, 0x42, 0x43, 0]);
  expect(() => written(text, 'ABCD')).toThrow('longer than 3');
  expect(read(text, 0x41, 0x20, 0x20)).toBe('A');
  expect(() => read(text, 0x41, 0x61, 0x20)).toThrow(UnreadableField);
});
