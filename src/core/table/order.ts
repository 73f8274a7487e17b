import { formatAccess } from '../radio';
import type { Channel, Column, Move } from '../plan';

/** In which order the table shows its rows; nothing is moved by it. */
export interface ViewOrder {
  by: Column;
  /** From the end of the alphabet, from the highest. */
  down: boolean;
}

const text = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true, sensitivity: 'base' });

const COMPARE: Record<Column, (a: Channel, b: Channel) => number> = {
  slot: (a, b) => a.list - b.list || a.slot - b.slot,
  name: (a, b) => text(a.name, b.name),
  rx: (a, b) => a.rx - b.rx,
  tx: (a, b) => (a.tx ?? -1) - (b.tx ?? -1),
  access: (a, b) => text(formatAccess(a.access), formatAccess(b.access)),
  mode: (a, b) => text(a.mode, b.mode),
  power: (a, b) => (a.tx === null ? 0 : a.power) - (b.tx === null ? 0 : b.power),
  scan: (a, b) => Number(a.scan) - Number(b.scan),
};

/** The channels in an order to look at; what is equal stays by slot, whichever way round. What has nothing there (no name, open, listen only) comes last. */
export function inViewOrder(channels: readonly Channel[], { by, down }: ViewOrder): Channel[] {
  const compare = COMPARE[by];
  const empty = (channel: Channel) =>
    (by === 'name' && channel.name === '') ||
    (by === 'tx' && channel.tx === null) ||
    (by === 'power' && channel.tx === null) ||
    (by === 'access' && formatAccess(channel.access) === '');
  const way = down ? -1 : 1;
  return [...channels].sort(
    (a, b) => Number(empty(a)) - Number(empty(b)) || way * compare(a, b) || COMPARE.slot(a, b),
  );
}

/** The moves that put channels, in the order in which they are given, into the slots that they hold together. Of one list. */
export function intoThisOrder(channels: readonly Channel[]): Move[] {
  const slots = channels.map(({ slot }) => slot).sort((a, b) => a - b);
  return channels
    .map(({ id, slot }, at) => ({ id, from: slot, to: slots[at]! }))
    .filter(({ from, to }) => from !== to)
    .sort((a, b) => a.to - b.to);
}
