import { slotText } from '../plan/slots';
import type { Model, ModelBand } from './model.schema';

/** The ranges that a model receives, Hz: what frequency entry is read against. */
export function receiveRanges(model: Model) {
  return model.bands.map((band) => band.receive);
}

/** True where a firmware is newer than what the model's data knows: its memory may lie otherwise. Versions are numbers with points between. */
export function isNewer(firmware: string, { firmware: known }: Pick<Model, 'firmware'>): boolean {
  const [a, b] = [firmware, known].map((version) => version.split('.').map(Number));
  for (let at = 0; at < Math.max(a!.length, b!.length); at++) {
    const [x, y] = [a![at] ?? 0, b![at] ?? 0];
    // What is no number is nothing that anybody knows.
    if (x !== y) return !(x < y);
  }
  return false;
}

/** The band in which a model receives `hz`, or undefined. */
export function receiveBand(model: Model, hz: number): ModelBand | undefined {
  return model.bands.find((band) => hz >= band.receive.from && hz <= band.receive.to);
}

/** The band in which a model transmits on `hz`, or undefined. */
export function transmitBand(model: Model, hz: number): ModelBand | undefined {
  return model.bands.find((band) => band.transmit && hz >= band.transmit.from && hz <= band.transmit.to);
}

/**
 * The slots of one of a model's lists; undefined where it has no such list. A list of home channels has a slot a band, from 1 up,
 * in the order of the bands.
 */
export function slotsOf(model: Model, list: number): { first: number; count: number } | undefined {
  const { holds } = model.lists[list] ?? {};
  if (holds === undefined) return undefined;
  return holds === 'channels' ? model.slots : { first: 1, count: model.bands.length };
}

/** The slots of all of a model's lists, the first list first. */
export const slotRanges = (model: Model): { list: number; range: { first: number; count: number } }[] =>
  model.lists.map((_, list) => ({ list, range: slotsOf(model, list) ?? model.slots }));

/** The numbers of a model's lists of channels: its sides, or its only list. */
export const sidesOf = (model: Model): number[] =>
  model.lists.flatMap(({ holds }, list) => (holds === 'channels' ? [list] : []));

/** The list of home channels that belongs to a side; undefined where the model has none. */
export function homeListOf(model: Model, side: number): number | undefined {
  const homes = model.lists.flatMap(({ holds }, list) => (holds === 'home' ? [list] : []));
  return homes[sidesOf(model).indexOf(side)];
}

/** A place in a radio for people: its slot, after the list where the radio has several: `Left 007`. */
export const placeText = (
  { lists }: Pick<Model, 'lists'>,
  { list, slot }: { list: number; slot: number },
): string => (lists.length > 1 ? `${lists[list]?.name ?? ''} ${slotText(slot)}`.trim() : slotText(slot));

/** The stored shift of the band of a frequency, Hz; undefined where the radio stores none there. */
export function storedShift(
  { storedShifts }: Pick<Model, 'storedShifts'>,
  settings: Readonly<Record<string, unknown>>,
  hz: number,
): number | undefined {
  const stored = storedShifts.find(({ range }) => hz >= range.from && hz <= range.to);
  if (!stored) return undefined;
  const set = settings[stored.setting];
  return typeof set === 'number' ? set : stored.usual;
}

/** The same of a model whose link is a line. */
export function cableOf(
  model: Pick<Model, 'link' | 'name'>,
): Exclude<NonNullable<Model['link']>, { kind: 'card' }> {
  const link = linkOf(model);
  if (link.kind === 'card') throw new Error(`A ${model.name} has no cable`);
  return link;
}

/** How a model is linked; whoever asks for one that is not linked has come to the wrong place. */
export function linkOf({ link, name }: Pick<Model, 'link' | 'name'>): NonNullable<Model['link']> {
  if (!link) throw new Error(`A ${name} is not linked`);
  return link;
}
