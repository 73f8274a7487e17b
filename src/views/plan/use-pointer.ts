'use client';

import { useRef, useState, type PointerEvent } from 'react';
import { COLUMNS, type ChannelId, type Column } from '@/core/plan';
import type { Cell } from './selection';
import { useDesk } from './desk';

/** The cell under a pointer, from the marks that cells carry. */
function cellAt(target: EventTarget): Cell | undefined {
  const element = target instanceof Element ? target.closest<HTMLElement>('[data-column]') : null;
  const column = COLUMNS.find((name): name is Column => name === element?.dataset.column);
  return element && column ? { row: Number(element.dataset.row), column } : undefined;
}

/** How far a press must go before it carries, px; less is a click. */
const CARRY_FROM = 4;
/** How near to the edge of the table what is carried scrolls it, px. */
const SCROLL_WITHIN = 28;

/**
 * Choosing with the mouse: press and drag for a block, Shift to extend it, Ctrl to add or take away rows, twice to type.
 * Chosen rows are carried by their slot; `drop` is the row before which they would be put down, null while none are carried.
 */
export function usePointer(
  focus: () => void,
  { rowAt, onCarried }: { rowAt: (event: PointerEvent) => number; onCarried: (before: number) => void },
) {
  const { table } = useDesk();
  const dragging = useRef(false);
  const pressed = useRef<{ cell: Cell; y: number } | null>(null);
  const [drop, setDrop] = useState<number | null>(null);
  const { selection, setSelection, rows, editing } = table;

  const toggle = (id: ChannelId, cell: Cell) => {
    const added = new Set(table.chosen);
    if (added.has(id)) added.delete(id);
    else added.add(id);
    const stay = added.has(id) ? cell : selection.active;
    setSelection({ active: stay, anchor: stay, added });
  };

  const handlers = {
    onPointerDown(event: PointerEvent) {
      if (event.button !== 0 || event.target instanceof HTMLInputElement) return;
      const cell = cellAt(event.target);
      if (!cell) return;
      if (editing) table.commit({ leave: true });
      event.preventDefault();
      focus();
      const channel = rows[cell.row];
      if ((event.ctrlKey || event.metaKey) && channel) return toggle(channel.id, cell);
      if (cell.column === 'slot' && !event.shiftKey && channel && table.chosen.has(channel.id)) {
        pressed.current = { cell, y: event.clientY };
        event.currentTarget.setPointerCapture(event.pointerId);
        return;
      }
      dragging.current = true;
      setSelection({
        active: cell,
        anchor: event.shiftKey ? selection.anchor : cell,
        added: event.shiftKey ? selection.added : new Set(),
      });
    },
    onPointerMove(event: PointerEvent) {
      if (pressed.current) {
        if (drop === null && Math.abs(event.clientY - pressed.current.y) < CARRY_FROM) return;
        const { top, bottom } = event.currentTarget.getBoundingClientRect();
        const by =
          event.clientY < top + 2 * SCROLL_WITHIN ? -1 : event.clientY > bottom - SCROLL_WITHIN ? 1 : 0;
        event.currentTarget.scrollTop += by * SCROLL_WITHIN;
        setDrop(Math.max(0, Math.min(rows.length, rowAt(event))));
        return;
      }
      if (!dragging.current || (event.buttons & 1) === 0) return;
      const cell = cellAt(event.target);
      if (cell && (cell.row !== selection.active.row || cell.column !== selection.active.column))
        setSelection({ ...selection, active: cell });
    },
    onPointerUp() {
      dragging.current = false;
      if (!pressed.current) return;
      const { cell } = pressed.current;
      pressed.current = null;
      setDrop(null);
      if (drop === null) setSelection({ active: cell, anchor: cell, added: new Set() });
      else onCarried(drop);
    },
    onPointerCancel() {
      dragging.current = false;
      pressed.current = null;
      setDrop(null);
    },
    onDoubleClick(event: { target: EventTarget }) {
      const cell = cellAt(event.target);
      if (!cell) return;
      const channel = rows[cell.row];
      if (cell.column === 'scan' && channel) table.change([{ id: channel.id, set: { scan: !channel.scan } }]);
      else table.beginEdit(cell);
    },
  };
  return { drop, handlers };
}
