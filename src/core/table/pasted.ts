import { plain, splitUnit, TONES, unitScale } from '../radio';
import { isHeadings, meaningOf, type PastedRow } from './headings';
import { rowsByMeaning } from './row-cells';

/**
 * What somebody pastes, before it is held against the plan: a block of cells as a spreadsheet copies it, rows under headings in
 * any order and wording, or a list in running text. Each comes out as rows of cells by column, with the line that they stood in.
 */

/** A block goes over the cells where the focus is; rows say themselves what is what, and are new channels. */
export type Pasted =
  | { kind: 'block'; cells: string[][] }
  | { kind: 'rows'; rows: PastedRow[]; unknown: string[] };

function underHeadings(rows: readonly (readonly string[])[]): Pasted {
  const [head, ...body] = rows as [readonly string[], ...(readonly string[])[]];
  const meanings = head.map(meaningOf);
  return {
    kind: 'rows',
    unknown: head.filter((text, at) => text.trim() !== '' && meanings[at] === undefined),
    rows: rowsByMeaning(meanings, body, (at) => at + 2, head),
  };
}

const FREQUENCY = /^\d{1,4}[.,]\d{1,6}$/;
const SHIFT = /^[+-](\d{0,3}([.,]\d+)?|\d+k)$/i;
const TONE = /^\/?(\d{2,3}[.,]\d|d\d{3}[ni])(\/(\d{2,3}[.,]\d|d\d{3}[ni]))?$/i;
const MODE = /^(n?fm|am|usb|lsb|cw|dmr|p25|nxdn|c4fm)$/i;
const WATTS = /^\d+([.,]\d+)?w$/i;
const SLOT_OR_COLOUR = /^(cc\d{1,2}|ts[12])$/i;
/** Words that only part what they stand between. */
const FILLING = /^(mhz|hz|tone|ctcss|shift|mode|on|at|@|-|:|=)$/i;

/** True for what reads as a tone of the list, which is then no frequency. */
const isListedTone = (word: string) =>
  /^\d{2,3}[.,]\d$/.test(word) && TONES.includes(Number(word.replace(/[.,]/, '')));

/** The frequency that stands at a word, with its unit where that is the next one; undefined where none does. */
function frequencyAt(words: readonly string[], at: number): { text: string; words: number } | undefined {
  const word = words[at]!;
  const split = splitUnit(word);
  if (!split) return undefined;
  if (split.unit !== '') return (unitScale(split.unit) ?? 0) > 0 ? { text: word, words: 1 } : undefined;
  const unit = words[at + 1] ?? '';
  if ((unitScale(unit) ?? 0) > 0) return { text: `${word} ${unit}`, words: 2 };
  return FREQUENCY.test(word) && !isListedTone(word) ? { text: word, words: 1 } : undefined;
}

/**
 * A line of running text, as somebody jots it down: `Ullsmere Hill 145.6125 -0.6 88.5 FM`. The first that reads as a frequency is
 * what is received; behind it a shift, a tone, a mode or a power is that, in any order; the rest is the name. Undefined where no
 * frequency is in it.
 */
export function readLine(text: string): PastedRow['cells'] | undefined {
  const words = plain(text)
    .replace(/^(?:[-*•]|\d{1,4}[.)])\s+/, '')
    .split(/[ \t;|]+/)
    .map((word) => word.replace(/[,:]$/, ''))
    .filter((word) => word !== '');
  const first = words.findIndex((_, at) => frequencyAt(words, at));
  if (first < 0) return undefined;
  const receive = frequencyAt(words, first)!;
  const cells: PastedRow['cells'] = { rx: receive.text };
  const name = words.slice(0, first).filter((word) => !FILLING.test(word));
  const digital: string[] = [];
  for (let at = first + receive.words; at < words.length; at++) {
    const word = words[at]!;
    const next = words[at + 1] ?? '';
    const other = frequencyAt(words, at);
    if (cells.tx === undefined && (SHIFT.test(word) || word === '=')) cells.tx = word;
    else if (cells.access === undefined && TONE.test(word)) cells.access = word;
    else if (cells.tx === undefined && other) {
      cells.tx = other.text;
      at += other.words - 1;
    } else if (cells.mode === undefined && MODE.test(word)) cells.mode = word;
    else if (WATTS.test(word)) cells.power = word;
    else if (/^\d+([.,]\d+)?$/.test(word) && /^w(atts?)?$/i.test(next)) {
      cells.power = `${word} W`;
      at++;
    } else if (SLOT_OR_COLOUR.test(word)) digital.push(word);
    else if (/^nac$/i.test(word)) {
      digital.push(word, next);
      at++;
    } else if (/^(listen|x)$/i.test(word)) {
      cells.tx = 'x';
      if (/^only$/i.test(next)) at++;
    } else if (!FILLING.test(word)) name.push(word);
  }
  if (digital.length > 0) cells.access = digital.join(' ');
  return { ...cells, name: name.join(' ') };
}

/**
 * Works out what was pasted. `cells` is the text parted into rows and cells by whichever delimiter it has.
 *
 * @example readPasted('Receive\tName\n145,6125\tHill', [['Receive', 'Name'], ['145,6125', 'Hill']])
 */
export function readPasted(text: string, cells: readonly (readonly string[])[]): Pasted {
  const filled = cells.filter((row) => row.some((cell) => cell.trim() !== ''));
  if (filled.length > 1 && isHeadings(filled[0]!)) return underHeadings(filled);
  const lines = text.split(/\r?\n/);
  // Running text: no tabs, and most lines have words around a frequency.
  if (!text.includes('\t')) {
    const read = lines.map((line, at) => ({ line: at + 1, text: line, cells: readLine(line) }));
    const some = read.filter((one) => one.text.trim() !== '');
    const rows = some.filter((one) => one.cells && (one.cells.name ?? '') !== '');
    if (rows.length > 0 && rows.length * 2 >= some.length)
      return {
        kind: 'rows',
        unknown: [],
        rows: some.map((one) => ({ line: one.line, cells: one.cells ?? { name: one.text.trim() } })),
      };
  }
  return { kind: 'block', cells: cells.map((row) => [...row]) };
}
