import { fail, ok, type Result } from '../result';

/** How the letters of a file lie in its bytes. */
export type Encoding = 'UTF-8' | 'UTF-16' | 'Windows-1252';

export interface Decoded {
  text: string;
  encoding: Encoding;
}

/** Largest file that is read, bytes. */
export const FILE_LIMIT = 20_000_000;

/** What is said of a file that is larger than that. */
export const tooLarge = (bytes: number) =>
  fail(
    `The file has ${Math.round(bytes / 1e6)} MB; ${FILE_LIMIT / 1e6} MB are the most. Nothing was read; part it.`,
  );

/** What a file is that begins so, for people; none of them is text. */
const BEGINNINGS: readonly [readonly number[], string][] = [
  [[0x89, 0x50, 0x4e, 0x47], 'a picture (PNG)'],
  [[0xff, 0xd8, 0xff], 'a picture (JPEG)'],
  [[0x47, 0x49, 0x46, 0x38], 'a picture (GIF)'],
  [[0x25, 0x50, 0x44, 0x46], 'a PDF document'],
  [[0x50, 0x4b, 0x03, 0x04], 'a zip archive or an office document'],
  [[0x1f, 0x8b], 'a compressed file (gzip)'],
  [[0xd0, 0xcf, 0x11, 0xe0], 'an office document of the old kind'],
  [[0x7f, 0x45, 0x4c, 0x46], 'a program'],
];

/** What Windows-1252 has from 0x80 to 0x9F (WHATWG Encoding, index windows-1252); nothing where it has none. */
const SIGNS = [
  ...['€', '', '‚', 'ƒ', '„', '…', '†', '‡', 'ˆ', '‰', 'Š', '‹', 'Œ', '', 'Ž', ''],
  ...['', '‘', '’', '“', '”', '•', '–', '—', '˜', '™', 'š', '›', 'œ', '', 'ž', 'Ÿ'],
];

/** Bytes that are looked at to tell one encoding from another. */
const LOOKED_AT = 4096;

/** UTF-16 without a mark: every other byte is zero in what is written in Latin letters. */
function halfZero(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const looked = Math.min(bytes.length, LOOKED_AT) & ~1;
  let [even, odd] = [0, 0];
  for (let at = 0; at < looked; at += 2) {
    if (bytes[at] === 0) even++;
    if (bytes[at + 1] === 0) odd++;
  }
  const half = looked / 2;
  if (odd > half * 0.6 && even === 0) return 'utf-16le';
  if (even > half * 0.6 && odd === 0) return 'utf-16be';
  return null;
}

/**
 * The text of a file: UTF-8, UTF-16 with or without its mark, else Windows-1252, of which Latin-1 is a part. What is no text is refused
 * by what it is.
 */
export function decodeText(bytes: Uint8Array): Result<Decoded> {
  if (bytes.length === 0) return fail('The file is empty.');
  if (bytes.length > FILE_LIMIT) return tooLarge(bytes.length);
  for (const [beginning, what] of BEGINNINGS)
    if (beginning.every((byte, at) => bytes[at] === byte))
      return fail(
        `This is ${what}, whatever its name says. Save it as CSV, GPX, GeoJSON or KML, and open that.`,
      );
  const marked =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : halfZero(bytes);
  if (marked) {
    const text = new TextDecoder(marked).decode(bytes);
    return text.includes('\0') ? noText(text.indexOf('\0') * 2) : ok({ text, encoding: 'UTF-16' });
  }
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return text.includes('\0') ? noText(bytes.indexOf(0)) : ok({ text, encoding: 'UTF-8' });
  } catch {
    const zero = bytes.indexOf(0);
    if (zero >= 0) return noText(zero);
    // Some decoders take Windows-1252 for Latin-1, which has control codes where the other has signs.
    const text = new TextDecoder('windows-1252')
      .decode(bytes)
      .replace(/[\x80-\x9f]/g, (sign) => SIGNS[sign.charCodeAt(0) - 0x80] || sign);
    return ok({ text, encoding: 'Windows-1252' });
  }
}

const noText = (at: number) =>
  fail(`This is no text: byte ${at} is zero. Save it as CSV, GPX, GeoJSON or KML, and open that.`);
