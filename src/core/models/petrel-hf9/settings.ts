import type { Setting } from '../../settings';
import { keyBeep, oneDisplay, powerOnText } from '../common-settings';

/** The one shift that is stored for a band, Hz. */
const shiftOn = (key: string, band: string, factory: number): Setting => ({
  key,
  scope: 'plan',
  topic: 'transmit',
  name: `Shift on ${band}`,
  help: `How far the transmit frequency of a repeater channel on ${band} is from its receive frequency.`,
  value: { kind: 'number', unit: 'kHz', scale: 1_000, least: 0, most: 999_999_000, step: 1_000 },
  default: factory,
});

export const settings: Setting[] = [
  oneDisplay('name'),
  keyBeep,
  shiftOn('shift10m', '10 m', 100_000),
  shiftOn('shift6m', '6 m', 500_000),
  shiftOn('shift2m', '2 m', 600_000),
  shiftOn('shift70cm', '70 cm', 7_600_000),
  powerOnText(12),
];
