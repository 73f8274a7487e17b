import { remembered } from '../remember';

/**
 * Where the records of a list stand, by their ids. A change of one cell among thousands must not walk along them all: reading a
 * record costs far more than passing it by, so that a list that was made of another one, with the same records or their
 * successors at the same places, takes over what is known of it.
 */
type Places = ReadonlyMap<string, number>;
type List = readonly { id: string }[];

const handedOn = new WeakMap<List, Places>();
const made = remembered((list: List): Places => new Map(list.map(({ id }, at) => [id, at])));

/** The place of each record of a list that never changes. */
export const placesOf = (list: List): Places => handedOn.get(list) ?? made(list);

/** Says that a new list has the same ids at the same places as the one that it was made of; gives the new one. */
export function withPlacesOf<L extends List>(before: List, after: L): L {
  handedOn.set(after, placesOf(before));
  return after;
}

/** The records of a list that have those ids, in the order of the list. */
export function withIds<R extends { id: string }>(list: readonly R[], ids: ReadonlySet<string>): R[] {
  const places = placesOf(list);
  const found: number[] = [];
  for (const id of ids) {
    const place = places.get(id);
    if (place !== undefined) found.push(place);
  }
  return found.sort((a, b) => a - b).map((place) => list[place]!);
}
