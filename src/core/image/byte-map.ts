import { fieldsIn, ownedBits, partStart } from '../format';
import type { Model } from '../models';
import { formatOf } from '../models/formats';
import { settingsOf } from '../models/settings';

/** A stretch of an image: what it is called, whose it is. */
export interface ByteStretch {
  from: number;
  bytes: number;
  /** `Left: channel records`, or a field within: `channels 12, name`. */
  label: string;
  owner: 'ours' | 'unit' | 'volatile' | 'unknown' | 'checksum';
}

/** The areas of a model's image, one after the other. */
export const areasOf = (model: Model): ByteStretch[] =>
  formatOf(model).areas.map(({ name, part, from, bytes, owner }) => ({
    from: partStart(formatOf(model), part) + from,
    bytes,
    label: part ? `${part}: ${name}` : name,
    owner,
  }));

/** The addresses at which two images of a model differ, and how many of them lie in each of its areas, in their order. */
export function byteDifferences(one: Uint8Array, other: Uint8Array, model: Model) {
  const at = [...one.keys()].filter((place) => one[place] !== other[place]);
  return {
    at,
    areas: areasOf(model).map((area) => ({
      ...area,
      changed: at.filter((place) => place >= area.from && place < area.from + area.bytes).length,
    })),
  };
}

/** The fields to which the bytes of a stretch belong, by their address; bytes in which nothing of ours lies are not there. */
export function fieldsAt(model: Model, from: number, to: number): Map<number, string> {
  const format = formatOf(model);
  const found = new Map<number, string>();
  const own = (at: number, label: string) => {
    if (at < from || at >= to) return;
    const known = found.get(at);
    found.set(at, known && !known.includes(label) ? `${known}; ${label}` : label);
  };
  for (const layout of format.layouts)
    for (const { number, field, codec, base } of fieldsIn(format, layout)) {
      const bits = ownedBits(codec);
      // Most rows lie elsewhere: their first and last byte say so.
      if (base + bits.at(-1)![0] < from || base + bits[0]![0] >= to) continue;
      for (const [at] of bits) own(base + at, `${layout.table} ${number}, ${field}`);
    }
  const names = new Map(settingsOf(model).map(({ key, name }) => [key, name]));
  for (const { key, part, codec } of format.settings)
    for (const [at] of ownedBits(codec)) own(partStart(format, part) + at, names.get(key) ?? key);
  return found;
}
