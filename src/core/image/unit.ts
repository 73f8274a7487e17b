import { imageBytes, partStart, readField, writeField, type CodecContext, type Format } from '../format';
import { modelOfUnit, type Model, type ModelBand } from '../models';
import { formatOf } from '../models/formats';
import type { UnitFacts } from '../plan';
import { rememberedByText } from '../remember';

/** What a unit's memory tells of how it was made: where it sends, and what it was bought with. Its factory writes it, and nobody else. */

const NOTHING: CodecContext = { tones: [], codes: [], characters: '' };

type Place = NonNullable<Format['unit']>;

const edge = (at: number) => ({ kind: 'whole' as const, at, bytes: 2 });
const bit = (at: number, number: number) => ({
  kind: 'flag' as const,
  at: at + (number >> 3),
  bit: number & 7,
});

/** The sum of its bytes, modulo 256: 0 where they are as the factory left them. */
function sumOf(image: Uint8Array, base: number, { adds }: Place): number {
  let sum = 0;
  for (let at = adds.from; at <= adds.to; at++) sum = (sum + image[base + at]!) & 0xff;
  return sum;
}

/** The edges of a band; null where it does not send there; undefined where they are none that this band could have. */
function edgesOf(image: Uint8Array, base: number, at: number, unit: number, { receive }: ModelBand) {
  const [from, to] = [at, at + 2].map((place) => readField(image, base, edge(place), NOTHING));
  if (!from?.ok || !to?.ok || from.value === null || to.value === null) return null;
  const range = { from: Number(from.value) * unit, to: Number(to.value) * unit };
  const within = range.from < range.to && range.from >= receive.from && range.to <= receive.to;
  return within ? range : undefined;
}

/**
 * What the image of a unit tells of it. null where nothing can be believed: the model keeps nothing of the kind, its bytes do not
 * add up, or edges lie where the band does not. `model` is the one that Veridon has, with all of its bands.
 */
export function unitOf(image: Uint8Array, model: Model): UnitFacts | null {
  const format = formatOf(model);
  const place = format.unit;
  if (!place || image.length !== imageBytes(format)) return null;
  const base = partStart(format, place.part);
  if (sumOf(image, base, place) !== 0) return null;
  const is = (at: number, number: number) => {
    const read = readField(image, base, bit(at, number), NOTHING);
    return read.ok && read.value === true;
  };
  const sends: UnitFacts['sends'] = {};
  for (const { band, at } of place.edges) {
    const range = edgesOf(
      image,
      base,
      at,
      place.step,
      model.bands.find(({ name }) => name === band)!,
    );
    if (range === undefined) return null;
    sends[band] = range;
  }
  if (place.open !== undefined)
    for (const [number, { name }] of model.bands.entries()) if (!is(place.open, number)) sends[name] = null;
  const lacks = (model.options ?? []).flatMap(({ name }, number) =>
    place.options !== undefined && !is(place.options, number) ? [name] : [],
  );
  return alike(JSON.stringify({ region: image[base + place.region]!, sends, lacks }));
}

/** The very same for units that are made alike, so that what was worked out for one is there for the next. */
const alike = rememberedByText((text): UnitFacts => JSON.parse(text));

/** A model as the unit is whose image this is; `model` as Veridon has it where the image tells nothing. */
export const modelOfImage = (image: Uint8Array, model: Model, called: string): Model =>
  modelOfUnit(model, { called, facts: unitOf(image, model) });

/** Sets in an image how a unit was made: what a factory does, and so a simulated one. Gives a new image. */
export function withUnit(image: Uint8Array, model: Model, { region, sends, lacks }: UnitFacts): Uint8Array {
  const format = formatOf(model);
  const place = format.unit;
  if (!place) return image;
  const made = image.slice();
  const base = partStart(format, place.part);
  const write = (codec: Parameters<typeof writeField>[2], value: number | boolean | null) =>
    writeField(made, base, codec, value, NOTHING);
  const whereOf = ({ name, transmit }: ModelBand) => (sends[name] === undefined ? transmit : sends[name]);
  made[base + place.region] = region;
  for (const { band, at } of place.edges) {
    const range = whereOf(model.bands.find(({ name }) => name === band)!);
    write(edge(at), range ? range.from / place.step : null);
    write(edge(at + 2), range ? range.to / place.step : null);
  }
  if (place.open !== undefined)
    for (const [number, band] of model.bands.entries())
      write(bit(place.open, number), whereOf(band) !== null);
  if (place.options !== undefined)
    for (const [number, { name }] of (model.options ?? []).entries())
      write(bit(place.options, number), !lacks.includes(name));
  const { to } = place.adds;
  made[base + to] = (made[base + to]! - sumOf(made, base, place)) & 0xff;
  return made;
}
