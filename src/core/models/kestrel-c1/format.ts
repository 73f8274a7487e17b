import type { Format } from '../../format';
import { channelRow, receiveLists, scanLists, settings, talkgroups } from '../dmr';

/**
 * 64 KiB. What stands in the records beyond their fields, the radio's identification, band edges, counters and calibration are
 * never ours.
 */
export const format: Format = {
  signature: { at: 0, text: 'KESTRELC' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x10000 },
  unit: {
    region: 0x0020,
    step: 10_000,
    edges: [{ band: '70 cm', at: 0x0022 }],
    adds: { from: 0x0020, to: 0x003f },
  },
  areas: [
    { name: 'Identification, serial, firmware', from: 0x0000, bytes: 0x0020, owner: 'unit' },
    { name: 'Region and band edges', from: 0x0020, bytes: 0x0020, owner: 'unit' },
    { name: 'Unknown', from: 0x0040, bytes: 0x0030, owner: 'unknown' },
    { name: 'Counters', from: 0x0070, bytes: 0x0010, owner: 'volatile' },
    { name: 'Unknown', from: 0x0080, bytes: 0x0080, owner: 'unknown' },
    { name: 'Settings', from: 0x0100, bytes: 0x0100, owner: 'ours' },
    { name: 'Channels in use', from: 0x0200, bytes: 96, owner: 'ours' },
    { name: 'Unknown', from: 0x0260, bytes: 0x00a0, owner: 'unknown' },
    { name: 'Contacts in use', from: 0x0300, bytes: 100, owner: 'ours' },
    { name: 'Unknown', from: 0x0364, bytes: 0x009c, owner: 'unknown' },
    { name: 'Zones, receive lists, scan lists in use', from: 0x0400, bytes: 0x0028, owner: 'ours' },
    { name: 'Unknown', from: 0x0428, bytes: 0x00d8, owner: 'unknown' },
    { name: 'Zones', from: 0x0500, bytes: 48 * 64, owner: 'ours' },
    { name: 'Receive lists', from: 0x1100, bytes: 64 * 64, owner: 'ours' },
    { name: 'Scan lists', from: 0x2100, bytes: 64 * 64, owner: 'ours' },
    { name: 'Contacts', from: 0x3100, bytes: 800 * 24, owner: 'ours' },
    { name: 'Channel records', from: 0x7c00, bytes: 768 * 40, owner: 'ours' },
    { name: 'Unknown', from: 0xf400, bytes: 0x0400, owner: 'unknown' },
    { name: 'Calibration', from: 0xf800, bytes: 0x07e0, owner: 'unit' },
    { name: 'Unknown', from: 0xffe0, bytes: 0x001e, owner: 'unknown' },
    { name: 'Checksum', from: 0xfffe, bytes: 0x0002, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      ...{ at: 0x7c00, stride: 40, count: 768, first: 1 },
      present: { kind: 'bitmap', at: 0x0200 },
      row: channelRow(
        [4_000, 1_000],
        { from: -130, to: -60 },
        {
          scanList: { kind: 'whole', at: 18, bytes: 1 },
        },
      ),
    },
    talkgroups(800, 0x0300, 0x3100),
    receiveLists(64, 16, { used: 0x0410, at: 0x1100, stride: 64 }),
    scanLists(64, 16, ['begun', 'heard', 'first'], { used: 0x0420, at: 0x2100, stride: 64 }),
    {
      table: 'zones',
      ...{ at: 0x0500, stride: 64, count: 48, first: 1 },
      present: { kind: 'bitmap', at: 0x0400 },
      row: {
        name: { kind: 'text', at: 0, bytes: 16 },
        slots: { kind: 'numbers', at: 16, bytes: 2, count: 16 },
      },
    },
  ],
  settings,
  checksums: [{ kind: 'sum16', at: 0xfffe, from: 0x0100, to: 0xfffd }],
};
