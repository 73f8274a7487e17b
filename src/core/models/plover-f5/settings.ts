import type { Setting } from '../../settings';
import { keyBeep, oneDisplay } from '../common-settings';

export const settings: Setting[] = [
  {
    key: 'ownCall',
    scope: 'unit',
    topic: 'identity',
    name: 'Own call sign, digital',
    help: 'The call sign that the radio sends on digital channels. Without it the radio sends nothing digital.',
    value: { kind: 'text', length: 10 },
    default: '',
  },
  oneDisplay('name'),
  {
    key: 'position',
    scope: 'plan',
    topic: 'position',
    name: 'Position reporting',
    help: 'The radio sends its position on digital channels.',
    value: { kind: 'switch' },
    default: false,
  },
  {
    key: 'positionEvery',
    scope: 'plan',
    topic: 'position',
    name: 'Time between position reports',
    help: 'How often the radio sends its position. Short times fill the channel.',
    value: { kind: 'number', unit: 's', scale: 1, least: 0, most: 9999, step: 1 },
    default: 300,
  },
  keyBeep,
];
