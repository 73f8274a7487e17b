import type { FieldValue } from '../format';

/** Where a setting stands, in words: `on`, `600 kHz`, `Q7KET`; numbers of a unit of 1,000 Hz are kilohertz. */
export function settingWords(value: FieldValue, unit = 1): string {
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'number' && unit === 1000) return `${value / unit} kHz`;
  return value === '' || value === null ? 'nothing' : String(value);
}
