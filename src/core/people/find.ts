/**
 * People found as one types: by number, call sign, name and place. All of them stand in one text, a line each, so that hundreds of thousands
 * are looked through in a few ms; a word counts where it begins a word there.
 */
export interface PeopleText {
  /** Lines of ` number call first last town area`, small letters, in the order of their numbers. */
  readonly text: string;
}

/** As it is compared: small letters without their accents. */
export const folded = (text: string): string =>
  // Most texts have no accents.
  /^[ -~]*$/.test(text) ? text.toLowerCase() : text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The line of a person: the number, and `words` of call sign, name and place. */
export const lineOf = (id: number, words: string): string => ` ${id} ${folded(words)}\n`;

/** Words of a question that are looked for at most. */
const MOST_WORDS = 6;

/**
 * The numbers of those of whom every word begins a word of their line, by number, at most so many; `more` where there are others. Nothing is
 * found by no word.
 */
export function findPeople(
  { text }: PeopleText,
  question: string,
  most: number,
): { ids: number[]; more: boolean } {
  const words = folded(question)
    .split(/[\s,;]+/)
    .filter(Boolean)
    .slice(0, MOST_WORDS)
    .map((word) => ` ${word}`);
  // The longest is the rarest, most likely: it leads, the others are looked for in its line.
  const [lead, ...others] = [...words].sort((a, b) => b.length - a.length);
  const ids: number[] = [];
  if (lead === undefined) return { ids, more: false };
  for (let at = text.indexOf(lead); at >= 0;) {
    const begin = text.lastIndexOf('\n', at) + 1;
    const end = text.indexOf('\n', at);
    const line = text.slice(begin, end);
    if (others.every((word) => line.includes(word))) {
      if (ids.length === most) return { ids, more: true };
      ids.push(Number.parseInt(line.slice(1), 10));
    }
    at = text.indexOf(lead, end);
  }
  return { ids, more: false };
}
