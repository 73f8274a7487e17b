/** Whose rules hold: the Orrin Spectrum Office's, or the amateur allocations of an ITU region. */
export const REGIONS = ['orrin', 'itu1', 'itu2', 'itu3'] as const;
/** The one that a new plan begins with, until somebody says otherwise. */
export const USUAL_REGION = REGIONS[0];
export type Region = (typeof REGIONS)[number];

export const REGION_NAMES: Record<Region, string> = {
  orrin: 'Orrin Isles',
  itu1: 'ITU region 1',
  itu2: 'ITU region 2',
  itu3: 'ITU region 3',
};

/** Licence grades of the Orrin Spectrum Office; for the ITU regions, Entry and Full are treated alike. */
export const GRADES = ['none', 'entry', 'full'] as const;
export type Grade = (typeof GRADES)[number];

export const GRADE_NAMES: Record<Grade, string> = { none: 'None', entry: 'Entry', full: 'Full' };
