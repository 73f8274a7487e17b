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

/** What a new plan says of its owner's grade, until a person says it. It is not the grade None. */
export const NOT_STATED = 'not stated';
/** What a plan can say of its owner's grade. */
export const OWNER_GRADES = [NOT_STATED, ...GRADES] as const;
export type OwnerGrade = (typeof OWNER_GRADES)[number];

export const GRADE_NAMES: Record<OwnerGrade, string> = {
  [NOT_STATED]: 'Not stated',
  none: 'None',
  entry: 'Entry',
  full: 'Full',
};

/**
 * The grade by which a frequency is judged. Where none is stated it is the highest: only what nobody may do is refused then, and Check
 * says first that the grade is missing.
 */
export const judgedGrade = (grade: OwnerGrade): Grade => (grade === NOT_STATED ? 'full' : grade);
