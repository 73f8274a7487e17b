import type { MemoryMap } from '../memory';

/**
 * 8 KiB. Identification, region, band edges, counters and calibration belong to the unit; the six last bytes of a
 * channel record and all that has no name here are unknown and stay as they were read.
 */
export const memory: MemoryMap = {
  bytes: 0x2000,
  areas: [
    { name: 'Identification, serial, firmware', from: 0x0000, bytes: 0x0020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x0020, bytes: 0x0020, owner: 'unit' },
    { name: 'Unknown', from: 0x0040, bytes: 0x0030, owner: 'unknown' },
    { name: 'Counters', from: 0x0070, bytes: 0x0010, owner: 'volatile' },
    { name: 'Settings', from: 0x0080, bytes: 0x0080, owner: 'ours' },
    { name: 'Slots in use', from: 0x0100, bytes: 0x0013, owner: 'ours' },
    { name: 'Unknown', from: 0x0113, bytes: 0x000d, owner: 'unknown' },
    { name: 'Slots in the scan', from: 0x0120, bytes: 0x0013, owner: 'ours' },
    { name: 'Unknown', from: 0x0133, bytes: 0x00cd, owner: 'unknown' },
    { name: 'Channel records', from: 0x0200, bytes: 150 * 24, owner: 'ours' },
    { name: 'Unknown', from: 0x1010, bytes: 0x00f0, owner: 'unknown' },
    { name: 'Dials', from: 0x1100, bytes: 0x0100, owner: 'unknown' },
    { name: 'Unknown', from: 0x1200, bytes: 0x0a00, owner: 'unknown' },
    { name: 'Calibration', from: 0x1c00, bytes: 0x03f0, owner: 'unit' },
    { name: 'Unknown', from: 0x1ff0, bytes: 0x000e, owner: 'unknown' },
    { name: 'Checksum', from: 0x1ffe, bytes: 0x0002, owner: 'checksum' },
  ],
  channels: {
    from: 0x0200,
    stride: 24,
    used: { at: 0x0100 },
    scan: { at: 0x0120 },
    fields: {
      rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
      tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
      send: { kind: 'squelch', at: 8, tonesFrom: 1, codesFrom: 101, inverted: { at: 10, bit: 0 } },
      expect: { kind: 'squelch', at: 9, tonesFrom: 1, codesFrom: 101, inverted: { at: 10, bit: 1 } },
      mode: { kind: 'choice', at: 11, shift: 0, width: 1, values: ['FM', 'NFM'] },
      power: { kind: 'choice', at: 11, shift: 1, width: 1, values: [4000, 1000] },
      name: { kind: 'text', at: 12, bytes: 6 },
    },
  },
  settings: [
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
    { key: 'greeting', label: 'Greeting', codec: { kind: 'text', at: 0x88, bytes: 6 } },
  ],
  checksum: { at: 0x1ffe, from: 0x0080, to: 0x1ffd },
};
