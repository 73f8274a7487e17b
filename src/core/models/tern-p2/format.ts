import type { Format } from '../../format';
import { channelRow, settings } from '../tern';

/**
 * 8 KiB. Identification, region, band edges, counters and calibration belong to the unit; the six last bytes of a
 * channel record and all that has no name here are unknown and stay as they were read.
 */
export const format: Format = {
  signature: { at: 0, text: 'TERN-P2 ' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x2000 },
  unit: {
    region: 0x0020,
    step: 10_000,
    edges: [
      { band: '2 m', at: 0x0022 },
      { band: '70 cm', at: 0x0026 },
    ],
    adds: { from: 0x0020, to: 0x003f },
  },
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
  layouts: [
    {
      table: 'channels',
      at: 0x0200,
      stride: 24,
      count: 150,
      first: 0,
      present: { kind: 'bitmap', at: 0x0100 },
      row: channelRow(6),
      columns: [{ kind: 'bitmap', at: 0x0120, field: 'scan' }],
    },
  ],
  settings: settings(6),
  checksums: [{ kind: 'sum16', at: 0x1ffe, from: 0x0080, to: 0x1ffd }],
};
