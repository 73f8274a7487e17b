import type { Setting } from '../settings';

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
  {
    key: 'shows',
    scope: 'plan',
    topic: 'display',
    name: 'Display shows',
    help: 'What the large line of the display shows.',
    value: { kind: 'choice', values: ['name', 'frequency', 'slot'] },
    default: 'name',
  },
  {
    key: 'beep',
    scope: 'plan',
    topic: 'sound',
    name: 'Key beep',
    help: 'The radio beeps at each key.',
    value: { kind: 'switch' },
    default: true,
  },
  {
    key: 'timeOut',
    scope: 'plan',
    topic: 'transmit',
    name: 'Time-out timer',
    help: 'The radio stops transmitting after this time, so that a stuck key does not block the channel.',
    value: { kind: 'choice', values: [0, 60, 120, 180, 300, 600], words: { 0: 'off' }, unit: 's' },
    default: 180,
  },
  {
    key: 'alias',
    scope: 'plan',
    topic: 'digital',
    name: 'Talker alias',
    help: 'The radio sends its own call sign with its speech.',
    value: { kind: 'switch' },
    default: false,
  },
  {
    key: 'greeting',
    scope: 'unit',
    topic: 'display',
    name: 'Power-on text',
    help: 'The display shows it when the radio is switched on.',
    value: { kind: 'text', length: 16 },
    default: '',
  },
];
