import type { Format } from '../../format';

/** 24 KiB; 500 records of 32 bytes, which know no power. */
export const format: Format = {
  signature: { at: 0, text: 'CURLEWX1' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x6000 },
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
    { name: 'Identification, serial, firmware', from: 0x0000, bytes: 0x0020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x0020, bytes: 0x0020, owner: 'unit' },
    { name: 'Unknown', from: 0x0040, bytes: 0x0030, owner: 'unknown' },
    { name: 'Counters', from: 0x0070, bytes: 0x0010, owner: 'volatile' },
    { name: 'Settings', from: 0x0080, bytes: 0x0080, owner: 'ours' },
    { name: 'Memories in use', from: 0x0100, bytes: 0x003f, owner: 'ours' },
    { name: 'Unknown', from: 0x013f, bytes: 0x0001, owner: 'unknown' },
    { name: 'Memories in the scan', from: 0x0140, bytes: 0x003f, owner: 'ours' },
    { name: 'Unknown', from: 0x017f, bytes: 0x0281, owner: 'unknown' },
    { name: 'Memories', from: 0x0400, bytes: 500 * 32, owner: 'ours' },
    { name: 'Unknown', from: 0x4280, bytes: 0x1580, owner: 'unknown' },
    { name: 'Calibration', from: 0x5800, bytes: 0x07e0, owner: 'unit' },
    { name: 'Unknown', from: 0x5fe0, bytes: 0x001e, owner: 'unknown' },
    { name: 'Checksum', from: 0x5ffe, bytes: 0x0002, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      at: 0x0400,
      stride: 32,
      count: 500,
      first: 1,
      present: { kind: 'bitmap', at: 0x0100 },
      row: {
        rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
        tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
        send: { kind: 'squelch', at: 8, tonesFrom: 1, codesFrom: 128, inverted: { at: 10, bit: 0 } },
        expect: { kind: 'squelch', at: 9, tonesFrom: 1, codesFrom: 128, inverted: { at: 10, bit: 1 } },
        mode: {
          kind: 'choice',
          at: 11,
          shift: 0,
          width: 3,
          values: ['LSB', 'USB', 'CW', 'AM', 'FM', 'NFM'],
        },
        name: { kind: 'text', at: 12, bytes: 12 },
      },
      columns: [{ kind: 'bitmap', at: 0x0140, field: 'scan' }],
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
    {
      key: 'gnss',
      codec: { kind: 'choice', at: 0x0081, shift: 0, width: 1, values: [false, true] },
    },
    {
      key: 'aprs',
      codec: { kind: 'choice', at: 0x0081, shift: 1, width: 2, values: ['off', 'listens', 'sends'] },
    },
    {
      key: 'aprsEvery',
      codec: { kind: 'choice', at: 0x0082, shift: 0, width: 3, values: [30, 60, 120, 300, 600] },
    },
    {
      key: 'aprsCall',
      codec: { kind: 'text', at: 0x0088, bytes: 9 },
    },
    { key: 'greeting', codec: { kind: 'text', at: 0x0098, bytes: 12 } },
  ],
  checksums: [{ kind: 'sum16', at: 0x5ffe, from: 0x0080, to: 0x5ffd }],
};
