import { codeFigures, type Squelch } from '../radio';
import type { Codec, Model } from '../models';

/** A value as a codec holds it: a frequency in Hz or null, a choice, a tone or code or null, a text. */
export type FieldValue = number | string | boolean | Squelch | null;

/** Bits that a codec owns, called with each byte's offset from the record and its mask. */
export function ownedBits(codec: Codec, own: (at: number, mask: number) => void): void {
  if (codec.kind === 'choice') return own(codec.at, ((1 << codec.width) - 1) << codec.shift);
  if (codec.kind === 'squelch') {
    own(codec.at, 0xff);
    return own(codec.inverted.at, 1 << codec.inverted.bit);
  }
  for (let i = 0; i < codec.bytes; i++) own(codec.at + i, 0xff);
}

function setBits(bytes: Uint8Array, at: number, mask: number, value: number): void {
  bytes[at] = (bytes[at]! & ~mask) | (value & mask);
}

/** Writes a value at `base`; throws where the value is not one that the fit may give (a bug, not an input). */
export function writeField(
  bytes: Uint8Array,
  base: number,
  codec: Codec,
  value: FieldValue,
  model: Model,
): void {
  const at = base + codec.at;
  switch (codec.kind) {
    case 'bcd': {
      if (value === null) return void bytes.fill(0xff, at, at + codec.bytes);
      const units = Number(value) / codec.unit;
      const digits = String(units).padStart(codec.bytes * 2, '0');
      if (!Number.isInteger(units) || digits.length > codec.bytes * 2)
        throw new Error(`No BCD for ${String(value)}`);
      for (let i = 0; i < codec.bytes; i++) {
        const pair = digits.slice(digits.length - 2 * i - 2, digits.length - 2 * i);
        bytes[at + i] = Number.parseInt(pair, 16);
      }
      return;
    }
    case 'choice': {
      const index = codec.values.indexOf(value as string);
      if (index < 0) throw new Error(`${String(value)} is not one of ${codec.values.join(', ')}`);
      return setBits(bytes, at, ((1 << codec.width) - 1) << codec.shift, index << codec.shift);
    }
    case 'squelch': {
      const squelch = value as Squelch | null;
      bytes[at] = squelch === null ? 0 : squelchIndex(squelch, codec, model);
      const inverted = squelch?.kind === 'code' && squelch.inverted;
      return setBits(bytes, base + codec.inverted.at, 1 << codec.inverted.bit, inverted ? 0xff : 0);
    }
    case 'text': {
      const text = String(value).padEnd(codec.bytes, ' ');
      if (text.length > codec.bytes) throw new Error(`“${text}” is longer than ${codec.bytes}`);
      for (let i = 0; i < codec.bytes; i++) bytes[at + i] = text.charCodeAt(i);
    }
  }
}

function squelchIndex(squelch: Squelch, codec: Extract<Codec, { kind: 'squelch' }>, model: Model): number {
  const list = squelch.kind === 'tone' ? model.tones : model.codes;
  const index = list.indexOf(squelch.kind === 'tone' ? squelch.tone : squelch.code);
  if (index < 0) throw new Error('A tone or code that the model does not have');
  return index + (squelch.kind === 'tone' ? codec.tonesFrom : codec.codesFrom);
}

/** What a read-out says that no radio of the model would write. */
export class UnreadableField extends Error {}

/** Reads the value at `base`; throws `UnreadableField` where the bytes hold none. */
export function readField(bytes: Uint8Array, base: number, codec: Codec, model: Model): FieldValue {
  const at = base + codec.at;
  switch (codec.kind) {
    case 'bcd': {
      let digits = '';
      for (let i = codec.bytes - 1; i >= 0; i--) digits += bytes[at + i]!.toString(16).padStart(2, '0');
      if (/^f+$/.test(digits)) return null;
      if (!/^\d+$/.test(digits)) throw new UnreadableField(`figures ${digits}`);
      return Number(digits) * codec.unit;
    }
    case 'choice': {
      const index = (bytes[at]! >> codec.shift) & ((1 << codec.width) - 1);
      if (index >= codec.values.length)
        throw new UnreadableField(`choice ${index} of ${codec.values.length}`);
      return codec.values[index]!;
    }
    case 'squelch':
      return readSquelch(
        bytes[at]!,
        (bytes[base + codec.inverted.at]! >> codec.inverted.bit) & 1,
        codec,
        model,
      );
    case 'text': {
      const text = String.fromCharCode(...bytes.subarray(at, at + codec.bytes)).trimEnd();
      if ([...text].some((character) => !model.names.characters.includes(character)))
        throw new UnreadableField('a text with characters that the radio does not have');
      return text;
    }
  }
}

function readSquelch(
  index: number,
  inverted: number,
  codec: Extract<Codec, { kind: 'squelch' }>,
  model: Model,
): Squelch | null {
  if (index === 0) return null;
  const tone = model.tones[index - codec.tonesFrom];
  if (index < codec.codesFrom && tone !== undefined) return { kind: 'tone', tone };
  const code = model.codes[index - codec.codesFrom];
  if (code !== undefined && /^[0-7]{3}$/.test(codeFigures(code)))
    return { kind: 'code', code, inverted: inverted === 1 };
  throw new UnreadableField(`tone or code number ${index}`);
}
