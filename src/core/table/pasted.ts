import { plain, splitUnit, TONES, unitScale } from '../radio';
import type { Column } from '../plan';
import { rememberedByText } from '../remember';

/**
 * What somebody pastes, before it is held against the plan: a block of cells as a spreadsheet copies it, rows under headings in
 * any order and wording, or a list in running text. Each comes out as rows of cells by column, with the line that they stood in.
 */

/** What a pasted row may have beside the columns of the table. */
export const BESIDES = [
  ...(['note', 'tags', 'call', 'place', 'lat', 'lon', 'locator', 'service'] as const),
  // What Veridon's own files say besides, so that a plan that went out as rows comes in again as it was.
  ...(['slot', 'side', 'always', 'satellite', 'fixed', 'directory', 'entry'] as const),
] as const;
export type PastedField = Exclude<Column, 'slot'> | (typeof BESIDES)[number];

/** A row as it was pasted: text by field. */
export interface PastedRow {
  /** Counts the lines of what was pasted from 1. */
  line: number;
  cells: Partial<Record<PastedField, string>>;
}

/** A block goes over the cells where the focus is; rows say themselves what is what, and are new channels. */
export type Pasted =
  { kind: 'block'; cells: string[][] } | { kind: 'rows'; rows: PastedRow[]; unknown: string[] };

/** What a column of a file or of a paste can be: a field, or a part of one that other columns complete. */
export const COLUMN_MEANINGS = [
  'name',
  'rx',
  'tx',
  'shift',
  'direction',
  'access',
  'send',
  'expect',
  'mode',
  'power',
  'scan',
  ...BESIDES,
] as const;
export type ColumnMeaning = (typeof COLUMN_MEANINGS)[number];

/** Columns of frequencies, whose headings may name their unit. */
const WITH_UNIT: readonly (ColumnMeaning | undefined)[] = ['rx', 'tx', 'shift'];

/** Headings in the words that people and programs of several makers use, in small letters. What stands for two things at once is none. */
const HEADINGS: Record<string, ColumnMeaning> = {};
const heading = (field: ColumnMeaning, ...words: string[]) => {
  for (const word of words) HEADINGS[word] = field;
};
heading(
  'slot',
  'slot',
  'no',
  'no.',
  'nr',
  'number',
  'memory',
  '#',
  'ch',
  'ch no',
  'channel number',
  'memory number',
);
heading('name', 'name', 'channel', 'channel name', 'station', 'title', 'label', 'repeater', 'station name');
heading(
  'rx',
  'receive',
  'receive frequency',
  'receive mhz',
  'rx',
  'rx frequency',
  'rx freq',
  'frequency',
  'freq',
  'mhz',
);
heading('rx', 'output', 'output frequency', 'output mhz', 'downlink', 'frequency mhz', 'rx mhz', 'freq mhz');
heading(
  'tx',
  'transmit',
  'transmit frequency',
  'transmit mhz',
  'tx',
  'tx frequency',
  'tx freq',
  'input',
  'tx mhz',
);
heading('tx', 'input frequency', 'input mhz', 'uplink');
heading('shift', 'shift', 'offset', 'shift mhz', 'offset mhz', 'tx shift');
heading('direction', 'direction', 'sign', 'shift direction', 'offset direction', '+/-');
heading(
  'access',
  'access',
  'tone',
  'ctcss',
  'squelch',
  'tone hz',
  'ctcss hz',
  'dcs',
  'code',
  'tone/code',
  'tone or code',
);
heading(
  'send',
  'tone send',
  'send tone',
  'tx tone',
  'tone tx',
  'ctcss send',
  'ctcss tx',
  'tx ctcss',
  'send',
  'encode',
);
heading(
  'expect',
  'tone expect',
  'expect tone',
  'rx tone',
  'tone rx',
  'ctcss expect',
  'rx ctcss',
  'expect',
  'decode',
);
heading('mode', 'mode', 'modulation', 'type', 'emission');
heading('power', 'power', 'tx power', 'power w', 'watts', 'watt');
heading('scan', 'scan', 'scanned', 'in scan');
heading('note', 'note', 'notes', 'comment', 'comments', 'remark', 'remarks');
heading('tags', 'tags', 'tag', 'labels');
heading('call', 'call', 'call sign', 'callsign');
heading('lat', 'lat', 'latitude', 'lat deg', 'north');
heading('lon', 'lon', 'lng', 'long', 'longitude', 'lon deg', 'east');
heading('locator', 'locator', 'grid', 'square', 'grid square', 'maidenhead');
heading('service', 'service', 'category');
heading('side', 'side');
heading('always', 'always on');
heading('satellite', 'satellite');
heading('fixed', 'own transmit');
heading('directory', 'directory');
heading('entry', 'entry');
heading('place', 'place', 'site', 'location', 'town', 'city', 'qth');

/** A heading brought to the form in which it is known: small letters, without brackets, units apart from words by one space. */
const headingOf = (text: string) =>
  plain(text)
    .toLowerCase()
    .replace(/[()[\]_:]/g, ' ')
    .replace(/ +/g, ' ')
    .trim();

/** What a column is by its heading; undefined where nobody knows it. */
export const meaningOf = (text: string): ColumnMeaning | undefined => {
  const word = headingOf(text);
  const known = (one: string) => (Object.hasOwn(HEADINGS, one) ? HEADINGS[one] : undefined);
  const bare = known(word.replace(/ [kmg]?hz$/, ''));
  return known(word) ?? (WITH_UNIT.includes(bare) ? bare : undefined);
};

/** True where a row is one of headings: two known ones at least, receive among them, and none that reads as a number. */
export function isHeadings(row: readonly string[]): boolean {
  const fields = row.map(meaningOf);
  return (
    fields.filter(Boolean).length >= 2 &&
    fields.includes('rx') &&
    row.every((cell) => !/^[\d.,+\- ]*\d[\d.,+\- ]*$/.test(cell.trim()))
  );
}

/** A shift and its direction in columns of their own, as one text: `0.6` and `-` are `-0.6`. */
function transmitText(shift: string | undefined, direction: string | undefined): string | undefined {
  if (shift === undefined && direction === undefined) return undefined;
  const size = plain(shift ?? '').replace(/^\+(?=\s*[-+])/, '');
  const way = plain(direction ?? '').toLowerCase();
  if (direction !== undefined && /^(simplex|s|none|off|=|0?)$/.test(way) && way !== '') return '=';
  const sign = /^(\+|plus|up|positive|dup\+)$/.test(way)
    ? '+'
    : /^(-|minus|down|negative|dup-)$/.test(way)
      ? '-'
      : '';
  // Nothing is said of it: it sends where it receives, as any channel that is new.
  if (size === '' && way === '') return undefined;
  if (size === '' || /^[+-]?0+([.,]0*)?$/.test(size)) return sign === '' || size !== '' ? '=' : sign;
  if (sign !== '') return sign + size.replace(/^[+-]\s*/, '');
  // Without a sign and a direction it would read as a frequency.
  return /^[+-]/.test(size) ? size : `+${size}`;
}

function accessText(
  access: string | undefined,
  send: string | undefined,
  expect: string | undefined,
): string | undefined {
  if (send === undefined && expect === undefined) return access;
  const [out, back] = [send, expect].map((text) => plain(text ?? '').replace(/^(none|off|-+|0)$/i, ''));
  if (out === '' && back === '') return access ?? '';
  return back === '' ? out : `${out}/${back}`;
}

/** The unit that a heading names, for the figures that stand under it without one: `Receive kHz` is kHz. */
const unitOf = (heading: string | undefined): string | undefined => {
  const [, word] = /(?:^| )([kmg]?hz)$/.exec(headingOf(heading ?? '')) ?? [];
  return ['Hz', 'kHz', 'MHz', 'GHz'].find((unit) => unit.toLowerCase() === word);
};

/** Stands for a column that there is not; no cell has it. */
const NOT_SAID = '\0';

/** The fields that stand in a column of their own. */
const PLAIN_FIELDS = ['name', 'rx', 'mode', 'power', 'scan', ...BESIDES] as const;

/**
 * What makes fields of a row of cells, by what each column is and the unit that its heading names; a row in which nothing stands is none.
 */
export function fieldReader(
  meanings: readonly (ColumnMeaning | undefined)[],
  headings: readonly string[] | null = null,
): (row: readonly string[]) => PastedRow['cells'] | null {
  const units = meanings.map((meaning, column) =>
    WITH_UNIT.includes(meaning) ? unitOf(headings?.[column]) : undefined,
  );
  // What reads as nothing is nothing, in whatever unit.
  const withUnit = units.map((unit) =>
    rememberedByText((text) =>
      unit !== undefined && /^[-+]?[\d., ']*[1-9][\d., ']*$/.test(plain(text))
        ? `${text.trim()} ${unit}`
        : text,
    ),
  );
  const placesOf = (field: ColumnMeaning) => meanings.flatMap((one, place) => (one === field ? [place] : []));
  const places = Object.fromEntries(COLUMN_MEANINGS.map((field) => [field, placesOf(field)])) as Record<
    ColumnMeaning,
    number[]
  >;
  // Most fields stand in one column, and most columns name no unit.
  const simple = (field: ColumnMeaning) =>
    places[field].length === 1 && units[places[field][0]!] === undefined;
  const direct = PLAIN_FIELDS.filter(simple).map((field) => [field, places[field][0]!] as const);
  const others = PLAIN_FIELDS.filter((field) => places[field].length > 0 && !simple(field));
  /** The first of several columns for one field that has something in it. */
  const cell = (row: readonly string[], field: ColumnMeaning): string | undefined => {
    const own = places[field];
    if (own.length === 0) return undefined;
    let place = own[0]!;
    if (own.length > 1) place = own.find((one) => (row[one] ?? '').trim() !== '') ?? place;
    const text = row[place] ?? '';
    return units[place] === undefined ? text : withUnit[place]!(text);
  };
  const shiftedBy = rememberedByText((direction) =>
    rememberedByText((shift) =>
      transmitText(shift === NOT_SAID ? undefined : shift, direction === NOT_SAID ? undefined : direction),
    ),
  );
  return (row) => {
    if (!row.some((text) => text !== '' && text.trim() !== '')) return null;
    const cells: PastedRow['cells'] = {};
    for (const [field, place] of direct) cells[field] = row[place] ?? '';
    for (const field of others) cells[field] = cell(row, field)!;
    const tx = cell(row, 'tx');
    const shifted = shiftedBy(cell(row, 'direction') ?? NOT_SAID)(cell(row, 'shift') ?? NOT_SAID);
    if (tx !== undefined && tx.trim() !== '') cells.tx = tx;
    else if (shifted !== undefined) cells.tx = shifted;
    else if (tx !== undefined) cells.tx = tx;
    const access = accessText(cell(row, 'access'), cell(row, 'send'), cell(row, 'expect'));
    if (access !== undefined) cells.access = access;
    // What has a call sign and no name is called by that.
    if (cells.call && (cells.name ?? '').trim() === '' && cells.fixed === undefined) cells.name = cells.call;
    return cells;
  };
}

/** Rows of cells as fields, each with the line in which `lineOf` says that it stood. */
export function rowsByMeaning(
  meanings: readonly (ColumnMeaning | undefined)[],
  rows: readonly (readonly string[])[],
  lineOf: (row: number) => number,
  headings: readonly string[] | null = null,
): PastedRow[] {
  const read = fieldReader(meanings, headings);
  return rows.flatMap((row, at) => {
    const cells = read(row);
    return cells ? [{ line: lineOf(at), cells }] : [];
  });
}

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
