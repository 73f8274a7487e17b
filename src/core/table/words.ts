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
