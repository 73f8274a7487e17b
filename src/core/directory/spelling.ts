import leven from 'leven';

const plain = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Most that are offered. */
const MOST = 5;

/**
 * The names nearest in spelling to what was typed, by the letters that one has to change (Levenshtein), nearest first; those that
 * differ in nearly half of their letters are none. `meant` is the one that is surely meant: it alone is nearest, and by no more
 * than one letter in four.
 *
 * @example nearSpellings('keterby', towns, ({ name }) => name) // { near: [Ketterby, …], meant: Ketterby }
 */
export function nearSpellings<T>(
  typed: string,
  all: readonly T[],
  nameOf: (one: T) => string,
): { near: T[]; meant: T | null } {
  const wanted = plain(typed);
  const ranked = all
    .map((one) => {
      const name = plain(nameOf(one));
      return { one, away: leven(wanted, name), length: Math.max(wanted.length, name.length) };
    })
    .filter(({ away, length }) => away <= length * 0.45)
    .sort((a, b) => a.away - b.away);
  const [first, second] = ranked;
  const sure = first !== undefined && first.away <= first.length / 4 && second?.away !== first.away;
  return { near: ranked.slice(0, MOST).map(({ one }) => one), meant: sure ? first.one : null };
}
