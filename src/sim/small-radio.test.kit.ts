import { addModel, type Model } from '../core/models';
import { addFormat } from '../core/models/formats';
import { ternP2 } from '../core/models/tern-p2';
import type { Format } from '../core/format';
import { channelsOf, newMemory, type UnitSpec } from './bench/units/unit';

/**
 * Radios with a memory as small as can be, one for each kind of cable, so that a test can strike every bit of every byte on their line; not used
 * by the application. 320 bytes: what it is (0x00 to 0x17), counters (0x18 to 0x1f), eight channels of 14 bytes, unknown bytes, a checksum.
 */

export const SMALL_BYTES = 320;
/** The radio's own counters. */
export const isCounter = (at: number) => at >= 0x18 && at < 0x20;

const format: Format = {
  signature: { at: 0, text: 'WREN-1  ' },
  version: { at: 0x14, value: 1 },
  container: { kind: 'bytes', bytes: SMALL_BYTES },
  areas: [
    { name: 'Identification, serial, firmware', from: 0x00, bytes: 0x18, owner: 'unit' },
    { name: 'Counters', from: 0x18, bytes: 0x08, owner: 'volatile' },
    { name: 'Channels', from: 0x20, bytes: 8 * 14, owner: 'ours' },
    { name: 'Unknown', from: 0x90, bytes: 0x13e - 0x90, owner: 'unknown' },
    { name: 'Checksum', from: 0x13e, bytes: 2, owner: 'checksum' },
  ],
  layouts: [
    {
      table: 'channels',
      at: 0x20,
      stride: 14,
      count: 8,
      first: 1,
      present: { kind: 'sentinel', field: 'rx' },
      row: {
        rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
        tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
        mode: { kind: 'choice', at: 9, shift: 3, width: 1, values: ['NFM', 'FM'] },
        name: { kind: 'text', at: 10, bytes: 4 },
      },
    },
  ],
  settings: [],
  checksums: [{ kind: 'sum16', at: 0x13e, from: 0x20, to: 0x13d }],
};

/** A unit of a small model with that link; its model is taken away again after the last test of the file. */
export function smallRadio(link: NonNullable<Model['link']>): UnitSpec {
  const model: Model = {
    ...ternP2,
    id: 'wren-1',
    name: 'Wren 1',
    maker: 'Brae',
    alsoSoldAs: [],
    slots: { first: 1, count: 8 },
    names: { length: 4, characters: ternP2.names.characters },
    link,
  };
  const takeAway = [addModel(model), addFormat(model.id, format)];
  afterAll(() => takeAway.forEach((take) => take()));
  const channel = channelsOf(model);
  return {
    id: 'wren-1',
    label: 'Wren 1, as small as can be',
    model,
    serial: 'BR100001',
    firmware: '1.00',
    region: 1,
    seed: 100001,
    content: {
      channels: [
        channel(1, 'CALL', 145_500_000),
        channel(2, 'HILL', 145_612_500),
        channel(5, 'BAY', 433_500_000),
      ],
      settings: {},
    },
  };
}

/** The memory of the unit with other channels in it. */
export const otherMemory = (unit: UnitSpec): Uint8Array =>
  newMemory({ ...unit, content: { ...unit.content, channels: unit.content.channels.slice(1) } });
