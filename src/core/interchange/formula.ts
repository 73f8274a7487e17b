/** True where a spreadsheet could run a text: the first sign that is seen is one of = + - @, also full-width or otherwise the same (NFKC, Unicode 16, annex 15), or a tab or line break begins it, which some programs leave out. */
function runs(text: string): boolean {
  const seen = text.replace(/^[\s\p{C}\p{Z}\p{M}]+/u, '');
  const first = String.fromCodePoint(seen.codePointAt(0) ?? 0).normalize('NFKC');
  return /^[=+\-\u2212@]/.test(first) || /^[\t\r\n]/.test(text);
}

/** What stands behind apostrophes that were put there, or that look so. */
const behind = (text: string) => text.replace(/^'+/, '');

/**
 * A text that no spreadsheet runs as a formula: an apostrophe stands before what one could run, which spreadsheets do not show. One that
 * looks so already gets another, so that `armed` gives every text back.
 */
export const defused = (text: string): string => (runs(behind(text)) ? `'${text}` : text);

/** The text that was made `defused`. What never was stays as it is, but for an apostrophe before what runs. */
export const armed = (text: string): string =>
  text.startsWith("'") && runs(behind(text)) ? text.slice(1) : text;
