import type { Setting } from '../settings';
import { keyBeep, oneDisplay, powerOnText, timeOutTimer } from './common-settings';

/** The settings of the radios with colour code and time slot. */
export const dmrSettings: Setting[] = [
  {
    key: 'radioId',
    scope: 'unit',
    topic: 'identity',
    name: 'Own ID',
    help: 'The number by which others see who calls. Two radios with one ID answer for each other.',
    // Those above it are the network’s (ETSI TS 102 361-2: 0xFFFCDF).
    value: { kind: 'number', unit: '', scale: 1, least: 1, most: 16_776_415, step: 1 },
    default: null,
  },
  {
    key: 'ownCall',
    scope: 'unit',
    topic: 'identity',
    name: 'Own call sign',
    help: 'The call sign that the radio sends with its speech, where it is set to.',
    value: { kind: 'text', length: 10 },
    default: '',
  },
  oneDisplay('name'),
  keyBeep,
  timeOutTimer([0, 60, 120, 180, 300, 600]),
  {
    key: 'alias',
    scope: 'plan',
    topic: 'digital',
    name: 'Talker alias',
    help: 'The radio sends its own call sign with its speech.',
    value: { kind: 'switch' },
    default: false,
  },
  powerOnText(16),
];
