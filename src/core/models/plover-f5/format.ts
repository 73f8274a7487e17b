import type { Format } from '../../format';

/**
 * A card with four files of lines of text. Each line has its width; what stands between the fields is a space. The first file is
 * the unit's own.
 */
export const format: Format = {
  signature: { part: 'RADIO.TXT', at: 0, text: 'PLOVER F5 CARD ' },
  // The figure 1.
  version: { part: 'RADIO.TXT', at: 15, value: 0x31 },
  container: {
    kind: 'lines',
    parts: [
      { name: 'RADIO.TXT', width: 32, lines: 3 },
      { name: 'SET.TXT', width: 32, lines: 8 },
      { name: 'BANK.TXT', width: 20, lines: 20 },
      { name: 'CHAN.TXT', width: 90, lines: 800 },
    ],
  },
  areas: [
    {
      name: 'What the card is, the unit and its firmware',
      part: 'RADIO.TXT',
      from: 0,
      bytes: 3 * 34,
      owner: 'unit',
    },
    { name: 'Settings', part: 'SET.TXT', from: 0, bytes: 8 * 34, owner: 'ours' },
    { name: 'Banks', part: 'BANK.TXT', from: 0, bytes: 20 * 22, owner: 'ours' },
    { name: 'Channels', part: 'CHAN.TXT', from: 0, bytes: 800 * 92, owner: 'ours' },
  ],
  layouts: [
    {
      table: 'channels',
      part: 'CHAN.TXT',
      at: 0,
      stride: 92,
      count: 800,
      first: 1,
      present: { kind: 'sentinel', field: 'rx' },
      row: {
        rx: { kind: 'digits', at: 0, bytes: 10, unit: 1 },
        tx: { kind: 'digits', at: 11, bytes: 10, unit: 1 },
        mode: {
          kind: 'word',
          at: 22,
          bytes: 4,
          words: ['FM', 'NFM', 'AM', 'C4FM'].map((mode) => ({ word: mode, value: mode })),
        },
        send: { kind: 'squelchText', at: 27 },
        expect: { kind: 'squelchText', at: 34 },
        power: {
          kind: 'word',
          at: 41,
          bytes: 4,
          words: [
            { word: '5W', value: 5_000 },
            { word: '2.5W', value: 2_500 },
            { word: '1W', value: 1_000 },
            { word: '0.1W', value: 100 },
          ],
        },
        scan: {
          kind: 'word',
          at: 46,
          bytes: 4,
          words: [
            { word: 'SCAN', value: true },
            { word: 'PASS', value: false },
          ],
        },
        zones: { kind: 'marks', at: 51, first: 1, count: 20 },
        name: { kind: 'text', at: 72, bytes: 16 },
      },
    },
    {
      table: 'zones',
      part: 'BANK.TXT',
      at: 0,
      stride: 22,
      count: 20,
      first: 1,
      present: { kind: 'sentinel', field: 'no' },
      row: {
        no: { kind: 'digits', at: 0, bytes: 2, unit: 1 },
        name: { kind: 'text', at: 3, bytes: 16 },
      },
    },
  ],
  settings: [
    {
      key: 'ownCall',
      part: 'SET.TXT',
      codec: { kind: 'text', at: 10, bytes: 10 },
    },
    {
      key: 'shows',
      part: 'SET.TXT',
      codec: {
        kind: 'word',
        at: 34 + 10,
        bytes: 9,
        words: [
          { word: 'NAME', value: 'name' },
          { word: 'FREQUENCY', value: 'frequency' },
          { word: 'SLOT', value: 'slot' },
        ],
      },
    },
    {
      key: 'position',
      part: 'SET.TXT',
      codec: {
        kind: 'word',
        at: 2 * 34 + 10,
        bytes: 3,
        words: [
          { word: 'ON', value: true },
          { word: 'OFF', value: false },
        ],
      },
    },
    {
      key: 'positionEvery',
      part: 'SET.TXT',
      codec: { kind: 'digits', at: 3 * 34 + 10, bytes: 4, unit: 1 },
    },
    {
      key: 'beep',
      part: 'SET.TXT',
      codec: {
        kind: 'word',
        at: 4 * 34 + 10,
        bytes: 3,
        words: [
          { word: 'ON', value: true },
          { word: 'OFF', value: false },
        ],
      },
    },
  ],
  checksums: [],
};
