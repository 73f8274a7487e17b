import type { Format } from '../format';

/** The settings of the Terns, which stand at the same places in all of them; their greetings are as long as their names. */
export const settings = (greeting: number): Format['settings'] => [
  {
    key: 'showA',
    label: 'Side A shows',
    codec: { kind: 'choice', at: 0x80, shift: 0, width: 2, values: ['name', 'frequency', 'slot'] },
  },
  {
    key: 'showB',
    label: 'Side B shows',
    codec: { kind: 'choice', at: 0x80, shift: 2, width: 2, values: ['name', 'frequency', 'slot'] },
  },
  {
    key: 'squelch',
    label: 'Squelch',
    codec: { kind: 'choice', at: 0x81, shift: 0, width: 4, values: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] },
  },
  {
    key: 'beep',
    label: 'Key beep',
    codec: { kind: 'choice', at: 0x82, shift: 0, width: 1, values: [false, true] },
  },
  {
    key: 'keyLock',
    label: 'Key lock',
    codec: { kind: 'choice', at: 0x82, shift: 1, width: 1, values: [false, true] },
  },
  {
    key: 'busyLock',
    label: 'No transmit while busy',
    codec: { kind: 'choice', at: 0x82, shift: 2, width: 1, values: [false, true] },
  },
  {
    key: 'timeOut',
    label: 'Time-out, s',
    codec: { kind: 'choice', at: 0x83, shift: 0, width: 3, values: [0, 60, 120, 180, 240, 300] },
  },
  {
    key: 'light',
    label: 'Backlight, s',
    codec: { kind: 'choice', at: 0x84, shift: 0, width: 2, values: [0, 5, 10, 30] },
  },
  { key: 'greeting', label: 'Greeting', codec: { kind: 'text', at: 0x88, bytes: greeting } },
];
