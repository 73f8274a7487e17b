import { fail, ok, type Result } from '../result';
import { cutText } from '../text';
import { ABBREVIATIONS, type Abbreviations } from './abbreviations';
import LETTERS from './letters.json';

/** What a model's display can write. */
export interface NameRules {
  length: number;
  /** Every character that the radio has, once. */
  characters: string;
}

export type FittedHow = 'whole' | 'abbreviated' | 'vowels' | 'spaces' | 'cut';
export interface FittedName {
  text: string;
  /** The last means that was needed. */
  how: FittedHow;
}

/** What is written with each letter of another script, and with each sign; scripts/write-letters.mjs makes the table. */
const LATIN_LETTERS = new Map(Object.entries(LETTERS));
const LONGEST_LETTER = Math.max(...[...LATIN_LETTERS.keys()].map(({ length }) => length));

/** A text with the letters of the table written in Latin ones, the longest first where two begin alike. */
function transliterate(text: string): string {
  let written = '';
  for (let at = 0; at < text.length;) {
    let length = LONGEST_LETTER;
    while (length > 0 && !LATIN_LETTERS.has(text.slice(at, at + length))) length--;
    const letter = length > 0 ? text.slice(at, at + length) : String.fromCodePoint(text.codePointAt(at)!);
    written += LATIN_LETTERS.get(letter) ?? letter;
    at += letter.length;
  }
  return written;
}

/**
 * The name in Latin letters without accents: accents of Latin letters are removed; letters that are more than an accent (Ł, đ,
 * Þ) and other scripts are written in Latin letters as far as the table knows them.
 */
export function latin(name: string): string {
  const plain = name.normalize('NFKD').replace(/(?<=\p{Script=Latin})\p{M}+/gu, '');
  // eslint-disable-next-line no-control-regex -- what is left is looked at by its range
  if (!/[^\x00-\x7f]/.test(plain)) return plain;
  return transliterate(plain.normalize('NFC'))
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .normalize()
    .replace(/\p{Pd}/gu, '-');
}

/**
 * A name in the characters that a radio has: without accents, in capitals where it has no small letters. Dashes, slashes and
 * other signs that it lacks part words; apostrophes and what cannot be written are left out.
 */
export function foldName(name: string, rules: NameRules): string {
  let folded = '';
  for (const character of latin(name).replace(/[\p{Pd}\u2212]/gu, '-')) {
    if (rules.characters.includes(character)) folded += character;
    else if (rules.characters.includes(character.toUpperCase())) folded += character.toUpperCase();
    else if (/[\s\p{P}\p{S}]/u.test(character) && !/['’`]/.test(character)) folded += ' ';
  }
  return folded.replace(/ +/g, ' ').trim();
}

/**
 * What has been worked out for a display: names that were fitted, and the abbreviations in its letters. A plan's names are
 * asked for with every keystroke and hardly ever change; the result depends on nothing else, so it can be kept.
 */
interface Known {
  names: Map<string, FittedName>;
  short: Map<string, string>;
}
const known = new WeakMap<NameRules, WeakMap<Abbreviations, Known>>();
/** Names that are kept for a display before all are forgotten. */
const KEPT_NAMES = 20_000;

function knownFor(rules: NameRules, abbreviations: Abbreviations): Known {
  const lists = known.get(rules) ?? new WeakMap<Abbreviations, Known>();
  known.set(rules, lists);
  let found = lists.get(abbreviations);
  if (!found || found.names.size > KEPT_NAMES) {
    const short = new Map(
      abbreviations.map(([word, form]) => [foldName(word, rules).toLowerCase(), foldName(form, rules)]),
    );
    found = { names: new Map(), short };
    lists.set(abbreviations, found);
  }
  return found;
}

/**
 * Shortens a name to what a radio can show: whole if it fits; with known abbreviations, in any case; without vowels, from
 * the right, but never a word's first letter; without spaces, where that is enough and joins no figures; cut, always the
 * longest word, so that what tells two names apart is kept. Figures and call signs are whole as long as anything else can go.
 * Stops as soon as it fits.
 *
 * @example fitName('Ullsmere Hill', { length: 11, characters }).text // 'ULLSMERE HL'
 */
export function fitName(
  name: string,
  rules: NameRules,
  abbreviations: Abbreviations = ABBREVIATIONS,
): FittedName {
  const { names, short } = knownFor(rules, abbreviations);
  let fitted = names.get(name);
  if (!fitted) names.set(name, (fitted = shorten(name, rules, short)));
  return fitted;
}

/** Words with the signs between them: `PERRIN-CROSS 2` is PERRIN, -, CROSS, a space and 2. */
const partsOf = (text: string) => text.split(/([ \-/+]+)/);
/** Numbers, frequencies, call signs: what says something only as a whole. */
const isWhole = (word: string) => /\d/.test(word);

function shorten(name: string, rules: NameRules, short: ReadonlyMap<string, string>): FittedName {
  let text = foldName(name, rules);
  if (text.length <= rules.length) return { text, how: 'whole' };

  const parts = partsOf(text).map((word) => short.get(word.toLowerCase()) ?? word);
  text = parts.join('');
  if (text.length <= rules.length) return { text, how: 'abbreviated' };

  for (let at = parts.length - 1; at >= 0; at--) {
    if (isWhole(parts[at]!)) continue;
    for (let i = parts[at]!.length - 1; i > 0; i--) {
      const word = parts[at]!;
      if (!/[AEIOUaeiou]/.test(word[i]!) || /[^A-Za-z]/.test(word[i - 1]!)) continue;
      parts[at] = word.slice(0, i) + word.slice(i + 1);
      text = parts.join('');
      if (text.length <= rules.length) return { text, how: 'vowels' };
    }
  }
  let joined = text;
  for (const gap of [...joined.matchAll(/(?<!\d) | (?!\d)/g)].reverse()) {
    joined = joined.slice(0, gap.index) + joined.slice(gap.index + 1);
    if (joined.length <= rules.length) return { text: joined, how: 'spaces' };
  }
  return { text: cutWords(text, rules.length), how: 'cut' };
}

/**
 * Takes last letters off the longest word (the first of several) until all fits; words keep one letter, then go without the
 * signs between them. Words with figures are cut last, from the front, since the end is what tells them apart.
 */
function cutWords(text: string, length: number): string {
  const parts = partsOf(text);
  const size = () => parts.reduce((sum, part) => sum + part.length, 0);
  const letters = () =>
    parts.reduce(
      (best, part, at) =>
        at % 2 === 0 && !isWhole(part) && part.length > 1 && part.length > (parts[best]?.length ?? 0)
          ? at
          : best,
      -1,
    );
  for (let at = letters(); size() > length && at >= 0; at = letters()) parts[at] = parts[at]!.slice(0, -1);
  for (let at = parts.length - 2; size() > length && at > 0; at -= 2)
    if (!(isWhole(parts[at - 1]!) && isWhole(parts[at + 1]!))) parts[at] = '';
  for (let at = parts.length - 1; size() > length && at >= 0; at--)
    if (at % 2 === 0 && !isWhole(parts[at]!)) parts[at] = '';
  const rest = parts.join('').trim();
  return rest.slice(Math.max(0, rest.length - length)).trim();
}

/** Tails that tell a name from another: figures, or where it ends in a figure letters, so that no other number comes of it. */
function* tails(rules: NameRules, afterFigure: boolean): Generator<string> {
  const letters = [...'BCDEFGHIJKLMNOPQRSTUVWXYZ'].filter((letter) => rules.characters.includes(letter));
  if (afterFigure) yield* letters;
  for (let n = 2; ; n++) {
    if (!afterFigure) yield String(n);
    else for (const letter of letters.length > 0 ? letters : ['']) yield `${letter}${n}`;
  }
}

/**
 * Tells apart names that come out alike: the first keeps its text, the others get a tail that makes no name that somebody
 * else has by right, whether before or after it, and no other number. Names marked `byHand` stay as they are; empty names are left alone.
 *
 * @example tellApart(['CH 1', 'CH 1', 'CH 12'].map(text => ({ text, byHand: false })), rules) // CH 1, CH 1B, CH 12
 */
export function tellApart(names: readonly { text: string; byHand: boolean }[], rules: NameRules): string[] {
  // Whoever has a text first has it by right, wherever in the list.
  const taken = new Set<string>();
  for (const { text } of names) taken.add(text);
  if (taken.size === names.length) return names.map(({ text }) => text);
  const first = new Set<string>(names.flatMap(({ text, byHand }) => (byHand ? [text] : [])));
  // What has been taken stays taken, so that the search goes on where it ended last.
  const next = new Map<string, Generator<string>>();
  return names.map(({ text, byHand }) => {
    if (byHand || text === '') return text;
    if (!first.has(text)) {
      first.add(text);
      return text;
    }
    for (let tries = 0; ; tries++) {
      const afterFigure = /\d$/.test(cutWords(text, rules.length - 1));
      const search = next.get(text) ?? tails(rules, afterFigure);
      next.set(text, search);
      const tail = search.next().value as string;
      const head = cutWords(text, Math.max(0, rules.length - tail.length));
      // Cut further, the head may end in a figure all the same; where every one does, there is nothing better.
      const joins = /\d$/.test(head) && /^\d/.test(tail) && tries < 100;
      const candidate = head + tail;
      if (joins || taken.has(candidate)) continue;
      taken.add(candidate);
      return candidate;
    }
  });
}

/**
 * Reads a name template: fields in braces with an optional width, `{call}`, `{city:6}-{band}`. What comes of it fills it, once for each
 * entry; a field that nobody knows is refused.
 */
export function nameTemplate<K extends string>(
  template: string,
  known: readonly K[],
): Result<(fieldOf: (key: K) => string) => string> {
  const open = template.replace(/\{[^{}]*\}/g, '');
  if (/[{}]/.test(open)) return fail('A brace is not closed. Write fields as {name} or {name:6}.');
  // Words and fields in turn.
  const parts: (string | { key: K; width: number })[] = [];
  for (const [at, part] of template.split(/\{([^{}]*)\}/).entries()) {
    if (at % 2 === 0) {
      if (part !== '') parts.push(part);
      continue;
    }
    const [, name, width] = /^\s*([a-z]+)\s*(?::\s*(\d{1,2})\s*)?$/.exec(part) ?? [];
    const key = known.find((one) => one === name);
    if (key === undefined)
      return fail(`There is no field {${part}}. Known are ${known.map((one) => `{${one}}`).join(', ')}.`);
    parts.push({ key, width: width === undefined ? Infinity : Number(width) });
  }
  return ok((fieldOf) => {
    let text = '';
    for (const part of parts)
      text += typeof part === 'string' ? part : cutText(fieldOf(part.key), part.width);
    return (text.includes('  ') ? text.replace(/ +/g, ' ') : text).trim();
  });
}

/** Fills a name template with the fields of one entry; a field that it does not have is empty. */
export function fillTemplate(template: string, fields: Readonly<Record<string, string>>): Result<string> {
  const read = nameTemplate(template, Object.keys(fields));
  return read.ok ? ok(read.value((key) => fields[key]!)) : read;
}
