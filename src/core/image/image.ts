import { z } from 'zod';
import {
  checksumsHold,
  imageBytes,
  ownedMask as maskOf,
  readTables,
  writeTables,
  type CodecContext,
  type FieldValue,
  type Row,
} from '../format';
import { fittedChannelSchema, type FittedChannel, type Model } from '../models';
import { formatOf } from '../models/formats';
import { fail, ok, type Result } from '../result';

/** What a radio holds, worked out of a plan or read from bytes. Settings that are not named stay as the radio has them. */
export interface RadioContent {
  /** In slot order. */
  channels: FittedChannel[];
  settings: Record<string, FieldValue>;
}

const contextOf = ({ tones, codes, names }: Model): CodecContext => ({
  tones,
  codes,
  characters: names.characters,
});

/** The length of an image of that model. */
export const bytesOf = (model: Pick<Model, 'id'>): number => imageBytes(formatOf(model));

/** True where the checksums that an image carries are right. */
export const imageHolds = (image: Uint8Array, model: Pick<Model, 'id'>): boolean =>
  checksumsHold(image, formatOf(model));

const rowOf = ({ slot, ...fields }: FittedChannel): Row => ({ number: slot, fields });

/**
 * Writes a content into a copy of `base`, a read-out of the same unit. Only bits that the format names are changed;
 * slots that are not in the content are emptied. The checksum is made anew.
 */
export function encodeImage(
  { channels, settings }: RadioContent,
  base: Uint8Array,
  model: Model,
): Uint8Array {
  const tables = { channels: channels.map(rowOf) };
  return writeTables({ tables, settings }, base, formatOf(model), contextOf(model));
}

/**
 * Reads a content from an image. Fails, saying where, on a wrong length or checksum; a slot or setting whose bytes make
 * no sense is left out and named in the note.
 */
export function decodeImage(image: Uint8Array, model: Model): Result<RadioContent> {
  if (image.length !== bytesOf(model))
    return fail(`A read-out of a ${model.name} has ${bytesOf(model)} bytes; this one has ${image.length}.`);
  if (!imageHolds(image, model))
    return fail('The checksum does not hold: the read-out is damaged or half written.');
  const read = readTables(image, formatOf(model), contextOf(model));
  if (!read.ok) return read;
  const { tables, settings, odd } = read.value;
  const channels = (tables.channels ?? []).flatMap(({ number, fields }) => {
    const channel = fittedChannelSchema.safeParse({ slot: number, ...fields });
    if (channel.success) return [channel.data];
    odd.push(
      `slot ${number} (no ${channel.error.issues[0]!.path[0] === 'rx' ? 'receive frequency' : 'channel'})`,
    );
    return [];
  });
  return ok(
    { channels, settings },
    odd.length > 0 ? `Not understood and left as it is: ${odd.join(', ')}.` : undefined,
  );
}

/** A mask of the bits that are ours to write, the checksum among them; all others must survive a write. */
export const ownedMask = (model: Pick<Model, 'id'>): Uint8Array => maskOf(formatOf(model));

export const imageComparisonSchema = z.object({
  /** Bytes compared, and those of them that differ; volatile areas are in neither. */
  compared: z.int(),
  different: z.array(z.int()),
  volatile: z.object({ bytes: z.int(), different: z.int() }),
});
/** How two images agree, area by area. Bytes of volatile areas are counted apart: the radio changes them itself. */
export type ImageComparison = z.infer<typeof imageComparisonSchema>;

/** The stretches of an image that the radio changes itself. */
export const volatileAreas = (model: Pick<Model, 'id'>) =>
  formatOf(model).areas.filter(({ owner }) => owner === 'volatile');

/** Compares what was sent with what was read back, byte for byte. */
export function compareImages(sent: Uint8Array, back: Uint8Array, model: Pick<Model, 'id'>): ImageComparison {
  const result: ImageComparison = { compared: 0, different: [], volatile: { bytes: 0, different: 0 } };
  const volatile = new Uint8Array(bytesOf(model));
  for (const area of volatileAreas(model)) volatile.fill(1, area.from, area.from + area.bytes);
  for (let at = 0; at < volatile.length; at++) {
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
