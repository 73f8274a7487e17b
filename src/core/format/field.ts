import { z } from 'zod';
import equal from 'fast-deep-equal';
import { remembered } from '../remember';
import { ok, type Result } from '../result';
import type { CodecContext, CodecKind, FieldValue } from './codec';
import { bcd } from './codecs/bcd';
import { bits } from './codecs/bits';
import { choice } from './codecs/choice';
import { coordinate } from './codecs/coordinate';
import { digits } from './codecs/digits';
import { flag } from './codecs/flag';
import { marks } from './codecs/marks';
import { numbers } from './codecs/numbers';
import { squelch } from './codecs/squelch';
import { squelchText } from './codecs/squelch-text';
import { text } from './codecs/text';
import { tone } from './codecs/tone';
import { whole } from './codecs/whole';
import { word } from './codecs/word';

const simpleSettingCodecs = [
  bcd.schema,
  choice.schema,
  text.schema,
  flag.schema,
  digits.schema,
  word.schema,
  whole.schema,
  coordinate.schema,
] as const;

/**
 * Several values of one kind, `stride` bytes from one to the next, the first where its codec says. Where it is `open` those at its end may be
 * empty, and are left out of what is read.
 */
const seriesOf = <S extends readonly [z.core.$ZodTypeDiscriminable, ...z.core.$ZodTypeDiscriminable[]]>(
  schemas: S,
) =>
  z.object({
    kind: z.literal('series'),
    count: z.int().min(2).max(128),
    stride: z.int().min(1),
    open: z.boolean().optional(),
    of: z.discriminatedUnion('kind', schemas),
  });
const series = seriesOf(simpleSettingCodecs);

/** The codecs of values that a person can set alone: one value, several, or several for each side of a radio. */
export const settingCodecSchema = z.discriminatedUnion('kind', [
  ...simpleSettingCodecs,
  seriesOf([...simpleSettingCodecs, series]),
]);
export type SettingCodec = z.input<typeof settingCodecSchema>;
type Series = Extract<SettingCodec, { kind: 'series' }>;

/** How one value stands in the bytes of a record: the specification of one of the codecs, told apart by its kind. A new codec is a file and a line in each list. */
export const codecSchema = z.discriminatedUnion('kind', [
  bcd.schema,
  choice.schema,
  squelch.schema,
  text.schema,
  flag.schema,
  digits.schema,
  word.schema,
  bits.schema,
  marks.schema,
  whole.schema,
  tone.schema,
  squelchText.schema,
  numbers.schema,
  coordinate.schema,
]);
/** A codec of a field or of a setting. */
export type Codec = z.input<typeof codecSchema> | SettingCodec;
type Single = Exclude<Codec, Series>;
type Parsed = z.output<typeof codecSchema>;

interface Carrier<S> {
  bits(spec: S): readonly (readonly [number, number])[];
  read(image: Uint8Array, base: number, spec: S, context: CodecContext): Result<FieldValue>;
  write(image: Uint8Array, base: number, spec: S, value: FieldValue, context: CodecContext): void;
}

/** A specification with the codec that carries it out; the switch is what tells TypeScript that they belong together. */
function carried<T>(codec: Single, run: <S>(kind: Carrier<S>, spec: S) => T): T {
  const spec: Parsed = codec.kind === 'flag' ? { ...codec, set: codec.set ?? true } : codec;
  const as = <S extends z.ZodType>(kind: CodecKind<S>, own: z.output<S>) => run<z.output<S>>(kind, own);
  switch (spec.kind) {
    case 'bcd':
      return as(bcd, spec);
    case 'choice':
      return as(choice, spec);
    case 'squelch':
      return as(squelch, spec);
    case 'text':
      return as(text, spec);
    case 'flag':
      return as(flag, spec);
    case 'digits':
      return as(digits, spec);
    case 'word':
      return as(word, spec);
    case 'bits':
      return as(bits, spec);
    case 'marks':
      return as(marks, spec);
    case 'whole':
      return as(whole, spec);
    case 'tone':
      return as(tone, spec);
    case 'squelchText':
      return as(squelchText, spec);
    case 'numbers':
      return as(numbers, spec);
    case 'coordinate':
      return as(coordinate, spec);
  }
}

/** Bits that a field owns, as offsets from its record with masks. Worked out once: a format has thousands of rows of the same fields. */
export const ownedBits = remembered((codec: Codec): readonly (readonly [number, number])[] => {
  if (codec.kind !== 'series') return carried(codec, (kind, spec) => kind.bits(spec));
  const { count, stride, of } = codec;
  return Array.from({ length: count }, (_, place) =>
    ownedBits(of).map(([at, mask]) => [at + place * stride, mask] as const),
  ).flat();
});

const isEmpty = (value: FieldValue) => value === null || value === '';

/** Reads the field of the record at `base`. */
export function readField(
  image: Uint8Array,
  base: number,
  codec: Codec,
  context: CodecContext,
): Result<FieldValue> {
  if (codec.kind !== 'series') return carried(codec, (kind, spec) => kind.read(image, base, spec, context));
  const values: FieldValue[] = [];
  for (let place = 0; place < codec.count; place++) {
    const read = readField(image, base + place * codec.stride, codec.of, context);
    if (!read.ok) return read;
    values.push(read.value);
  }
  while (codec.open && values.length > 0 && isEmpty(values[values.length - 1]!)) values.pop();
  return ok(values as FieldValue);
}

/** Writes the field of the record at `base`. */
export function writeField(
  image: Uint8Array,
  base: number,
  codec: Codec,
  value: FieldValue,
  context: CodecContext,
): void {
  if (codec.kind !== 'series')
    return carried(codec, (kind, spec) => kind.write(image, base, spec, value, context));
  const values = Array.isArray(value) ? (value as readonly FieldValue[]) : undefined;
  if (!values || values.length > codec.count || (!codec.open && values.length < codec.count))
    throw new Error(`${String(value)} are no ${codec.count} values`);
  for (let place = 0; place < codec.count; place++)
    writeField(image, base + place * codec.stride, codec.of, values[place] ?? null, context);
}

/** True where the codec can hold that value. Asked of what a person sets; what the fit gives it always can. */
export function canHold(codec: Codec, value: FieldValue, context: CodecContext): boolean {
  const room = new Uint8Array(Math.max(...ownedBits(codec).map(([at]) => at)) + 1);
  try {
    writeField(room, 0, codec, value, context);
  } catch {
    return false;
  }
  const back = readField(room, 0, codec, context);
  return back.ok && equal(back.value, value);
}
