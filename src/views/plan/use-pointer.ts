'use client';

import { useRef, type PointerEvent } from 'react';
import { COLUMNS, type ChannelId, type Column } from '@/core/plan';
import type { Cell } from './selection';
import type { Table } from './use-table';

/** The cell under a pointer, from the marks that cells carry. */
function cellAt(target: EventTarget): Cell | undefined {
  const element = target instanceof Element ? target.closest<HTMLElement>('[data-column]') : null;
  const column = COLUMNS.find((name): name is Column => name === element?.dataset.column);
  return element && column ? { row: Number(element.dataset.row), column } : undefined;
}

/** Choosing with the mouse: press and drag for a block, Shift to extend it, Ctrl to add or take away rows, twice to type. */
export function usePointer(table: Table, focus: () => void) {
  const dragging = useRef(false);
  const { selection, setSelection, rows, editing } = table;

  const toggle = (id: ChannelId, cell: Cell) => {
    const added = new Set(table.chosen);
    if (added.has(id)) added.delete(id);
    else added.add(id);
    const stay = added.has(id) ? cell : selection.active;
    setSelection({ active: stay, anchor: stay, added });
  };

  return {
    onPointerDown(event: PointerEvent) {
      if (event.button !== 0 || event.target instanceof HTMLInputElement) return;
      const cell = cellAt(event.target);
      if (!cell) return;
      if (editing) table.commit({ leave: true });
      event.preventDefault();
      focus();
      const channel = rows[cell.row];
      if ((event.ctrlKey || event.metaKey) && channel) return toggle(channel.id, cell);
      dragging.current = true;
      setSelection({
        active: cell,
        anchor: event.shiftKey ? selection.anchor : cell,
        added: event.shiftKey ? selection.added : new Set(),
      });
    },
    onPointerMove(event: PointerEvent) {
      if (!dragging.current || (event.buttons & 1) === 0) return;
      const cell = cellAt(event.target);
      if (cell && (cell.row !== selection.active.row || cell.column !== selection.active.column))
        setSelection({ ...selection, active: cell });
    },
    onPointerUp() {
      dragging.current = false;
    },
    onDoubleClick(event: { target: EventTarget }) {
      const cell = cellAt(event.target);
      if (!cell) return;
      const channel = rows[cell.row];
      if (cell.column === 'scan' && channel) table.change([{ id: channel.id, set: { scan: !channel.scan } }]);
      else table.beginEdit(cell);
    },
  };
}
