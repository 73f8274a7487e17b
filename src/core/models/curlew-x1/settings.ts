import type { Setting } from '../../settings';
import { keyBeep, oneDisplay, powerOnText } from '../common-settings';

export const settings: Setting[] = [
  oneDisplay('frequency'),
  keyBeep,
  {
    key: 'gnss',
    scope: 'plan',
    topic: 'position',
    name: 'GNSS receiver',
    help: 'The radio finds its own position. It needs more power then.',
    value: { kind: 'switch' },
    default: false,
    restart: true,
  },
  {
    key: 'aprs',
    scope: 'plan',
    topic: 'position',
    name: 'APRS modem',
    help: 'Whether the radio decodes position reports, and sends its own.',
    value: {
      kind: 'choice',
      values: ['off', 'listens', 'sends'],
      words: { listens: 'receive', sends: 'receive and transmit' },
    },
    default: 'off',
    restart: true,
  },
  {
    key: 'aprsEvery',
    scope: 'plan',
    topic: 'position',
    name: 'Time between position reports',
    help: 'How often the radio sends its position. Short times fill the channel.',
    value: { kind: 'choice', values: [30, 60, 120, 300, 600], unit: 's' },
    default: 120,
  },
  {
    key: 'aprsCall',
    scope: 'unit',
    topic: 'identity',
    name: 'Call sign of the APRS modem',
    help: 'The call sign and SSID with which position reports are sent. Without it the modem sends nothing.',
    value: { kind: 'text', length: 9 },
    default: '',
    restart: true,
  },
  powerOnText(12),
];
