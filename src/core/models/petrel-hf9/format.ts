import type { Format } from '../../format';

/**
 * 8 KiB; the names lie in a table apart. A memory keeps the way of its shift and not how far it goes, which is set once a band; any
 * other transmit side is a second frequency beside the first.
 */
export const format: Format = {
  signature: { at: 0, text: 'PETRLHF9' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x2000 },
  unit: {
    region: 0x0020,
    step: 10_000,
    options: 0x0021,
    open: 0x0022,
    edges: [
      { band: '80 m', at: 0x0024 },
      { band: '40 m', at: 0x0028 },
      { band: '6 m', at: 0x002c },
      { band: '2 m', at: 0x0030 },
      { band: '70 cm', at: 0x0034 },
    ],
    adds: { from: 0x0020, to: 0x003f },
  },
  areas: [
    { name: 'Identification, firmware', from: 0x0000, bytes: 0x0020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x0020, bytes: 0x0020, owner: 'unit' },
    { name: 'Unknown', from: 0x0040, bytes: 0x0040, owner: 'unknown' },
    { name: 'Settings', from: 0x0080, bytes: 0x0080, owner: 'ours' },
    { name: 'Memories in use', from: 0x0100, bytes: 0x000f, owner: 'ours' },
    { name: 'Unknown', from: 0x010f, bytes: 0x00f1, owner: 'unknown' },
    { name: 'Memories', from: 0x0200, bytes: 120 * 24, owner: 'ours' },
    { name: 'Unknown', from: 0x0d40, bytes: 0x00c0, owner: 'unknown' },
    { name: 'Names', from: 0x0e00, bytes: 120 * 12, owner: 'ours' },
    { name: 'Unknown', from: 0x13a0, bytes: 0x0860, owner: 'unknown' },
    { name: 'Calibration', from: 0x1c00, bytes: 0x03f0, owner: 'unit' },
    { name: 'Unknown', from: 0x1ff0, bytes: 0x000e, owner: 'unknown' },
    { name: 'Checksum', from: 0x1ffe, bytes: 0x0002, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      at: 0x0200,
      stride: 24,
      count: 120,
      first: 1,
      present: { kind: 'bitmap', at: 0x0100 },
      row: {
        rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
        other: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
        shift: {
          kind: 'choice',
          at: 8,
          shift: 0,
          width: 3,
          values: ['none', 'plus', 'minus', 'split', 'listen'],
        },
        mode: { kind: 'choice', at: 8, shift: 3, width: 3, values: ['LSB', 'USB', 'CW', 'AM', 'FM'] },
        power: { kind: 'choice', at: 9, shift: 0, width: 2, values: [100_000, 50_000, 20_000, 5_000] },
        toneWay: { kind: 'choice', at: 9, shift: 4, width: 2, values: ['none', 'send', 'both'] },
        scan: { kind: 'flag', at: 9, bit: 6 },
        tone: { kind: 'tone', at: 10 },
      },
      columns: [
        {
          kind: 'table',
          at: 0x0e00,
          stride: 12,
          row: { name: { kind: 'text', at: 0, bytes: 12 } },
        },
      ],
    },
  ],
  settings: [
    {
      key: 'shows',
      codec: { kind: 'choice', at: 0x0080, shift: 0, width: 2, values: ['name', 'frequency', 'slot'] },
    },
    {
      key: 'beep',
      codec: { kind: 'choice', at: 0x0080, shift: 2, width: 1, values: [false, true] },
    },
    { key: 'shift10m', codec: { kind: 'bcd', at: 0x0090, bytes: 3, unit: 1_000 } },
    { key: 'shift6m', codec: { kind: 'bcd', at: 0x0093, bytes: 3, unit: 1_000 } },
    { key: 'shift2m', codec: { kind: 'bcd', at: 0x0096, bytes: 3, unit: 1_000 } },
    { key: 'shift70cm', codec: { kind: 'bcd', at: 0x0099, bytes: 3, unit: 1_000 } },
    { key: 'greeting', codec: { kind: 'text', at: 0x00a0, bytes: 12 } },
  ],
  checksums: [{ kind: 'sum16', at: 0x1ffe, from: 0x0080, to: 0x1ffd }],
};
