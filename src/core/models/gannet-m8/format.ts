import type { Format, Layout } from '../../format';
import { TONES } from '../../radio';

/** A channel record, 32 bytes wide. */
const channelRow: Layout['row'] = {
  rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
  tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
  send: { kind: 'squelch', at: 8, tonesFrom: 1, codesFrom: 1 + TONES.length, inverted: { at: 10, bit: 0 } },
  expect: { kind: 'squelch', at: 9, tonesFrom: 1, codesFrom: 1 + TONES.length, inverted: { at: 10, bit: 1 } },
  mode: { kind: 'choice', at: 11, shift: 0, width: 1, values: ['FM', 'NFM'] },
  power: { kind: 'choice', at: 11, shift: 1, width: 2, values: [50_000, 20_000, 5_000] },
  name: { kind: 'text', at: 12, bytes: 7 },
};

const side = (list: 0 | 1, used: number, scan: number, at: number): Layout => ({
  table: list === 0 ? 'channels' : 'channels 1',
  at,
  stride: 32,
  count: 400,
  first: 1,
  present: { kind: 'bitmap', at: used },
  row: channelRow,
  columns: [{ kind: 'bitmap', at: scan, field: 'scan' }],
});

/** Home channels, one a band. */
const home = (list: 2 | 3, at: number): Layout => ({
  table: `channels ${list}`,
  at: at + 0x10,
  stride: 32,
  count: 2,
  first: 1,
  present: { kind: 'bitmap', at },
  row: channelRow,
});

const banks = (list: 0 | 1, at: number): Layout => ({
  table: list === 0 ? 'zones' : 'zones 1',
  at: at + 0x10,
  stride: 64,
  count: 8,
  first: 1,
  present: { kind: 'bitmap', at },
  row: {
    name: { kind: 'text', at: 0, bytes: 7 },
    slots: { kind: 'bits', at: 8, first: 1, count: 400 },
  },
});

const edges = (list: 0 | 1, at: number): Layout => ({
  table: list === 0 ? 'scanEdges' : 'scanEdges 1',
  at: at + 8,
  stride: 8,
  count: 6,
  first: 1,
  present: { kind: 'bitmap', at },
  row: {
    from: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
    to: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
  },
});

/** What a quick set-up does to a side, 24 bytes from `at` on. */
const setUpSide = (list: 0 | 1, at: number): Layout['row'] => ({
  [`begins ${list}`]: { kind: 'choice', at, shift: 0, width: 2, values: ['dial', 'home', 'memory'] },
  [`scanning ${list}`]: { kind: 'flag', at, bit: 2 },
  [`shows ${list}`]: { kind: 'choice', at, shift: 3, width: 1, values: ['name', 'frequency'] },
  [`zone ${list}`]: { kind: 'whole', at: at + 1, bytes: 1 },
  [`start ${list}`]: { kind: 'whole', at: at + 2, bytes: 2 },
  [`skipSet ${list}`]: { kind: 'whole', at: at + 4, bytes: 1 },
  [`autoDial ${list}`]: { kind: 'text', at: at + 5, bytes: 16, characters: '0123456789ABCD*#' },
});

/**
 * 32 KiB. What stands in the records beyond their fields, the radio's identification, band edges, counters and calibration are
 * never ours.
 */
export const format: Format = {
  signature: { at: 0, text: 'GANNETM8' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: 0x8000 },
  unit: {
    region: 0x0020,
    step: 10_000,
    options: 0x0021,
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
    { name: 'Unknown', from: 0x0080, bytes: 0x0080, owner: 'unknown' },
    { name: 'Settings', from: 0x0100, bytes: 0x0100, owner: 'ours' },
    { name: 'Left: slots in use', from: 0x0200, bytes: 0x0032, owner: 'ours' },
    { name: 'Unknown', from: 0x0232, bytes: 0x000e, owner: 'unknown' },
    { name: 'Left: slots in the scan', from: 0x0240, bytes: 0x0032, owner: 'ours' },
    { name: 'Unknown', from: 0x0272, bytes: 0x000e, owner: 'unknown' },
    { name: 'Right: slots in use', from: 0x0280, bytes: 0x0032, owner: 'ours' },
    { name: 'Unknown', from: 0x02b2, bytes: 0x000e, owner: 'unknown' },
    { name: 'Right: slots in the scan', from: 0x02c0, bytes: 0x0032, owner: 'ours' },
    { name: 'Unknown', from: 0x02f2, bytes: 0x000e, owner: 'unknown' },
    { name: 'Left: banks', from: 0x0300, bytes: 0x0210, owner: 'ours' },
    { name: 'Right: banks', from: 0x0510, bytes: 0x0210, owner: 'ours' },
    { name: 'Skip sets', from: 0x0720, bytes: 0x0210, owner: 'ours' },
    { name: 'Left: scan edges', from: 0x0930, bytes: 0x0038, owner: 'ours' },
    { name: 'Right: scan edges', from: 0x0968, bytes: 0x0038, owner: 'ours' },
    { name: 'Quick set-ups', from: 0x09a0, bytes: 0x0110, owner: 'ours' },
    { name: 'Left: home channels', from: 0x0ab0, bytes: 0x0050, owner: 'ours' },
    { name: 'Right: home channels', from: 0x0b00, bytes: 0x0050, owner: 'ours' },
    { name: 'Unknown', from: 0x0b50, bytes: 0x04b0, owner: 'unknown' },
    { name: 'Left: channel records', from: 0x1000, bytes: 400 * 32, owner: 'ours' },
    { name: 'Right: channel records', from: 0x4200, bytes: 400 * 32, owner: 'ours' },
    { name: 'Unknown', from: 0x7400, bytes: 0x0400, owner: 'unknown' },
    { name: 'Calibration', from: 0x7800, bytes: 0x07e0, owner: 'unit' },
    { name: 'Unknown', from: 0x7fe0, bytes: 0x001e, owner: 'unknown' },
    { name: 'Checksum', from: 0x7ffe, bytes: 0x0002, owner: 'checksum' },
  ],
  layouts: [
    side(0, 0x0200, 0x0240, 0x1000),
    side(1, 0x0280, 0x02c0, 0x4200),
    home(2, 0x0ab0),
    home(3, 0x0b00),
    banks(0, 0x0300),
    banks(1, 0x0510),
    {
      table: 'skipSets',
      at: 0x0730,
      stride: 128,
      count: 4,
      first: 1,
      present: { kind: 'bitmap', at: 0x0720 },
      row: {
        name: { kind: 'text', at: 0, bytes: 7 },
        way: { kind: 'choice', at: 7, shift: 0, width: 1, values: ['all but', 'only'] },
        'slots 0': { kind: 'bits', at: 8, first: 1, count: 400 },
        'slots 1': { kind: 'bits', at: 64, first: 1, count: 400 },
      },
    },
    edges(0, 0x0930),
    edges(1, 0x0968),
    {
      table: 'setUps',
      at: 0x09b0,
      stride: 64,
      count: 4,
      first: 1,
      present: { kind: 'bitmap', at: 0x09a0 },
      row: { name: { kind: 'text', at: 0, bytes: 7 }, ...setUpSide(0, 8), ...setUpSide(1, 36) },
    },
  ],
  settings: [
    {
      key: 'showLeft',
      codec: { kind: 'choice', at: 0x0100, shift: 0, width: 2, values: ['name', 'frequency', 'slot'] },
    },
    {
      key: 'showRight',
      codec: { kind: 'choice', at: 0x0100, shift: 2, width: 2, values: ['name', 'frequency', 'slot'] },
    },
    {
      key: 'beep',
      codec: { kind: 'choice', at: 0x0101, shift: 0, width: 1, values: [false, true] },
    },
    {
      key: 'crossBand',
      codec: { kind: 'choice', at: 0x0101, shift: 1, width: 1, values: [false, true] },
    },
    {
      key: 'timeOut',
      codec: { kind: 'choice', at: 0x0102, shift: 0, width: 3, values: [0, 60, 180, 300, 600] },
    },
    { key: 'greeting', codec: { kind: 'text', at: 0x0110, bytes: 7 } },
  ],
  checksums: [{ kind: 'sum16', at: 0x7ffe, from: 0x0100, to: 0x7ffd }],
};
