import { bytesOf, filesOf } from '../image';
import { modelByIdent, type Model } from '../models';
import { fail, ok, type Result } from '../result';
import { crc32 } from './frame';
import type { Ident } from './ident';

/**
 * A memory card as a link: the radio's own files, and CARD.TXT, which says whose they are and what each must come to. Whoever writes the
 * card says so in it before the first file and says that it is whole after the last, so that half a card is known as half. Pure;
 * docs/card-link.md has it to the byte.
 */

export const MANIFEST = 'CARD.TXT';
/** What a radio leaves on a card that it has loaded. */
export const LOADED = 'LOADED.TXT';
/** Most files of a card that are looked at, and the longest name and file among them. */
export const CARD_LIMITS = { files: 32, name: 12, bytes: 2_000_000 };

/** Who wrote a card last. */
export type CardWriter = 'RADIO' | 'COMPUTER';

/** Files by their names. */
export type CardFiles = ReadonlyMap<string, Uint8Array>;

interface Manifest {
  ident: Ident;
  by: CardWriter;
  files: { name: string; bytes: number; sum: string }[];
}

/** What is on a card. `half`: its files are not what was to be there; whose it is is known all the same. */
export type CardRead =
  | { kind: 'none'; reason: string }
  | { kind: 'half'; ident: Ident; reason: string }
  | { kind: 'whole'; ident: Ident; image: Uint8Array; by: CardWriter; loaded: boolean };

const ascii = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));
const sumOf = (bytes: Uint8Array) => crc32(bytes).toString(16).toUpperCase().padStart(8, '0');

function manifestBytes({ ident, by, files }: Manifest): Uint8Array {
  const lines = [
    'CARD 1',
    `IDENT ${ident.model.trimEnd()}`,
    `SERIAL ${ident.serial ?? ''}`,
    `FIRMWARE ${ident.firmware}`,
    `REGION ${ident.region}`,
    `STATE ${ident.halfWritten ? 'COPYING' : 'WHOLE'}`,
    `BY ${by}`,
    ...files.map(({ name, bytes, sum }) => `FILE ${name} ${bytes} ${sum}`),
    'END',
  ];
  return ascii(lines.map((line) => `${line}\r\n`).join(''));
}

/** The lines of a CARD.TXT, in their order. */
const FORM =
  /^CARD 1\r\nIDENT ([!-~]{1,8})\r\nSERIAL ([!-~]{0,8})\r\nFIRMWARE (\d[\d.]{0,7})\r\nREGION (\d{1,3})\r\nSTATE (WHOLE|COPYING)\r\nBY (RADIO|COMPUTER)\r\n((?:FILE [A-Z0-9]{1,8}\.[A-Z0-9]{1,3} \d{1,7} [0-9A-F]{8}\r\n)+)END\r\n$/;

function readManifest(bytes: Uint8Array): Result<Manifest> {
  if (bytes.length > 4096) return fail(`${MANIFEST} is not of a radio.`);
  const text = String.fromCharCode(...bytes);
  const found = FORM.exec(text);
  if (!found)
    return fail(
      text.startsWith('CARD 1\r\n')
        ? `${MANIFEST} is not whole: it was copied in part.`
        : `${MANIFEST} is not of a radio.`,
    );
  const [, model, serial, firmware, region, state, by, lines] = found as unknown as string[];
  const files = lines!
    .trimEnd()
    .split('\r\n')
    .map((line) => {
      const [, name, length, sum] = line.split(' ');
      return { name: name!, bytes: Number(length), sum: sum! };
    });
  if (files.length > CARD_LIMITS.files || new Set(files.map(({ name }) => name)).size < files.length)
    return fail(`${MANIFEST} names more files than a card has, or one of them twice.`);
  const ident: Ident = {
    ...{ model: model!.padEnd(8), serial: serial! || null, firmware: firmware!, region: Number(region) },
    imageBytes: files.reduce((sum, file) => sum + file.bytes, 0),
    halfWritten: state === 'COPYING',
    battery: null,
    module: 0,
  };
  return ok({ ident, by: by as CardWriter, files });
}

/** The files that are looked at beside CARD.TXT, by what it says; none where it is not of a radio. Whatever else is on a card is nobody's business. */
export function namesOnCard(manifest: Uint8Array | undefined): string[] {
  const read = manifest && readManifest(manifest);
  return read?.ok ? [...read.value.files.map(({ name }) => name), LOADED] : [];
}

/** Works out what is on a card. Fails for nothing: what is no card of a radio, and what is half of one, say so. */
export function readCard(files: CardFiles): CardRead {
  const manifest = files.get(MANIFEST);
  if (!manifest)
    return {
      kind: 'none',
      reason: `There is nothing of a radio on the card: it has no ${MANIFEST}. Save to it in the radio first.`,
    };
  const read = readManifest(manifest);
  if (!read.ok) return { kind: 'none', reason: `${read.reason} Save to the card in the radio again.` };
  const { ident, by, files: wanted } = read.value;
  const half = (reason: string): CardRead => ({
    kind: 'half',
    ident: { ...ident, halfWritten: true },
    reason: `The card is copied in part: ${reason}`,
  });
  if (ident.halfWritten) return half('whoever wrote it last did not come to an end.');
  const model = modelByIdent(ident.model);
  const names = model && filesOf(new Uint8Array(bytesOf(model)), model).map(({ name }) => name);
  if (names && names.join() !== wanted.map(({ name }) => name).join())
    return half(`${MANIFEST} names other files than a ${model.name} has.`);
  for (const { name, bytes, sum } of wanted) {
    const file = files.get(name);
    if (!file) return half(`${name} is missing.`);
    if (file.length !== bytes) return half(`${name} has ${file.length} of ${bytes} bytes.`);
    if (sumOf(file) !== sum) return half(`${name} is not what it was when it was written.`);
  }
  // Only now: what CARD.TXT says of lengths is nothing to make room for.
  const image = new Uint8Array(ident.imageBytes);
  let at = 0;
  for (const { name, bytes } of wanted) {
    image.set(files.get(name)!, at);
    at += bytes;
  }
  const mark = files.get(LOADED);
  const loaded = mark !== undefined && String.fromCharCode(...mark) === `LOADED ${sumOf(manifest)}\r\n`;
  return { kind: 'whole', ident, image, by, loaded };
}

/**
 * What is written on a card, file by file in this order: first that it is being written, last that it is whole. Whatever breaks off in
 * between leaves a card that is known as half.
 */
export function cardFiles(
  image: Uint8Array,
  ident: Ident,
  model: Model,
  by: CardWriter,
): { name: string; bytes: Uint8Array }[] {
  const own = filesOf(image, model).map(({ name, bytes }) => ({ name: name!, bytes }));
  const files = own.map(({ name, bytes }) => ({ name, bytes: bytes.length, sum: sumOf(bytes) }));
  const manifest = (halfWritten: boolean) => ({
    name: MANIFEST,
    bytes: manifestBytes({ ident: { ...ident, halfWritten }, by, files }),
  });
  return [manifest(true), ...own, manifest(false)];
}

/** What a radio leaves on a card that it has loaded, so that whoever sees the card next knows. */
export const loadedMark = (manifest: Uint8Array): Uint8Array => ascii(`LOADED ${sumOf(manifest)}\r\n`);
