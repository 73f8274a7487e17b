'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type ReactNode } from 'react';

/** A row of a long list: what it is told apart by, and what it shows. */
export interface ListRow {
  key: string;
  show: () => ReactNode;
  className?: string;
}

/**
 * A list of any length in a pane of its own: only what can be seen is drawn, each row as high as it is. `foot` stands below the
 * last row.
 */
export function LongList({
  label,
  rows,
  reversed,
  foot,
  rowHeight = 62,
  plain = false,
}: {
  label: string;
  rows: readonly ListRow[];
  /** Numbered downwards, for what is newest first. */
  reversed?: boolean;
  foot?: ReactNode;
  /** About how high a row is, px, until it is measured. */
  rowHeight?: number;
  /** Nothing in its rows takes the focus, so that the pane itself does, for who scrolls by key. */
  plain?: boolean;
}) {
  const pane = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => pane.current,
    estimateSize: () => rowHeight,
    getItemKey: (index) => rows[index]!.key,
    overscan: 8,
    initialRect: { width: 288, height: 500 },
  });
  const Tag = reversed ? 'ol' : 'ul';
  const shown = virtual.getVirtualItems();
  return (
    <div
      ref={pane}
      className="min-h-0 flex-1 overflow-y-auto"
      {...(plain && { role: 'region', 'aria-label': label, tabIndex: 0 })}
    >
      <Tag
        aria-label={label}
        {...(reversed && { reversed: true })}
        // Rows follow one another, whatever they were thought to be high: none ever lies over another.
        className="box-border"
        style={{ height: virtual.getTotalSize(), paddingTop: shown[0]?.start ?? 0 }}
      >
        {shown.map(({ index, key }) => (
          <li
            key={key}
            ref={virtual.measureElement}
            data-index={index}
            aria-setsize={rows.length}
            aria-posinset={index + 1}
            className={rows[index]!.className}
          >
            {rows[index]!.show()}
          </li>
        ))}
      </Tag>
      {foot}
    </div>
  );
}
