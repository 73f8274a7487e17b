/**
 * Text as people, files and services hand it in, checked and cut in one place. Lengths count characters (Unicode code
 * points), not the halves of which a program may make them. What no database can hold is refused: NUL (PostgreSQL, "8.3
 * Character Types") and half of a surrogate pair, which is no character (Unicode 16, D73).
 */

const UNKEEPABLE = /[\0\p{Cs}]/u;
const ALL_UNKEEPABLE = new RegExp(UNKEEPABLE, 'gu');

/** True where a database can hold the text. */
export const isKeepable = (text: string): boolean => !UNKEEPABLE.test(text);

/** The length in characters: `lengthOf('𝄞')` is 1. */
export function lengthOf(text: string): number {
  let length = 0;
  for (const _ of text) length++;
  return length;
}

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

/** Characters of a text that are said again in a sentence. */
const QUOTED = 40;

/** A text as it is said again in a sentence: in quotation marks, and cut where it is long. */
export function quoted(whole: string): string {
  const text = whole.trim();
  return text.length > QUOTED ? `“${cutText(text, QUOTED)}…”` : `“${text}”`;
}

/** Words as a sentence begins with them: `capital('no room')` is “No room”. */
export const capital = (words: string): string => words.slice(0, 1).toUpperCase() + words.slice(1);

/** The text with what cannot be kept taken out: for what services and old files say. */
export const keepableText = (from: string): string =>
  UNKEEPABLE.test(from) ? from.replace(ALL_UNKEEPABLE, '') : from;

/** True for a text in which something stands. To trim each of half a million cells costs more than to look at its first sign. */
export const isWritten = (text: string): boolean => {
  const first = text.charCodeAt(0);
  return (first > 0x20 && first < 0x7f) || text.trim() !== '';
};

/**
 * So many seconds in words, as somebody would say how long to wait.
 *
 * @example durationText(110) // '1 min 50 s'
 */
export function durationText(seconds: number): string {
  const whole = Math.max(1, Math.round(seconds));
  const [minutes, rest] = [Math.floor(whole / 60), whole % 60];
  if (minutes === 0) return `${rest} s`;
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`;
}
