/** Where a table comes from, so that who reads a decision can look it up. */
export interface Source {
  title: string;
  edition: string;
}

/** A source in a line: `ITU Radio Regulations, Article 5 (edition of 2020)`. */
export const citation = ({ title, edition }: Source): string => `${title} (${edition})`;

export const RADIO_REGULATIONS: Source = {
  title: 'ITU Radio Regulations, Article 5',
  edition: 'edition of 2020',
};
export const ORRIN_OFFICE: Source = {
  title: 'Orrin Spectrum Office, table of allocations',
  edition: 'edition of 2026',
};
