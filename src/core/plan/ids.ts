import type { PlanId, RadioId } from './ids.schema';
import { KIND_NAMES, KINDS, type Kind } from './kinds';
import type { IdOf } from './kinds.schema';

/** Ids by what they begin with. */
type Ids = { [K in Kind as (typeof KINDS)[K]['idPrefix']]: IdOf<K> } & { pl: PlanId; rd: RadioId };

const FIGURES = [...'abcdefghijklmnopqrstuvwxyz0123456789'].map((figure) => figure.charCodeAt(0));

/** An id's text from random bytes that the caller brings: `makeId('ch', crypto.getRandomValues(new Uint8Array(12)))`. */
export function makeId<P extends keyof Ids>(prefix: P, random: Uint8Array): Ids[P] {
  const codes = new Array<number>(random.length);
  for (let at = 0; at < random.length; at++) codes[at] = FIGURES[random[at]! % FIGURES.length]!;
  return `${prefix}_${String.fromCharCode(...codes)}` as Ids[P];
}

/** Makes a new id of a kind; core has no randomness of its own. */
export type MakeIds = { [K in Kind]: () => IdOf<K> };

/** Makes ids of each kind: `random` gives twelve new bytes each time. */
export const idsOf = (random: () => Uint8Array): MakeIds =>
  Object.fromEntries(
    KIND_NAMES.map((kind) => [kind, () => makeId(KINDS[kind].idPrefix, random())]),
  ) as unknown as MakeIds;
