'use client';

import { COLUMNS, type Column } from '@/core/plan';
import { EXTRAS, type Extra } from '@/core/table';
import { browserStore } from '@/ui';

/**
 * Which columns the table shows, in which order and how wide: kept in this browser, for every plan. The slot comes first and the
 * name is always there; what is not typed in the table stands behind what is.
 */
export interface Layout {
  columns: readonly Column[];
  extras: readonly Extra[];
  /** Px, where a person chose them. */
  widths: Readonly<Partial<Record<Column | Extra, number>>>;
}

const KEY = 'veridon-columns';
export const WIDTHS = { least: 42, most: 600 };

export const USUAL: Layout = { columns: COLUMNS, extras: [], widths: {} };

/** Widths that nobody chose: at least so many px, and a share of what is left over. */
const ROOM: Record<Column | Extra, readonly [number, string]> = {
  slot: [42, '42px'],
  name: [104, 'minmax(104px,2.2fr)'],
  rx: [92, 'minmax(92px,0.5fr)'],
  tx: [130, 'minmax(130px,1fr)'],
  access: [98, 'minmax(98px,1fr)'],
  mode: [54, 'minmax(54px,0.35fr)'],
  power: [54, 'minmax(54px,0.4fr)'],
  scan: [42, 'minmax(42px,0.3fr)'],
  call: [72, 'minmax(72px,0.5fr)'],
  place: [96, 'minmax(96px,0.8fr)'],
  source: [84, 'minmax(84px,0.6fr)'],
  locator: [76, 'minmax(76px,0.5fr)'],
  distance: [80, 'minmax(80px,0.5fr)'],
  bearing: [84, 'minmax(84px,0.5fr)'],
  heard: [104, 'minmax(104px,0.6fr)'],
  calls: [104, 'minmax(104px,0.8fr)'],
  hears: [96, 'minmax(96px,0.7fr)'],
  scans: [96, 'minmax(96px,0.7fr)'],
  tags: [96, 'minmax(96px,0.8fr)'],
  note: [120, 'minmax(120px,1.2fr)'],
};
const MARK = 24;

const all = ({ columns, extras }: Layout) => [...columns, ...extras];

/** The tracks of a row: the mark, then the columns. */
/** A name keeps the room for what the display reads beside it, where the table is as wide as its columns want. */
const roomOf = (layout: Layout, one: Column | Extra): readonly [number, string] =>
  one === 'name' && layout.extras.length > 0 ? [190, 'minmax(190px,2.2fr)'] : ROOM[one];

export const templateOf = (layout: Layout): string =>
  [
    `${MARK}px`,
    ...all(layout).map((one) => (layout.widths[one] ? `${layout.widths[one]}px` : roomOf(layout, one)[1])),
  ].join(' ');

/** Narrower than this the table scrolls sideways, px. */
export const leastWidth = (layout: Layout): number =>
  all(layout).reduce((sum, one) => sum + (layout.widths[one] ?? roomOf(layout, one)[0]), MARK);

const among = <T extends string>(list: unknown, known: readonly T[]): T[] =>
  Array.isArray(list) ? [...new Set(list.filter((one): one is T => known.includes(one as T)))] : [];

/** What is kept, put right: what another version or a person left there that is none is the usual one. */
export function readLayout(text: string | null): Layout {
  let kept: { columns?: unknown; extras?: unknown; widths?: unknown } | null;
  try {
    kept = JSON.parse(text ?? 'null') as typeof kept;
  } catch {
    return USUAL;
  }
  if (typeof kept !== 'object' || kept === null) return USUAL;
  const columns = among(kept.columns, COLUMNS).filter((one) => one !== 'slot');
  const widths = Object.entries((kept.widths ?? {}) as Record<string, unknown>).filter(
    ([name, width]) =>
      Object.hasOwn(ROOM, name) && typeof width === 'number' && width >= WIDTHS.least && width <= WIDTHS.most,
  );
  return {
    columns: ['slot', ...(columns.includes('name') ? columns : (['name', ...columns] as Column[]))],
    extras: among(kept.extras, EXTRAS),
    widths: Object.fromEntries(widths) as Layout['widths'],
  };
}

const store = browserStore(KEY, readLayout);
export const useLayout = store.use;
export const keepLayout = store.put;
