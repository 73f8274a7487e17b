import { z } from 'zod';
import { isKeepable, lengthOf } from './text';

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
