import type { Column } from '../plan';
import { plain } from '../radio';

/** What a column of pasted rows or of a file can be, and the headings by which it is known. */

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
  cells: { [field in PastedField]?: string | undefined };
}

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
export const WITH_UNIT: readonly (ColumnMeaning | undefined)[] = ['rx', 'tx', 'shift'];

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
export const headingOf = (text: string) =>
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
