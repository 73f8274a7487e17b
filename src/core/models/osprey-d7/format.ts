import type { Format } from '../../format';
import { channelRow, receiveLists, scanLists, settings, talkgroups } from '../dmr';

/**
 * 432 KiB. What stands in the records beyond their fields, the radio's identification, band edges, counters and calibration are
 * never ours. People lie in a memory of their own.
 */
export const format: Format = {
  signature: { at: 0, text: 'OSPREYD7' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x6c000 },
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
    { name: 'Identification, serial, firmware', from: 0x00000, bytes: 0x00020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x00020, bytes: 0x00020, owner: 'unit' },
    { name: 'Unknown', from: 0x00040, bytes: 0x00030, owner: 'unknown' },
    { name: 'Counters', from: 0x00070, bytes: 0x00010, owner: 'volatile' },
    { name: 'Unknown', from: 0x00080, bytes: 0x00080, owner: 'unknown' },
    { name: 'Settings', from: 0x00100, bytes: 0x00100, owner: 'ours' },
    { name: 'Channels in use', from: 0x00200, bytes: 450, owner: 'ours' },
    { name: 'Unknown', from: 0x003c2, bytes: 0x0003e, owner: 'unknown' },
    { name: 'Talkgroups in use', from: 0x00400, bytes: 1000, owner: 'ours' },
    { name: 'Unknown', from: 0x007e8, bytes: 0x00018, owner: 'unknown' },
    { name: 'Zones, receive lists, scan lists in use', from: 0x00800, bytes: 0x00099, owner: 'ours' },
    { name: 'Unknown', from: 0x00899, bytes: 0x00767, owner: 'unknown' },
    { name: 'Zones', from: 0x01000, bytes: 200 * 224, owner: 'ours' },
    { name: 'Receive lists', from: 0x0bf00, bytes: 200 * 128, owner: 'ours' },
    { name: 'Scan lists', from: 0x12300, bytes: 200 * 112, owner: 'ours' },
    { name: 'Unknown', from: 0x17a80, bytes: 0x00580, owner: 'unknown' },
    { name: 'Channel records', from: 0x18000, bytes: 3600 * 40, owner: 'ours' },
    { name: 'Unknown', from: 0x3b280, bytes: 0x00d80, owner: 'unknown' },
    { name: 'Talkgroups', from: 0x3c000, bytes: 8000 * 24, owner: 'ours' },
    { name: 'Unknown', from: 0x6ae00, bytes: 0x00200, owner: 'unknown' },
    { name: 'Calibration', from: 0x6b000, bytes: 0x00fe0, owner: 'unit' },
    { name: 'Unknown', from: 0x6bfe0, bytes: 0x0001e, owner: 'unknown' },
    { name: 'Checksum', from: 0x6bffe, bytes: 0x00002, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      ...{ at: 0x18000, stride: 40, count: 3600, first: 1 },
      present: { kind: 'bitmap', at: 0x00200 },
      row: channelRow([5_000, 2_500, 1_000], null, {}),
    },
    talkgroups(8000, 0x00400, 0x3c000),
    receiveLists(200, 48, { used: 0x00840, at: 0x0bf00, stride: 128 }),
    scanLists(200, 40, ['heard', 'begun'], { used: 0x00880, at: 0x12300, stride: 112 }),
    {
      table: 'zones',
      ...{ at: 0x01000, stride: 224, count: 200, first: 1 },
      present: { kind: 'bitmap', at: 0x00800 },
      row: {
        name: { kind: 'text', at: 0, bytes: 16 },
        slots: { kind: 'numbers', at: 16, bytes: 2, count: 100 },
        scanList: { kind: 'whole', at: 216, bytes: 2 },
      },
    },
  ],
  settings,
  checksums: [{ kind: 'sum16', at: 0x6bffe, from: 0x00100, to: 0x6bffd }],
};
