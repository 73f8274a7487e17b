import { formatAccess } from '../radio';
import type { Channel, Column, Move } from '../plan';
import { extraKey, type ExtraContext } from './extras';
import type { Extra } from './words';

/** In which order the table shows its rows; nothing is moved by it. */
export interface ViewOrder {
  by: Column | Extra;
  /** From the end of the alphabet, from the highest. */
  down: boolean;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Figures in a row that are told apart by their value. */
const FIGURES = 20;

/**
 * A text of letters, figures and spaces in a form whose codes lie as the collator has the texts: small letters, numbers of one length.
 * null for any other. Nearly every name is such a one, and codes are compared without the collator.
 */
function plainKey(text: string): string | null {
  if (!/^[A-Za-z0-9 ]*$/.test(text)) return null;
  let long = false;
  const key = text.toLowerCase().replace(/\d+/g, (figures) => {
    if (figures.length > FIGURES) long = true;
    return figures.padStart(FIGURES, '0');
  });
  return long ? null : key;
}

interface Sortable {
  text: string;
  key: string | null;
}
const sortable = (text: string): Sortable => ({ text, key: plainKey(text) });
const compareTexts = (a: Sortable, b: Sortable): number =>
  a.key === null || b.key === null
    ? collator.compare(a.text, b.text)
    : a.key < b.key
      ? -1
      : a.key > b.key
        ? 1
        : 0;

/** Compares two texts as people do: capitals or not, numbers by their value. */
export const asPeopleSort = (a: string, b: string): number => compareTexts(sortable(a), sortable(b));

/** What rows are ordered by in a column; null where there is nothing, which comes last. */
const KEYS: Record<Column, (channel: Channel) => string | number | null> = {
  slot: ({ slot }) => slot,
  name: ({ name }) => name || null,
  rx: ({ rx }) => rx,
  tx: ({ tx }) => tx,
  access: ({ access }) => formatAccess(access) || null,
  mode: ({ mode }) => mode,
  power: ({ tx, power }) => (tx === null ? null : power),
  scan: ({ scan }) => Number(scan),
};

const bySlot = (a: Channel, b: Channel) => a.list - b.list || a.slot - b.slot;

/** The channels in an order to look at; what is equal stays by slot, whichever way round. What has nothing there (no name, open, listen only) comes last. */
export function inViewOrder(
  channels: readonly Channel[],
  { by, down }: ViewOrder,
  context: Pick<ExtraContext, 'home' | 'heard' | 'lists'>,
): Channel[] {
  const keyOf = Object.hasOwn(KEYS, by)
    ? KEYS[by as Column]
    : (channel: Channel) => extraKey(channel, by as Extra, context);
  const slots = channels.some((channel, at) => at > 0 && bySlot(channels[at - 1]!, channel) > 0)
    ? [...channels].sort(bySlot)
    : channels;
  const keys = slots.map(keyOf);
  const ranks = ranksOf(new Set(keys));
  // One number a row, its rank before its place by slot: a row of numbers is sorted without asking anything back.
  const last = ranks.size;
  const numbers = Float64Array.from(keys, (key, at) => {
    const rank = key === null ? last : down ? last - 1 - ranks.get(key)! : ranks.get(key)!;
    return rank * slots.length + at;
  });
  return Array.from(numbers.sort(), (number) => slots[number % slots.length]!);
}

/** Which place each key takes among them. Comparing texts as people do costs more than all else, so that it is done once for all that share one; what is equal for people is of one rank. */
function ranksOf(keys: ReadonlySet<string | number | null>): ReadonlyMap<string | number, number> {
  const ranks = new Map<string | number, number>();
  const texts: Sortable[] = [];
  const numbers: number[] = [];
  for (const key of keys)
    if (typeof key === 'string') texts.push(sortable(key));
    else if (key !== null) numbers.push(key);
  Float64Array.from(numbers)
    .sort()
    .forEach((number, rank) => ranks.set(number, rank));
  let rank = 0;
  texts.sort(compareTexts).forEach((one, at) => {
    if (at > 0 && compareTexts(texts[at - 1]!, one) !== 0) rank++;
    ranks.set(one.text, rank);
  });
  return ranks;
}

/** The moves that put channels, in the order in which they are given, into the slots that they hold together. Of one list. */
export function intoThisOrder(channels: readonly Channel[]): Move[] {
  const slots = channels.map(({ slot }) => slot).sort((a, b) => a - b);
  return channels
    .map(({ id, slot }, at) => ({ id, from: slot, to: slots[at]! }))
    .filter(({ from, to }) => from !== to)
    .sort((a, b) => a.to - b.to);
}
