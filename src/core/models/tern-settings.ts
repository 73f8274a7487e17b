import type { Setting } from '../settings';
import { displayShows, keyBeep, powerOnText, timeOutTimer } from './common-settings';

/** The settings of the Terns; their power-on texts are as long as their names. */
export const ternSettings = (name: number): Setting[] => [
  displayShows('showA', 'Side A shows', 'What the large line of side A shows.', 'name'),
  displayShows('showB', 'Side B shows', 'What the large line of side B shows.', 'frequency'),
  {
    key: 'squelch',
    scope: 'plan',
    topic: 'receive',
    name: 'Squelch',
    help: 'How strong a signal must be to open the speaker. At 0 the speaker hisses all the time.',
    value: { kind: 'choice', values: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] },
    default: 3,
  },
  keyBeep,
  {
    key: 'keyLock',
    scope: 'plan',
    topic: 'keys',
    name: 'Key lock',
    help: 'The keys do nothing until the lock is released.',
    value: { kind: 'switch' },
    default: false,
  },
  {
    key: 'busyLock',
    scope: 'plan',
    topic: 'transmit',
    name: 'Busy channel lock-out',
    help: 'The radio does not transmit while it receives a signal.',
    value: { kind: 'switch' },
    default: false,
  },
  timeOutTimer([0, 60, 120, 180, 240, 300]),
  {
    key: 'light',
    scope: 'plan',
    topic: 'display',
    name: 'Backlight',
    help: 'How long the light stays on after a key. At 0 it stays off.',
    value: { kind: 'choice', values: [0, 5, 10, 30], words: { 0: 'off' }, unit: 's' },
    default: 5,
  },
  powerOnText(name),
];
