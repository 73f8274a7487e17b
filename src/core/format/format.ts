import { z } from 'zod';
import { codecSchema, settingCodecSchema } from './field';

/**
 * How the bytes of a model lie, as data: a container, the tables in it, its settings, its checksums, and whose each area is.
 * Everything that a field or a mark names is ours to write; every other bit is the radio's and survives a write.
 */

const offset = z.int().min(0);
const fields = z.record(z.string(), codecSchema);

/**
 * One stretch of bytes; or named parts: modules of a radio, files of a card; or files of lines of text, each line of the same width and
 * ended with carriage return and line feed. An image is its parts one after the other.
 */
export const containerSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bytes'), bytes: z.int().min(16) }),
  z.object({
    kind: z.literal('parts'),
    parts: z.array(z.object({ name: z.string(), bytes: z.int().min(1) })).min(1),
  }),
  z.object({
    kind: z.literal('lines'),
    parts: z.array(z.object({ name: z.string(), width: z.int().min(1), lines: z.int().min(1) })).min(1),
  }),
]);

/** What marks a row as there: a bit a row in a table of bits; a field that holds something; or a number of rows, which then come first. */
export const presentSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bitmap'), part: z.string().optional(), at: offset }),
  z.object({ kind: z.literal('sentinel'), field: z.string() }),
  z.object({
    kind: z.literal('count'),
    part: z.string().optional(),
    at: offset,
    bytes: z.int().min(1).max(4),
  }),
]);

/** Fields of the rows that lie elsewhere: in a table of their own, or as a bit a row. */
export const columnSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('table'),
    part: z.string().optional(),
    at: offset,
    stride: z.int().min(1),
    row: fields,
  }),
  z.object({ kind: z.literal('bitmap'), part: z.string().optional(), at: offset, field: z.string() }),
]);

/** A table of equal rows. Bits of a table of bits count up from the lowest of the first byte. */
export const layoutSchema = z.object({
  /** What it holds: `channels`. */
  table: z.string(),
  part: z.string().optional(),
  at: offset,
  stride: z.int().min(1),
  count: z.int().min(1),
  /** The number of the first row for people: the first slot. */
  first: z.int().min(0),
  present: presentSchema,
  row: fields,
  columns: z.array(columnSchema).default([]),
});

/** Where the bytes of a setting lie. What it is for people is said by the settings of the model, under the same key. */
export const placedSettingSchema = z.object({
  key: z.string(),
  part: z.string().optional(),
  codec: settingCodecSchema,
  /** The layout version that brought it; a radio of an older one has other bytes there. Absent where it was always there. */
  since: z.int().min(2).optional(),
});

/** Sum of the bytes of a range, modulo 65536, least significant byte first. */
export const checksumSchema = z.object({
  kind: z.literal('sum16'),
  part: z.string().optional(),
  at: offset,
  from: offset,
  to: offset,
});

/** Whose a stretch is: `ours` in part or whole, the `unit`'s own, `volatile` (the radio changes it itself), `unknown`, or a checksum. */
export const areaSchema = z.object({
  name: z.string(),
  part: z.string().optional(),
  from: offset,
  bytes: z.int().min(1),
  owner: z.enum(['ours', 'unit', 'volatile', 'unknown', 'checksum']),
});

/** What an image of the model begins with, or has somewhere else: by it a file is recognised. */
export const signatureSchema = z.object({ part: z.string().optional(), at: offset, text: z.string().min(4) });

/**
 * The byte that says which layout version an image has. `value` is the newest that is laid down here; those from 1 up to it are known, and
 * an older one lacks the settings that came since.
 */
export const versionSchema = z.object({
  part: z.string().optional(),
  at: offset,
  value: z.int().min(1).max(255),
});

/**
 * What belongs to one unit and is read of it: where it sends, and what it was bought with. `edges` are two whole numbers of two bytes for
 * a band, lower and upper, in units of `step` Hz, all bits set where it does not send there; `open` a bit a band of the model, set where it
 * sends; `options` a bit an option of the model, set where it has it. The bytes of `adds`, its last with them, add up to 0 modulo 256.
 */
export const unitPlaceSchema = z.object({
  part: z.string().optional(),
  /** The byte with the ITU region whose set it is. */
  region: offset,
  step: z.int().min(1),
  edges: z.array(z.object({ band: z.string(), at: offset })),
  open: offset.optional(),
  options: offset.optional(),
  adds: z.object({ from: offset, to: offset }),
});

export const formatSchema = z.object({
  container: containerSchema,
  signature: signatureSchema,
  version: versionSchema.optional(),
  layouts: z.array(layoutSchema),
  settings: z.array(placedSettingSchema),
  checksums: z.array(checksumSchema),
  areas: z.array(areaSchema),
  unit: unitPlaceSchema.optional(),
});
/** A format as it is written down; what has a usual value may be left out. */
export type Format = z.input<typeof formatSchema>;
export type Layout = Format['layouts'][number];
export type Area = z.infer<typeof areaSchema>;

/** Carriage return and line feed. */
const LINE_END = 2;

/** The parts of an image with their lengths, in their order; one without a name where it is one stretch of bytes. */
export function partsOf({ container }: Pick<Format, 'container'>): { name?: string; bytes: number }[] {
  switch (container.kind) {
    case 'bytes':
      return [{ bytes: container.bytes }];
    case 'parts':
      return container.parts;
    case 'lines':
      return container.parts.map(({ name, width, lines }) => ({ name, bytes: lines * (width + LINE_END) }));
  }
}

/** The length of an image. */
export const imageBytes = (format: Pick<Format, 'container'>): number =>
  partsOf(format).reduce((sum, { bytes }) => sum + bytes, 0);

/** Where a line of text does not end where it must, in words; null where all do, or where there are none. */
export function lineFault(image: Uint8Array, { container }: Pick<Format, 'container'>): string | null {
  if (container.kind !== 'lines') return null;
  let at = 0;
  for (const { name, width, lines } of container.parts)
    for (let line = 1; line <= lines; line++) {
      at += width + LINE_END;
      if (image[at - 2] !== 0x0d || image[at - 1] !== 0x0a)
        return `Line ${line} of ${name} is not ${width} characters long.`;
    }
  return null;
}

/** An image in which nothing stands yet: zeros, or lines of spaces; with what it is recognised by. */
export function blankImage(format: Pick<Format, 'container' | 'signature' | 'version'>): Uint8Array {
  const image = new Uint8Array(imageBytes(format));
  const { container, signature, version } = format;
  if (container.kind === 'lines') {
    image.fill(0x20);
    let at = 0;
    for (const { width, lines } of container.parts)
      for (let line = 0; line < lines; line++) {
        at += width + LINE_END;
        image.set([0x0d, 0x0a], at - LINE_END);
      }
  }
  image.set(new TextEncoder().encode(signature.text), partStart(format, signature.part) + signature.at);
  if (version) image[partStart(format, version.part) + version.at] = version.value;
  return image;
}

/** The layout version of an image; 1 where its format has only one. */
export function layoutVersion(image: Uint8Array, format: Pick<Format, 'container' | 'version'>): number {
  const { version } = format;
  return version ? image[partStart(format, version.part) + version.at]! : 1;
}

/** The settings that an image of a layout version has: those that came with it or before, and in any case those that were always there. */
export const settingsOfLayout = ({ settings }: Pick<Format, 'settings'>, version: number) =>
  settings.filter(({ since }) => since === undefined || since <= version);

/** True where an image has what its format is recognised by. */
export function hasSignature(image: Uint8Array, format: Pick<Format, 'container' | 'signature'>): boolean {
  const { text, part, at } = format.signature;
  const start = partStart(format, part) + at;
  return [...text].every((letter, place) => image[start + place] === letter.charCodeAt(0));
}

/** Where a part begins in the image; 0 where the image is one stretch of bytes. Throws on a part that there is not. */
export function partStart({ container }: Pick<Format, 'container'>, part: string | undefined): number {
  if (container.kind === 'bytes') return 0;
  let start = 0;
  for (const { name, bytes } of partsOf({ container })) {
    if (name === part) return start;
    start += bytes;
  }
  throw new Error(`There is no part ${part}`);
}
