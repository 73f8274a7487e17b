import { remembered } from '../remember';
import { fail, ok, type Result } from '../result';
import { setBits, type CodecContext, type FieldValue } from './codec';
import { ownedBits, readField, writeField, type Codec } from './field';
import {
  imageBytes,
  layoutVersion,
  lineFault,
  partStart,
  settingsOfLayout,
  type Format,
  type Layout,
} from './format';

/** A row of a table: its number for people (the slot), and its fields. */
export interface Row {
  number: number;
  fields: Record<string, FieldValue>;
}

/** What an image holds by its format: rows by table, in the order of their numbers, and settings by key. */
export interface Tables {
  tables: Record<string, Row[]>;
  settings: Record<string, FieldValue>;
}

const bitOf = (start: number, index: number) => [start + (index >> 3), 1 << (index & 7)] as const;

/** A field of a layout: where the record of its first row begins, and how far it is to that of the next. */
interface Column {
  field: string;
  /** Null for a column of bits, whose codec is another one in each row. */
  codec: Codec | null;
  start: number;
  stride: number;
}

/** The fields of a layout. Worked out once: a format has thousands of rows of the same fields. */
const columnsOf = remembered((format: Pick<Format, 'container'>) =>
  remembered((layout: Layout): readonly Column[] => {
    const of = (row: Layout['row'], start: number, stride: number): Column[] =>
      Object.entries(row).map(([field, codec]) => ({ field, codec, start, stride }));
    return [
      ...of(layout.row, partStart(format, layout.part) + layout.at, layout.stride),
      ...(layout.columns ?? []).flatMap((column) => {
        const start = partStart(format, column.part) + column.at;
        return column.kind === 'table'
          ? of(column.row, start, column.stride)
          : [{ field: column.field, codec: null, start, stride: 0 }];
      }),
    ];
  }),
);

const bitCodecs: Codec[] = [];
/** The codec of a row's bit in a column of bits. */
const bitCodec = (index: number): Codec =>
  (bitCodecs[index] ??= { kind: 'flag', at: index >> 3, bit: index & 7 });

/** Where each field of a row stands: its codec and where the record begins from which it counts. */
function* fieldsOf(format: Format, layout: Layout, index: number): Generator<[string, Codec, number]> {
  for (const { field, codec, start, stride } of columnsOf(format)(layout))
    yield [field, codec ?? bitCodec(index), start + index * stride];
}

/** Every field of every row of a layout: the row's number, the field, its codec, and where its record begins. */
export function* fieldsIn(
  format: Format,
  layout: Layout,
): Generator<{ number: number; field: string; codec: Codec; base: number }> {
  for (let index = 0; index < layout.count; index++)
    for (const [field, codec, base] of fieldsOf(format, layout, index))
      yield { number: layout.first + index, field, codec, base };
}

function readCount(image: Uint8Array, start: number, bytes: number): number {
  let count = 0;
  for (let i = bytes - 1; i >= 0; i--) count = count * 256 + image[start + i]!;
  return count;
}

/** Which rows are there. */
function presence(image: Uint8Array, format: Format, layout: Layout, context: CodecContext) {
  const { present } = layout;
  if (present.kind === 'bitmap') {
    const start = partStart(format, present.part) + present.at;
    return (index: number) => {
      const [at, bit] = bitOf(start, index);
      return (image[at]! & bit) !== 0;
    };
  }
  if (present.kind === 'count') {
    const count = readCount(image, partStart(format, present.part) + present.at, present.bytes);
    return (index: number) => index < count;
  }
  const codec = layout.row[present.field]!;
  const base = partStart(format, layout.part) + layout.at;
  return (index: number) => {
    const read = readField(image, base + index * layout.stride, codec, context);
    return !read.ok || read.value !== null;
  };
}

function writePresence(image: Uint8Array, format: Format, layout: Layout, there: readonly boolean[]): void {
  const { present } = layout;
  if (present.kind === 'sentinel') return;
  const start = partStart(format, present.part) + present.at;
  if (present.kind === 'bitmap')
    there.forEach((is, index) => setBits(image, ...bitOf(start, index), is ? 0xff : 0));
  else {
    const count = there.filter(Boolean).length;
    for (let i = 0; i < present.bytes; i++) image[start + i] = (count >> (8 * i)) & 0xff;
  }
}

/**
 * Writes rows and settings into a copy of `base`, an image of the same unit. Only bits that the format names are changed; rows that
 * are not named are emptied, settings that are not named stay. Checksums are made anew.
 */
export function writeTables(
  { tables, settings }: Tables,
  base: Uint8Array,
  format: Format,
  context: CodecContext,
): Uint8Array {
  if (base.length !== imageBytes(format))
    throw new Error(`An image of ${base.length} bytes for a format of ${imageBytes(format)}`);
  // Not `slice`: of the bytes that a socket or a file gives it would be the same bytes under another name.
  const image = Uint8Array.from(base);
  const empty = format.container.kind === 'lines' ? 0x20 : 0xff;
  for (const layout of format.layouts) {
    const rows = tables[layout.table] ?? [];
    // Rows that are counted stand one after the other from the first on.
    const packed = layout.present.kind === 'count';
    const byIndex = new Map(rows.map((row, place) => [packed ? place : row.number - layout.first, row]));
    const there = Array.from({ length: layout.count }, (_, index) => byIndex.has(index));
    writePresence(image, format, layout, there);
    for (const [index, is] of there.entries())
      if (is)
        for (const [field, codec, from] of fieldsOf(format, layout, index))
          writeField(image, from, codec, byIndex.get(index)!.fields[field]!, context);
      else clearRow(image, format, layout, index, empty);
  }
  for (const { key, part, codec } of settingsOfLayout(format, layoutVersion(base, format)))
    if (Object.hasOwn(settings, key))
      writeField(image, partStart(format, part), codec, settings[key]!, context);
  for (const checksum of format.checksums) {
    const sum = sumOf(image, format, checksum);
    const at = partStart(format, checksum.part) + checksum.at;
    image[at] = sum & 0xff;
    image[at + 1] = sum >> 8;
  }
  return image;
}

/** The bytes of a layout's fields, by record: those that are a field's as a whole, in runs, and those of which some bits are. */
const stretchesOf = remembered((format: Pick<Format, 'container'>) =>
  remembered((layout: Layout) =>
    columnsOf(format)(layout).flatMap(({ codec, start, stride }) => {
      if (!codec) return [];
      const whole: { from: number; to: number }[] = [];
      const parts: { at: number; mask: number }[] = [];
      for (const [at, mask] of [...ownedBits(codec)].sort(([a], [b]) => a - b)) {
        const last = whole[whole.length - 1];
        if (mask !== 0xff) parts.push({ at, mask });
        else if (last?.to === at) last.to++;
        else whole.push({ from: at, to: at + 1 });
      }
      return { start, stride, whole, parts };
    }),
  ),
);

/** Empties a row that is not there: its bits in columns of bits are cleared, those of its fields are set as in `empty`. */
function clearRow(image: Uint8Array, format: Format, layout: Layout, index: number, empty: number): void {
  for (const { start, stride, whole, parts } of stretchesOf(format)(layout)) {
    const base = start + index * stride;
    for (const { from, to } of whole) image.fill(empty, base + from, base + to);
    for (const { at, mask } of parts) image[base + at] = (image[base + at]! & ~mask) | (empty & mask);
  }
  for (const { codec, start } of columnsOf(format)(layout))
    if (!codec) setBits(image, ...bitOf(start, index), 0);
}

/** What was read; `odd` names the rows that made no sense and were left out, `unknown` the settings whose bytes are no value, with those bytes. */
export type ReadTables = Tables & { odd: string[]; unknown: Record<string, Uint8Array> };

/** The bytes of which a setting has some bits, in their order. */
export function settingBytes(
  image: Uint8Array,
  format: Pick<Format, 'container'>,
  { part, codec }: Format['settings'][number],
): Uint8Array {
  const start = partStart(format, part);
  const places = new Set(ownedBits(codec).map(([at]) => start + at));
  return Uint8Array.from(
    [...places].sort((a, b) => a - b),
    (at) => image[at]!,
  );
}

/**
 * Reads all tables and settings of an image. Fails, saying where, on a wrong length or checksum; of one that is known to be
 * `damaged` it reads what can be read.
 */
export function readTables(
  image: Uint8Array,
  format: Format,
  context: CodecContext,
  { damaged = false } = {},
): Result<ReadTables> {
  if (image.length !== imageBytes(format))
    return fail(`has ${imageBytes(format)} bytes; this one has ${image.length}.`);
  if (!damaged && !checksumsHold(image, format))
    return fail('The checksum does not hold: it is damaged or half written.');
  const broken = lineFault(image, format);
  if (broken !== null && !damaged) return fail(broken);
  const read: ReadTables = { tables: {}, settings: {}, odd: [], unknown: {} };
  for (const layout of format.layouts) {
    const rows: Row[] = [];
    const there = presence(image, format, layout, context);
    for (let index = 0; index < layout.count; index++) {
      if (!there(index)) continue;
      const number = layout.first + index;
      const fields: Row['fields'] = {};
      let odd = '';
      for (const [field, codec, from] of fieldsOf(format, layout, index)) {
        const value = readField(image, from, codec, context);
        if (value.ok) fields[field] = value.value;
        else odd ||= value.reason;
      }
      if (odd) read.odd.push(`${layout.table === 'channels' ? 'slot' : layout.table} ${number} (${odd})`);
      else rows.push({ number, fields });
    }
    read.tables[layout.table] = rows;
  }
  for (const setting of settingsOfLayout(format, layoutVersion(image, format))) {
    const value = readField(image, partStart(format, setting.part), setting.codec, context);
    if (value.ok) read.settings[setting.key] = value.value;
    else read.unknown[setting.key] = settingBytes(image, format, setting);
  }
  return ok(read);
}

function sumOf(image: Uint8Array, format: Format, { part, from, to }: Format['checksums'][number]): number {
  const start = partStart(format, part);
  let sum = 0;
  for (let at = start + from; at <= start + to; at++) sum = (sum + image[at]!) & 0xffff;
  return sum;
}

/** True where every checksum that an image carries is right. */
export function checksumsHold(image: Uint8Array, format: Format): boolean {
  return format.checksums.every((checksum) => {
    const at = partStart(format, checksum.part) + checksum.at;
    return image[at]! + (image[at + 1]! << 8) === sumOf(image, format, checksum);
  });
}

/** A mask of the bits that are ours to write in an image of a layout version, the checksums among them; all others must survive a write. */
export function ownedMask(format: Format, version = format.version?.value ?? 1): Uint8Array {
  const mask = new Uint8Array(imageBytes(format));
  const own = (at: number, bits: number) => (mask[at] = mask[at]! | bits);
  for (const layout of format.layouts) {
    const { present } = layout;
    for (let index = 0; index < layout.count; index++) {
      if (present.kind === 'bitmap') own(...bitOf(partStart(format, present.part) + present.at, index));
      for (const [, codec, from] of fieldsOf(format, layout, index))
        for (const [at, bits] of ownedBits(codec)) own(from + at, bits);
    }
    if (present.kind === 'count')
      for (let i = 0; i < present.bytes; i++) own(partStart(format, present.part) + present.at + i, 0xff);
  }
  for (const { part, codec } of settingsOfLayout(format, version))
    for (const [at, bits] of ownedBits(codec)) own(partStart(format, part) + at, bits);
  for (const { part, at } of format.checksums)
    for (const byte of [0, 1]) own(partStart(format, part) + at + byte, 0xff);
  return mask;
}
