import { blankImage, hasSignature, imageBytes, lineFault, partsOf, partStart } from '../format';
import { MODELS, type Model } from '../models';
import { formatOf } from '../models/formats';
import { fail, ok, type Result } from '../result';
import { imageHolds } from './image';

/** A file as somebody hands it in; its name says nothing of what it is, but which part of a card. */
export interface HandedIn {
  name: string;
  bytes: Uint8Array;
}

/** Whose image it is; `faults` is what is wrong with it, a sentence each, and the image then what can be had of it. */
export interface Recognised {
  model: Model;
  image: Uint8Array;
  faults: string[];
}

const plain = (name: string) => name.replace(/^.*[\\/]/, '').toUpperCase();

/**
 * Recognises a radio's image, or the files of its card, by what is in them. Fails where it is nothing that Veridon knows; what is cut
 * off, damaged, of another length or of a newer layout is recognised, with what is wrong.
 */
export function recognise(files: readonly HandedIn[]): Result<Recognised> {
  const [first] = files;
  if (!first) return fail('No file was handed in.');
  for (const model of MODELS) {
    const format = formatOf(model);
    const parts = partsOf(format);
    const wanted = imageBytes(format);
    if (files.length === 1 && beginsLike(first.bytes, model))
      return ok(ofOneFile(first.bytes, model, wanted));
    const named = parts.map(({ name }) =>
      files.find((file) => name !== undefined && plain(file.name) === name),
    );
    const bearer = parts.findIndex(({ name }) => name === format.signature.part);
    if (parts.length > 1 && named[bearer] && beginsLike(named[bearer]!.bytes, model, true))
      return ok(ofParts(named, model));
  }
  return fail(
    files.length === 1
      ? `“${first.name}” is no image of a radio that Veridon knows: nothing in it says of which. It knows ${MODELS.map(({ name }) => name).join(', ')}.`
      : 'These files are no card of a radio that Veridon knows. Hand in all files of the card together.',
  );
}

/** True where bytes have the signature of a model; `part` alone is looked at, or the image as one. */
function beginsLike(bytes: Uint8Array, model: Model, part = false): boolean {
  const format = formatOf(model);
  const start = part ? 0 : partStart(format, format.signature.part);
  const { at, text } = format.signature;
  return [...text].every((letter, place) => bytes[start + at + place] === letter.charCodeAt(0));
}

/** What is wrong with an image of the right length. */
function faultsOf(image: Uint8Array, model: Model): string[] {
  const format = formatOf(model);
  const faults: string[] = [];
  const { version } = format;
  const is = version && image[partStart(format, version.part) + version.at];
  if (version && !(is! >= 1 && is! <= version.value))
    faults.push(
      `Its memory has layout ${is}, and Veridon knows layouts up to ${version.value}: a newer radio, or newer software in it.`,
    );
  if (!hasSignature(image, format)) faults.push(`It does not say any more that it is of a ${model.name}.`);
  if (!imageHolds(image, model)) faults.push('Its checksum does not hold: it is damaged, or half written.');
  const broken = lineFault(image, format);
  if (broken !== null) faults.push(broken);
  return faults;
}

function ofOneFile(bytes: Uint8Array, model: Model, wanted: number): Recognised {
  if (bytes.length === wanted)
    return { model, image: Uint8Array.from(bytes), faults: faultsOf(bytes, model) };
  const image = blankImage(formatOf(model));
  image.set(bytes.subarray(0, wanted));
  const how =
    bytes.length < wanted
      ? `${wanted - bytes.length} bytes are missing at its end`
      : `it is ${bytes.length - wanted} bytes too long`;
  return {
    model,
    image,
    faults: [`It is of a ${model.name}, but has ${bytes.length} bytes and not ${wanted}: ${how}.`],
  };
}

function ofParts(files: readonly (HandedIn | undefined)[], model: Model): Recognised {
  const format = formatOf(model);
  const image = blankImage(format);
  const faults: string[] = [];
  for (const [at, { name, bytes }] of partsOf(format).entries()) {
    const file = files[at];
    const start = partStart(format, name);
    if (!file) faults.push(`${name} is missing.`);
    else {
      if (file.bytes.length !== bytes)
        faults.push(`${name} has ${file.bytes.length} bytes and not ${bytes}.`);
      image.set(file.bytes.subarray(0, bytes), start);
    }
  }
  return { model, image, faults: faults.length > 0 ? faults : faultsOf(image, model) };
}

/** The files that an image is saved as: one, or those of a card by their names. */
export function filesOf(image: Uint8Array, model: Model): { name: string | undefined; bytes: Uint8Array }[] {
  const format = formatOf(model);
  return partsOf(format).map(({ name, bytes }) => {
    const start = partStart(format, name);
    return { name, bytes: image.slice(start, start + bytes) };
  });
}
