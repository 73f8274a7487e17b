import type { z } from 'zod';
import type { Squelch } from '../radio';
import type { Result } from '../result';

/** A place on Earth, degrees. */
interface Coordinate {
  lat: number;
  lon: number;
}

type Part = number | string | boolean | Coordinate | null;

/**
 * A value as a field holds it: a frequency in Hz or null, a choice, a tone or code or null, a text, a set of numbers in their order, a place
 * on Earth, or several of these.
 */
export type FieldValue = Part | Squelch | readonly number[] | readonly (Part | readonly Part[])[];

/** What a codec is told of the radio: its lists, by whose places tones and codes stand in bytes. */
export interface CodecContext {
  /** Tenths of Hz. */
  tones: readonly number[];
  codes: readonly number[];
  /** What its texts are written with. */
  characters: string;
}

/**
 * How one kind of value stands in bytes, whole in one file. Offsets in a specification are counted from the record (of a
 * setting, from its part of the image).
 */
export interface CodecKind<S extends z.ZodType> {
  /** The specification: where it stands and how, as data. */
  schema: S;
  /** The bits that it owns, by offset and mask; it changes no others. */
  bits(spec: z.output<S>): readonly (readonly [at: number, mask: number])[];
  /** The value whose record begins at `base`; fails with a few words where the bytes hold none. */
  read(image: Uint8Array, base: number, spec: z.output<S>, context: CodecContext): Result<FieldValue>;
  /** Writes a value; throws where it is not one that the fit may give, which is a mistake of Veridon and no input. */
  write(image: Uint8Array, base: number, spec: z.output<S>, value: FieldValue, context: CodecContext): void;
}

/** Says what a codec is, with its types kept. */
export const defineCodec = <S extends z.ZodType>(kind: CodecKind<S>): CodecKind<S> => kind;

/** Sets the bits of a mask in one byte and leaves the others. */
export function setBits(image: Uint8Array, at: number, mask: number, value: number): void {
  image[at] = (image[at]! & ~mask) | (value & mask);
}

/** The tone or code that a value is, or null; throws where it is something else. */
export function asSquelch(value: FieldValue): Squelch | null {
  if (value === null) return null;
  if (typeof value === 'object' && 'kind' in value) return value;
  throw new Error(`${String(value)} is no tone or code`);
}

/** The numbers that a value is; throws where it is something else, or has one that is not among `count` from `first` up. */
export function asNumbers(value: FieldValue, first: number, count: number): readonly number[] {
  const numbers = Array.isArray(value) ? (value as readonly number[]) : undefined;
  if (!numbers || numbers.some((one) => !Number.isInteger(one) || one < first || one >= first + count))
    throw new Error(`${String(value)} are not numbers from ${first} to ${first + count - 1}`);
  return numbers;
}

/** Whole bytes from an offset on, as bits that are owned. */
export const wholeBytes = (at: number, bytes: number): [number, number][] =>
  Array.from({ length: bytes }, (_, index) => [at + index, 0xff]);
