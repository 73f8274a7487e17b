import type { Setting } from '../settings';

/** Settings that several models have alike. */

/** What the large line of a display shows. */
export const displayShows = (
  key: string,
  name: string,
  help: string,
  factory: 'name' | 'frequency' | 'slot',
): Setting => ({
  key,
  scope: 'plan',
  topic: 'display',
  name,
  help,
  value: { kind: 'choice', values: ['name', 'frequency', 'slot'] },
  default: factory,
});

/** The same of a radio with one display. */
export const oneDisplay = (factory: 'name' | 'frequency'): Setting =>
  displayShows('shows', 'Display shows', 'What the large line of the display shows.', factory);

export const keyBeep: Setting = {
  key: 'beep',
  scope: 'plan',
  topic: 'sound',
  name: 'Key beep',
  help: 'The radio beeps at each key.',
  value: { kind: 'switch' },
  default: true,
};

/** Seconds; 0 is off. */
export const timeOutTimer = (values: readonly number[]): Setting => ({
  key: 'timeOut',
  scope: 'plan',
  topic: 'transmit',
  name: 'Time-out timer',
  help: 'The radio stops transmitting after this time, so that a stuck key does not block the channel.',
  value: { kind: 'choice', values: [...values], words: { 0: 'off' }, unit: 's' },
  default: 180,
});

export const powerOnText = (length: number): Setting => ({
  key: 'greeting',
  scope: 'unit',
  topic: 'display',
  name: 'Power-on text',
  help: 'The display shows it when the radio is switched on.',
  value: { kind: 'text', length },
  default: '',
});
