import { encodeImage, withUnit, type ToWrite } from '../../../core/image';
import type { FittedChannel, Model } from '../../../core/models';
import { formatOf } from '../../../core/models/formats';
import { blankImage, partStart } from '../../../core/format';
import type { UnitFacts } from '../../../core/plan';
import { remembered } from '../../../core/remember';
import { seeded } from '../../random';

/** A unit on the bench: what is stamped on it, and what it holds when it is new. */
export interface UnitSpec {
  id: string;
  label: string;
  model: Model;
  serial: string;
  firmware: string;
  region: number;
  seed: number;
  /** Where it sends and what it was bought without, where that is not as its model is. */
  made?: Partial<UnitFacts>;
  content: ToWrite;
}

/** A channel as somebody has it in a radio: in the first list, the same both ways, with the model's highest power where nothing else is said. */
export const channelsOf =
  (model: Model) =>
  (slot: number, name: string, rx: number, more: Partial<FittedChannel> = {}): FittedChannel => ({
    list: 0,
    slot,
    name,
    rx,
    tx: rx,
    send: null,
    expect: null,
    mode: 'FM',
    power: model.powers[0]!.milliwatts,
    scan: true,
    ...more,
  });

export const tone = (tenths: number) => ({ kind: 'tone' as const, tone: tenths });

/** The memory of a new unit: its own serial, region, band edges, counters and calibration, and its first content. */
export const newMemory = (unit: UnitSpec): Uint8Array => madeMemory(unit).slice();

const madeMemory = remembered(makeMemory);

function makeMemory({ model, serial, firmware, region, seed, made, content }: UnitSpec): Uint8Array {
  const format = formatOf(model);
  const image = blankImage(format);
  const put = (at: number, text: string) => image.set(new TextEncoder().encode(text), at);
  if (format.container.kind === 'lines') {
    // The second and third line of the first file: the unit and its firmware.
    const width = format.container.parts[0]!.width + 2;
    put(width, `SERIAL ${serial}`);
    put(2 * width, `FIRMWARE ${firmware} REGION ${region}`);
    return encodeImage(content, image, model);
  }
  const random = seeded(seed);
  for (const area of format.areas)
    if (area.owner === 'unit' || area.owner === 'unknown') {
      const from = partStart(format, area.part) + area.from;
      for (let i = 0; i < area.bytes; i++) image[from + i] = Math.floor(random() * 256);
    }
  put(0x00, format.signature.text);
  put(0x08, serial.padEnd(8));
  put(0x10, firmware.padEnd(4));
  image[0x14] = 1;
  for (const area of format.areas)
    if (area.owner === 'volatile') image.fill(0, area.from, area.from + area.bytes);
  return encodeImage(content, withUnit(image, model, { region, sends: {}, lacks: [], ...made }), model);
}
