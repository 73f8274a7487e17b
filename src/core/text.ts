import { z } from 'zod';

/**
 * Text as people, files and services hand it in, checked and cut in one place. Lengths count characters (Unicode code
 * points), not the halves of which a program may make them. What no database can hold is refused: NUL (PostgreSQL, "8.3
 * Character Types") and half of a surrogate pair, which is no character (Unicode 16, D73).
 */

const UNKEEPABLE = /[\0\p{Cs}]/u;

/** True where a database can hold the text. */
export const isKeepable = (text: string): boolean => !UNKEEPABLE.test(text);

/** The length in characters: `lengthOf('𝄞')` is 1. */
export function lengthOf(text: string): number {
  let length = 0;
  for (const _ of text) length++;
  return length;
}

const keepable = (schema: z.ZodString) =>
  schema.refine(isKeepable, 'holds a character that cannot be kept (NUL, or half of a character)');

const atMost = (schema: z.ZodType<string, string>, most: number) =>
  schema.refine(
    // Characters are never more than their halves: nearly every text is short enough without being counted.
    (value) => value.length <= most || lengthOf(value) <= most,
    `is longer than ${most} characters`,
  );

// Zod's own limit, in halves, stands first, so that a text of megabytes is refused without being counted; it also tells the
// OpenAPI document of a limit.
const bounded = (most: number) => z.string().max(most * 2, `is longer than ${most} characters`);

/** A text of at most so many characters. */
export const text = (most: number) => atMost(keepable(bounded(most)), most);

/** A text of at most so many characters, without white space at its ends. */
export const trimmedText = (most: number) => atMost(keepable(bounded(most).trim()), most);

/** A trimmed text of one character at least. */
export const wantedText = (most: number) => trimmedText(most).refine((value) => value !== '', 'is empty');

const clusters = new Intl.Segmenter('en', { granularity: 'grapheme' });

/**
 * The text cut to at most so many characters. What people see as one (a letter with its accents, a flag) is kept or left
 * whole; white space at the new end goes.
 */
export function cutText(whole: string, most: number): string {
  if (whole.length <= most) return whole;
  let cut = '';
  let room = most;
  for (const { segment } of clusters.segment(whole)) {
    room -= lengthOf(segment);
    if (room < 0) return cut.trimEnd();
    cut += segment;
  }
  return cut;
}

/** The text with what cannot be kept taken out: for what services and old files say. */
export const keepableText = (from: string): string => from.replace(new RegExp(UNKEEPABLE, 'gu'), '');
