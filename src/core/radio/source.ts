/** Where a table comes from, so that who reads a decision can look it up. */
export interface Source {
  title: string;
  edition: string;
}

/** A source in a line: `ITU Radio Regulations, Article 5 (2020)`. */
export const citation = ({ title, edition }: Source): string => `${title} (${edition})`;

export const RADIO_REGULATIONS: Source = {
  title: 'ITU Radio Regulations, Article 5',
  edition: '2020',
};
export const TONES_SOURCE: Source = {
  title: 'TIA-603, CTCSS, with the tones in use beside it',
  edition: '2016',
};
export const CODES_SOURCE: Source = {
  title: 'TIA-603, DCS, with the codes in use beside it',
  edition: '2016',
};
export const WIDTHS_SOURCE: Source = {
  title: 'ITU-R SM.1138, necessary bandwidth, rounded up to what the channels in use leave',
  edition: '2008',
};
export const AIR_NAMES_SOURCE: Source = {
  title: 'ICAO Annex 10, volume V, table 4-1 bis',
  edition: '3rd edition',
};
export const ORRIN_OFFICE: Source = {
  title: 'Orrin Spectrum Office, table of allocations',
  edition: '2026',
};
