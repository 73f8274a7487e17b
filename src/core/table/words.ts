/** In what channels can be alike. */
export const ALIKE = ['band', 'mode', 'access', 'shift', 'source', 'finding'] as const;
export type Alike = (typeof ALIKE)[number];

export const ALIKE_NAMES: Record<Alike, string> = {
  band: 'the same band',
  mode: 'the same mode',
  access: 'the same access',
  shift: 'the same shift',
  source: 'the same source',
  finding: 'the same finding',
};

/** How letters are written. */
export const CASES = ['capitals', 'small', 'Each Word'] as const;
export type LetterCase = (typeof CASES)[number];

/** What a row can show beside the columns that are typed. */
export const EXTRAS = [
  'call',
  'place',
  'source',
  'locator',
  'distance',
  'bearing',
  'heard',
  'calls',
  'hears',
  'scans',
  'tags',
  'note',
] as const;
export type Extra = (typeof EXTRAS)[number];

export const EXTRA_NAMES: Record<Extra, string> = {
  call: 'Station',
  place: 'Place',
  source: 'Source',
  locator: 'Locator',
  distance: 'Distance',
  bearing: 'Bearing',
  heard: 'Last heard',
  calls: 'Calls',
  hears: 'Hears',
  scans: 'Scan list',
  tags: 'Tags',
  note: 'Note',
};
