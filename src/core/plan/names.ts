import { z } from 'zod';
import { fail, ok, type Result } from '../result';
import { cutText, wantedText } from '../text';

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

/** A list of short forms, as word and short form; each word once, whatever its case. */
export const abbreviationsSchema = z
  .array(
    z.tuple([wantedText(32).refine((word) => !/\s/.test(word), 'is more than one word'), wantedText(12)]),
  )
  .max(500)
  .refine(
    (list) => new Set(list.map(([word]) => word.toLowerCase())).size === list.length,
    'has a word twice',
  );
export type Abbreviations = readonly (readonly [string, string])[];

/** The usual short forms, which a plan without a list of its own goes by. */
export const ABBREVIATIONS: Abbreviations = [
  ['Calling', 'CL'],
  ['Channel', 'CH'],
  ['Cross', 'X'],
  ['East', 'E'],
  ['Emergency', 'EMG'],
  ['Ferries', 'FRY'],
  ['Ferry', 'FRY'],
  ['Harbour', 'HBR'],
  ['Head', 'HD'],
  ['Hill', 'HL'],
  ['Isle', 'IS'],
  ['Isles', 'IS'],
  ['Island', 'IS'],
  ['Lighthouse', 'LT'],
  ['Linked', 'LK'],
  ['Marine', 'MAR'],
  ['Mount', 'MT'],
  ['North', 'N'],
  ['Point', 'PT'],
  ['Port', 'PT'],
  ['Quay', 'QY'],
  ['Rescue', 'RSC'],
  ['Ridge', 'RDG'],
  ['South', 'S'],
  ['Station', 'STN'],
  ['Tower', 'TWR'],
  ['Water', 'WTR'],
  ['Weather', 'WX'],
  ['West', 'W'],
];

/** Accents folded, capitals where the radio has no small letters, characters that it lacks left out. */
export function foldName(name: string, rules: NameRules): string {
  const plain = name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/ø/g, 'o')
    .replace(/Ø/g, 'O')
    .replace(/ß/g, 'ss')
    .replace(/æ/gi, 'ae');
  let folded = '';
  for (const character of plain) {
    if (rules.characters.includes(character)) folded += character;
    else if (rules.characters.includes(character.toUpperCase())) folded += character.toUpperCase();
    else if (/\s/.test(character)) folded += ' ';
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
      abbreviations.map(([word, form]) => [foldName(word, rules), foldName(form, rules)]),
    );
    found = { names: new Map(), short };
    lists.set(abbreviations, found);
  }
  return found;
}

/**
 * Shortens a name to what a radio can show: whole if it fits; with known abbreviations; without vowels, from the
 * right, but never a word's first letter; without spaces, where that is enough; cut, always the longest word, so that
 * what tells two names apart is kept. Stops as soon as it fits.
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

function shorten(name: string, rules: NameRules, short: ReadonlyMap<string, string>): FittedName {
  let text = foldName(name, rules);
  if (text.length <= rules.length) return { text, how: 'whole' };

  text = text
    .split(' ')
    .map((word) => short.get(word) ?? word)
    .join(' ');
  if (text.length <= rules.length) return { text, how: 'abbreviated' };

  for (let i = text.length - 1; i > 0; i--) {
    if (!/[AEIOUaeiou]/.test(text[i]!) || /[^A-Za-z]/.test(text[i - 1]!)) continue;
    text = text.slice(0, i) + text.slice(i + 1);
    if (text.length <= rules.length) return { text, how: 'vowels' };
  }
  let joined = text;
  for (let i = joined.lastIndexOf(' '); i > 0; i = joined.lastIndexOf(' ')) {
    joined = joined.slice(0, i) + joined.slice(i + 1);
    if (joined.length <= rules.length) return { text: joined, how: 'spaces' };
  }
  return { text: cutWords(text.split(' '), rules.length), how: 'cut' };
}

/** Takes last letters off the longest word (the first of several) until all fits; words keep one letter, if need be without spaces. */
function cutWords(words: string[], length: number): string {
  let cut = words;
  while (cut.join(' ').length > length) {
    const longest = Math.max(...cut.map((word) => word.length));
    if (longest <= 1) return cut.join('').slice(0, length);
    const at = cut.findIndex((word) => word.length === longest);
    cut = cut.with(at, cut[at]!.slice(0, -1));
  }
  return cut.join(' ');
}

/**
 * Tells apart names that come out alike: the first keeps its text, the others get a figure at the tail. Names marked
 * `byHand` stay as they are; empty names are left alone.
 */
export function tellApart(names: readonly { text: string; byHand: boolean }[], rules: NameRules): string[] {
  const taken = new Set(names.filter((name) => name.byHand).map((name) => name.text));
  const seen = new Set<string>();
  // What has been taken stays taken, so that the search for the next figure goes on where it ended last.
  const figures = new Map<string, number>();
  return names.map(({ text, byHand }) => {
    if (byHand || text === '') return text;
    let candidate = text;
    for (let n = figures.get(text) ?? 2; taken.has(candidate) || seen.has(candidate); n++) {
      figures.set(text, n);
      const tail = String(n);
      candidate = text.slice(0, rules.length - tail.length).trimEnd() + tail;
    }
    seen.add(candidate);
    return candidate;
  });
}

/**
 * Fills a name template: fields in braces with an optional width, `{call}`, `{city:6}-{band}`. A field that the entry
 * does not have is empty; one that nobody knows is refused.
 */
export function fillTemplate(template: string, fields: Readonly<Record<string, string>>): Result<string> {
  let bad: string | undefined;
  const text = template.replace(/\{([^{}]*)\}/g, (_, inside: string) => {
    const [, key, width] = /^\s*([a-z]+)\s*(?::\s*(\d{1,2})\s*)?$/.exec(inside) ?? [];
    if (key === undefined || !Object.hasOwn(fields, key)) {
      bad ??= inside;
      return '';
    }
    const value = fields[key]!;
    return width === undefined ? value : cutText(value, Number(width));
  });
  if (bad !== undefined)
    return fail(
      `There is no field {${bad}}. Known are ${Object.keys(fields)
        .map((key) => `{${key}}`)
        .join(', ')}.`,
    );
  if (/[{}]/.test(text)) return fail('A brace is not closed. Write fields as {name} or {name:6}.');
  return ok(text.replace(/ +/g, ' ').trim());
}
