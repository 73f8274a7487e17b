'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import type { RefObject } from 'react';
import { leastWidth, templateOf, USUAL } from './columns';
import { useExtras } from './use-extras';
import { CellEditor } from './cell-editor';
import { DropLine, ExtraHeading, Heading, NewRow } from './table-rows';
import { ChannelRow, ROW_HEIGHT } from './channel-row';
import { useTableKeys } from './use-table-keys';
import { usePointer } from './use-pointer';
import { OWN_TYPE } from './use-clipboard';
import { HEAD_HEIGHT, OVERSCAN, rowsFrom, useSight } from './use-sight';
import { useDesk } from './desk';

/** The channels as a grid that behaves as a spreadsheet does. */
export function ChannelTable({
  onMove,
  gridRef,
}: {
  /** Asks to which slot the chosen are to move. */
  onMove: () => void;
  gridRef: RefObject<HTMLDivElement | null>;
}) {
  const { hand, table, actions } = useDesk();
  const { rows, rowCount, selection, editing, editingCell, chosen, columns } = table;
  const virtual = useVirtualizer({
    count: rowCount,
    getScrollElement: () => gridRef.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: OVERSCAN,
    rangeExtractor: ({ startIndex, count }) =>
      rowsFrom(startIndex, count, gridRef.current?.clientHeight ?? 600),
    // The rows begin below the headings, which lie over what is scrolled under them.
    scrollMargin: HEAD_HEIGHT,
    scrollPaddingStart: HEAD_HEIGHT,
  });
  const { active } = selection;
  const sight = useSight(virtual, gridRef, active.row);

  const focus = () => gridRef.current?.focus({ preventScroll: true });
  const onKeyDown = useTableKeys({
    onMove,
    page: () => Math.max(1, Math.floor((gridRef.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2),
  });
  /** The row before which something is put down there. */
  const rowAt = (clientY: number) => {
    const view = gridRef.current!;
    return Math.round(
      (clientY - view.getBoundingClientRect().top + view.scrollTop - HEAD_HEIGHT) / ROW_HEIGHT,
    );
  };
  const { drop, handlers } = usePointer(focus, {
    rowAt: ({ clientY }) => rowAt(clientY),
    onCarried: actions.carry,
  });

  const { of: views } = hand.shown.views;
  const { layout } = table;
  const blockFrom = layout.columns.indexOf(columns[0]!);
  const blockTo = layout.columns.indexOf(columns[columns.length - 1]!);
  const template = templateOf(layout);
  const least = leastWidth(layout);
  const wide = layout !== USUAL;
  const extraOf = useExtras(hand.plan, hand.heard, layout.extras.length > 0);
  const many = chosen.size > 1 || columns.length > 1;

  // Read out in the order of the list; but to move a row among its siblings is to lay it out from nothing, so while the pane is
  // scrolled each stays where it is among them, is filled anew, and is put in order when that has ended.
  const items = sight.rows;
  const place = (index: number) => index % items.length;
  const shown = sight.scrolled ? [...items].sort((a, b) => place(a) - place(b)) : items;

  return (
    <div
      ref={gridRef}
      role="grid"
      aria-label="Channels"
      aria-multiselectable
      aria-rowcount={rowCount + 1}
      aria-colcount={layout.columns.length + layout.extras.length + 1}
      aria-activedescendant={`cell-${active.row}-${active.column}`}
      tabIndex={0}
      // A layer of its own: what is beside the table is not drawn again with each frame of scrolling.
      className="relative min-h-0 flex-1 overflow-auto bg-sheet outline-none will-change-transform max-lg:*:min-w-[640px]"
      {...handlers}
      onKeyDown={onKeyDown}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(OWN_TYPE)) return;
        event.preventDefault();
        event.dataTransfer.dropEffect = 'copy';
      }}
      onDrop={(event) => {
        const own = event.dataTransfer.getData(OWN_TYPE);
        if (own === '') return;
        event.preventDefault();
        event.stopPropagation();
        const before = rows[Math.max(0, rowAt(event.clientY))]?.slot;
        void (before === undefined ? actions.paste('', own) : actions.drop(own, before));
      }}
      onCopy={(event) => {
        if (editing) return;
        event.preventDefault();
        const { text, own } = actions.copy();
        event.clipboardData.setData('text/plain', text);
        if (own !== null) event.clipboardData.setData(OWN_TYPE, own);
      }}
      onPaste={(event) => {
        if (editing) return;
        event.preventDefault();
        void actions.paste(event.clipboardData.getData('text/plain'), event.clipboardData.getData(OWN_TYPE));
      }}
    >
      <div
        role="row"
        aria-rowindex={1}
        className="sticky top-0 z-10 grid border-b border-line-strong bg-sheet text-[12.5px] text-soft"
        style={{ height: HEAD_HEIGHT, gridTemplateColumns: template, minWidth: wide ? least : undefined }}
      >
        <div role="columnheader" aria-colindex={1} className="sr-only">
          Findings
        </div>
        <span aria-hidden />
        {layout.columns.map((column, index) => (
          <Heading key={column} column={column} index={index} />
        ))}
        {layout.extras.map((extra, index) => (
          <ExtraHeading key={extra} extra={extra} index={layout.columns.length + index} />
        ))}
      </div>
      <div
        role="rowgroup"
        className="@container relative"
        style={{ height: rowCount * ROW_HEIGHT, minWidth: wide ? least : undefined }}
      >
        {shown.map((index) => {
          const start = index * ROW_HEIGHT;
          const channel = rows[index];
          const isActive = active.row === index;
          if (!channel)
            return (
              <NewRow
                key="new"
                row={index}
                top={start}
                slot={table.nextFree!}
                active={isActive ? active.column : null}
                texts={table.newRow}
                layout={layout}
              />
            );
          const isChosen = chosen.has(channel.id);
          return (
            <ChannelRow
              key={place(index)}
              channel={channel}
              row={index}
              top={start}
              onRadio={views.get(channel.id)?.fitted?.name ?? null}
              findings={views.get(channel.id)?.findings}
              chosen={isChosen && (many || !isActive)}
              active={isActive ? active.column : null}
              blockFrom={blockFrom}
              blockTo={blockTo}
              drafts={channel.unclear}
              columns={layout.columns}
              template={template}
              extras={layout.extras}
              extraOf={extraOf}
              wide={wide}
            />
          );
        })}
        {drop !== null && <DropLine top={drop * ROW_HEIGHT} count={chosen.size} />}
        {editingCell && (
          <CellEditor
            key={`${editing!.id} ${editing!.column}`}
            model={hand.model}
            top={editingCell.row * ROW_HEIGHT}
            below={editingCell.row < 3 || editingCell.row < rowCount - 2}
            onDone={focus}
          />
        )}
      </div>
    </div>
  );
}
