import type { Virtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, type RefObject } from 'react';
import { ROW_HEIGHT } from './channel-row';

/** Rows that are drawn above and below those that can be seen. */
export const OVERSCAN = 6;
/** The first row is the headings'. */
export const HEAD_HEIGHT = 30;

/** The rows to draw where `first` is the first that can be seen: always as many as the pane can show, so that whoever scrolls sees the same rows filled anew, and none is made or thrown away. */
export function rowsFrom(first: number, count: number, height: number): number[] {
  const drawn = Math.min(count, Math.ceil(height / ROW_HEIGHT) + 2 * OVERSCAN);
  const from = Math.max(0, Math.min(first - OVERSCAN, count - drawn));
  return Array.from({ length: drawn }, (_, at) => from + at);
}

/** Where a pane of `height` has to stand, px, for a row to be in sight; null where it is. By the shortest way. */
export function offsetFor(row: number, offset: number, height: number): number | null {
  const above = row * ROW_HEIGHT - offset;
  const room = height - HEAD_HEIGHT - ROW_HEIGHT;
  if (above < 0) return row * ROW_HEIGHT;
  return above > room ? row * ROW_HEIGHT - room : null;
}

/**
 * Which rows are drawn, and that the active one is among them. Where it is out of sight, the rows about it are drawn at once and the
 * pane is put there after: to scroll first would be to draw and lay out twice, rows that nobody sees among them.
 */
export function useSight(
  virtual: Virtualizer<HTMLDivElement, Element>,
  grid: RefObject<HTMLDivElement | null>,
  active: number,
) {
  const brought = useRef(-1);
  /** The pane was put from one offset to another, of which the virtualiser learns in the next frame. */
  const put = useRef<{ from: number; to: number } | null>(null);
  const offset = virtual.scrollOffset ?? 0;
  const height = virtual.scrollRect?.height ?? 0;
  const ours = put.current;
  const stands = ours !== null && ours.from === offset ? ours.to : offset;
  const aim = brought.current !== active && height > 0 ? offsetFor(active, stands, height) : null;
  useLayoutEffect(() => {
    if (height > 0) brought.current = active;
    if (aim === null || !grid.current) return;
    grid.current.scrollTo({ top: aim, behavior: 'instant' });
    // As far as it goes, where the table ends before.
    const to = grid.current.scrollTop;
    put.current = to === offset ? null : { from: offset, to };
  });
  const at = aim ?? stands;
  return {
    rows:
      at === offset
        ? virtual.getVirtualItems().map(({ index }) => index)
        : rowsFrom(Math.max(0, Math.floor((at - HEAD_HEIGHT) / ROW_HEIGHT)), virtual.options.count, height),
    /** True while the pane moves, and in the frame in which it is put elsewhere. */
    scrolled: virtual.isScrolling || at !== offset,
  };
}
