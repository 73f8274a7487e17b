import { z } from 'zod';
import { remembered } from '../remember';
import type { Result } from '../result';
import type { CodecContext, CodecKind, FieldValue } from './codec';
import { bcd } from './codecs/bcd';
import { bits } from './codecs/bits';
import { choice } from './codecs/choice';
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

/** How one value stands in bytes: the specification of one of the codecs, told apart by its kind. A new codec is a file and a line in each list. */
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
]);
export type Codec = z.input<typeof codecSchema>;

/** The codecs of values that a person can set alone. A setting that stands in another way is refused when its model is loaded. */
export const settingCodecSchema = z.discriminatedUnion('kind', [
  bcd.schema,
  choice.schema,
  text.schema,
  flag.schema,
  digits.schema,
  word.schema,
  whole.schema,
]);
export type SettingCodec = z.input<typeof settingCodecSchema>;
type Parsed = z.output<typeof codecSchema>;

interface Carrier<S> {
  bits(spec: S): readonly (readonly [number, number])[];
  read(image: Uint8Array, base: number, spec: S, context: CodecContext): Result<FieldValue>;
  write(image: Uint8Array, base: number, spec: S, value: FieldValue, context: CodecContext): void;
}

/** A specification with the codec that carries it out; the switch is what tells TypeScript that they belong together. */
function carried<T>(codec: Codec, run: <S>(kind: Carrier<S>, spec: S) => T): T {
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
  }
}

/** Bits that a field owns, as offsets from its record with masks. Worked out once: a format has thousands of rows of the same fields. */
export const ownedBits = remembered((codec: Codec) => carried(codec, (kind, spec) => kind.bits(spec)));

/** Reads the field of the record at `base`. */
export const readField = (image: Uint8Array, base: number, codec: Codec, context: CodecContext) =>
  carried(codec, (kind, spec) => kind.read(image, base, spec, context));

/** Writes the field of the record at `base`. */
export const writeField = (
  image: Uint8Array,
  base: number,
  codec: Codec,
  value: FieldValue,
  context: CodecContext,
): void => carried(codec, (kind, spec) => kind.write(image, base, spec, value, context));

/** True where the codec can hold that value. Asked of what a person sets; what the fit gives it always can. */
export function canHold(codec: Codec, value: FieldValue, context: CodecContext): boolean {
  const room = new Uint8Array(Math.max(...ownedBits(codec).map(([at]) => at)) + 1);
  try {
    writeField(room, 0, codec, value, context);
  } catch {
    return false;
  }
  const back = readField(room, 0, codec, context);
  return back.ok && back.value === value;
}
