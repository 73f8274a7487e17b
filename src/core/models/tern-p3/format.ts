import type { Format } from '../../format';
import { channelRow, settings } from '../tern';

/**
 * 16 KiB. What stands before the slots is as in the P2; the records have the same width with two more characters of the name, and
 * there are 220 of them, counted from slot 1.
 */
export const format: Format = {
  signature: { at: 0, text: 'TERN-P3 ' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x4000 },
  unit: {
    region: 0x0020,
    step: 10_000,
    edges: [
      { band: '2 m', at: 0x0022 },
      { band: '1.25 m', at: 0x0026 },
      { band: '70 cm', at: 0x002a },
    ],
    adds: { from: 0x0020, to: 0x003f },
  },
  areas: [
    { name: 'Identification, serial, firmware', from: 0x0000, bytes: 0x0020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x0020, bytes: 0x0020, owner: 'unit' },
    { name: 'Unknown', from: 0x0040, bytes: 0x0030, owner: 'unknown' },
    { name: 'Counters', from: 0x0070, bytes: 0x0010, owner: 'volatile' },
    { name: 'Settings', from: 0x0080, bytes: 0x0080, owner: 'ours' },
    { name: 'Slots in use', from: 0x0100, bytes: 0x001c, owner: 'ours' },
    { name: 'Unknown', from: 0x011c, bytes: 0x0024, owner: 'unknown' },
    { name: 'Slots in the scan', from: 0x0140, bytes: 0x001c, owner: 'ours' },
    { name: 'Unknown', from: 0x015c, bytes: 0x02a4, owner: 'unknown' },
    { name: 'Channel records', from: 0x0400, bytes: 220 * 24, owner: 'ours' },
    { name: 'Unknown', from: 0x18a0, bytes: 0x0060, owner: 'unknown' },
    { name: 'Dials', from: 0x1900, bytes: 0x0100, owner: 'unknown' },
    { name: 'Unknown', from: 0x1a00, bytes: 0x2200, owner: 'unknown' },
    { name: 'Calibration', from: 0x3c00, bytes: 0x03f0, owner: 'unit' },
    { name: 'Unknown', from: 0x3ff0, bytes: 0x000e, owner: 'unknown' },
    { name: 'Checksum', from: 0x3ffe, bytes: 0x0002, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      at: 0x0400,
      stride: 24,
      count: 220,
      first: 1,
      present: { kind: 'bitmap', at: 0x0100 },
      row: channelRow(8),
      columns: [{ kind: 'bitmap', at: 0x0140, field: 'scan' }],
    },
  ],
  settings: settings(8),
  checksums: [{ kind: 'sum16', at: 0x3ffe, from: 0x0080, to: 0x3ffd }],
};
