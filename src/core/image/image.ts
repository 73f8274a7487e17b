import type { FittedChannel, MemoryMap, Model } from '../models';
import { CHANNEL_FIELDS } from '../models';
import { fail, ok, type Result } from '../result';
import { ownedBits, readField, UnreadableField, writeField, type FieldValue } from './codec';

/** What a radio holds, worked out of a plan or read from bytes. Settings that are not named stay as the radio has them. */
export interface RadioContent {
  /** In slot order. */
  channels: FittedChannel[];
  settings: Record<string, FieldValue>;
}

const mark = (at: number, index: number) => ({ at: at + (index >> 3), bit: 1 << (index & 7) });

/** Bytes on which the checksum stands: their sum modulo 65536. */
export function checksumOf(image: Uint8Array, { checksum }: MemoryMap): number {
  let sum = 0;
  for (let i = checksum.from; i <= checksum.to; i++) sum = (sum + image[i]!) & 0xffff;
  return sum;
}

/** True where the checksum that an image carries is right. */
export function checksumHolds(image: Uint8Array, map: MemoryMap): boolean {
  return image[map.checksum.at]! + (image[map.checksum.at + 1]! << 8) === checksumOf(image, map);
}

function putChecksum(image: Uint8Array, map: MemoryMap): void {
  const sum = checksumOf(image, map);
  image[map.checksum.at] = sum & 0xff;
  image[map.checksum.at + 1] = sum >> 8;
}

/**
 * Writes a content into a copy of `base`, a read-out of the same unit. Only bits that the memory map names are changed;
 * slots that are not in the content are emptied. The checksum is made anew.
 */
export function encodeImage(content: RadioContent, base: Uint8Array, model: Model): Uint8Array {
  const { memory, slots } = model;
  if (base.length !== memory.bytes)
    throw new Error(`An image of ${base.length} bytes for a model of ${memory.bytes}`);
  const image = base.slice();
  const bySlot = new Map(content.channels.map((channel) => [channel.slot, channel]));
  for (let index = 0; index < slots.count; index++) {
    const channel = bySlot.get(slots.first + index);
    const record = memory.channels.from + index * memory.channels.stride;
    for (const [at, on] of [
      [memory.channels.used.at, channel !== undefined],
      [memory.channels.scan.at, channel?.scan ?? false],
    ] as const) {
      const place = mark(at, index);
      image[place.at] = on ? image[place.at]! | place.bit : image[place.at]! & ~place.bit;
    }
    for (const key of CHANNEL_FIELDS) {
      const codec = memory.channels.fields[key];
      if (channel) writeField(image, record, codec, channel[key], model);
      else ownedBits(codec, (at, mask) => (image[record + at] = image[record + at]! | mask));
    }
  }
  for (const { key, codec } of memory.settings)
    if (Object.hasOwn(content.settings, key)) writeField(image, 0, codec, content.settings[key]!, model);
  putChecksum(image, memory);
  return image;
}

/**
 * Reads a content from an image. Fails, saying where, on a wrong length or checksum; a slot or setting whose bytes make
 * no sense is left out and named in the note.
 */
export function decodeImage(image: Uint8Array, model: Model): Result<RadioContent> {
  const { memory, slots } = model;
  if (image.length !== memory.bytes)
    return fail(`A read-out of a ${model.name} has ${memory.bytes} bytes; this one has ${image.length}.`);
  if (!checksumHolds(image, memory))
    return fail('The checksum does not hold: the read-out is damaged or half written.');
  const channels: FittedChannel[] = [];
  const settings: Record<string, FieldValue> = {};
  const odd: string[] = [];
  const reading = (what: string, read: () => void) => {
    try {
      read();
    } catch (error) {
      if (!(error instanceof UnreadableField)) throw error;
      odd.push(`${what} (${error.message})`);
    }
  };
  for (let index = 0; index < slots.count; index++) {
    const used = mark(memory.channels.used.at, index);
    if ((image[used.at]! & used.bit) === 0) continue;
    const slot = slots.first + index;
    const record = memory.channels.from + index * memory.channels.stride;
    const scan = mark(memory.channels.scan.at, index);
    reading(`slot ${slot}`, () => {
      const fields = Object.fromEntries(
        CHANNEL_FIELDS.map((key) => [key, readField(image, record, memory.channels.fields[key], model)]),
      );
      if (fields.rx === null) throw new UnreadableField('no receive frequency');
      channels.push({ slot, scan: (image[scan.at]! & scan.bit) !== 0, ...fields } as FittedChannel);
    });
  }
  for (const { key, label, codec } of memory.settings)
    reading(`setting “${label}”`, () => (settings[key] = readField(image, 0, codec, model)));
  return ok(
    { channels, settings },
    odd.length > 0 ? `Not understood and left as it is: ${odd.join(', ')}.` : undefined,
  );
}

/** A mask of the bits that are ours to write, the checksum among them; all others must survive a write. */
export function ownedMask(model: Model): Uint8Array {
  const { memory, slots } = model;
  const mask = new Uint8Array(memory.bytes);
  const own = (at: number, bits: number) => (mask[at] = mask[at]! | bits);
  for (let index = 0; index < slots.count; index++) {
    for (const marks of [memory.channels.used, memory.channels.scan]) {
      const place = mark(marks.at, index);
      own(place.at, place.bit);
    }
    const record = memory.channels.from + index * memory.channels.stride;
    for (const key of CHANNEL_FIELDS)
      ownedBits(memory.channels.fields[key], (at, bits) => own(record + at, bits));
  }
  for (const { codec } of memory.settings) ownedBits(codec, own);
  own(memory.checksum.at, 0xff);
  own(memory.checksum.at + 1, 0xff);
  return mask;
}

/** How two images agree, area by area. Bytes of volatile areas are counted apart: the radio changes them itself. */
export interface ImageComparison {
  /** Bytes compared, and those of them that differ; volatile areas are in neither. */
  compared: number;
  different: number[];
  volatile: { bytes: number; different: number };
}

/** Compares what was sent with what was read back, byte for byte. */
export function compareImages(sent: Uint8Array, back: Uint8Array, { memory }: Model): ImageComparison {
  const result: ImageComparison = { compared: 0, different: [], volatile: { bytes: 0, different: 0 } };
  const volatile = new Uint8Array(memory.bytes);
  for (const area of memory.areas)
    if (area.owner === 'volatile') volatile.fill(1, area.from, area.from + area.bytes);
  for (let at = 0; at < memory.bytes; at++) {
    if (volatile[at]) {
      result.volatile.bytes++;
      if (sent[at] !== back[at]) result.volatile.different++;
    } else {
      result.compared++;
      if (sent[at] !== back[at]) result.different.push(at);
    }
  }
  return result;
}
