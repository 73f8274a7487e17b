'use client';

import type { KeyboardEvent } from 'react';
import { step, takesLetters, at, type Cell } from './selection';
import { useDesk } from './desk';

/** Keys while the table has the focus. Letters type where a value can begin with them, and are commands elsewhere. */
export function useTableKeys({ onMove, page }: { onMove: () => void; page: () => number }) {
  const { table, actions } = useDesk();
  const { selection, setSelection, rowCount, rows } = table;
  const { active } = selection;

  const go = (cell: Cell, extend: boolean) =>
    setSelection(extend ? { ...selection, active: cell } : { active: cell, anchor: cell, added: new Set() });

  const withCtrl = (key: string): (() => void) | undefined =>
    ({
      a: () =>
        setSelection({
          active: { row: rows.length - 1, column: 'slot' },
          anchor: { row: 0, column: 'slot' },
          added: new Set(),
        }),
      d: actions.fillDown,
    })[key.toLowerCase()];

  const single = (key: string): (() => void) | undefined => {
    if (key === ' ' && active.column === 'scan') return actions.toggleScan;
    if (takesLetters(active.column)) return undefined;
    return { l: actions.listenOnly, s: actions.toggleScan, h: () => void actions.heardNow(), m: onMove }[
      key.toLowerCase()
    ];
  };

  return (event: KeyboardEvent) => {
    if (table.editing || event.nativeEvent.isComposing) return;
    const ctrl = event.ctrlKey || event.metaKey;
    const done = (act: () => void) => {
      event.preventDefault();
      act();
    };
    if (event.altKey) {
      if (event.key === 'ArrowUp') done(actions.moveUp);
      else if (event.key === 'ArrowDown') done(actions.moveDown);
      return;
    }
    const next = step(active, event.key, rowCount, page(), ctrl, table.layout.columns);
    if (next) return done(() => go(next, event.shiftKey));
    if (ctrl) {
      // With Shift they are other commands, which act everywhere on the screen.
      const act = event.shiftKey ? undefined : withCtrl(event.key);
      return act && done(act);
    }
    // The channel that was worked on is not among the rows any more: no other one takes what was meant for it.
    if (
      table.lost &&
      (event.key.length === 1 || ['Enter', 'F2', 'Delete', 'Backspace', 'Tab'].includes(event.key))
    )
      return done(() =>
        table.setRemark('The channel that you were typing in is not shown any more. Choose a cell first.'),
      );
    if (event.key === 'Tab') {
      // Past the first and last cell Tab leaves the table, so that the keyboard is never caught in it.
      if (table.goOnFrom(active, 'Tab', event.shiftKey)) event.preventDefault();
      return;
    }
    if (event.key === 'Enter' && table.goOnFrom(active, 'Enter', event.shiftKey))
      return event.preventDefault();
    if (event.key === 'Enter' || event.key === 'F2') {
      if (active.column === 'scan' && rows[active.row]) return done(actions.toggleScan);
      return done(() => table.beginEdit(active));
    }
    if (event.key === 'Escape')
      return done(() => (table.filter ? table.setFilter('') : setSelection(at(active.row, active.column))));
    if (event.key === 'Delete' || event.key === 'Backspace') return done(() => actions.clear());
    if (event.key === '?') return;
    if (event.key === '/' && active.column !== 'access' && active.column !== 'name')
      return done(() => document.getElementById('find-in-plan')?.focus());
    if (event.key.length !== 1) return;
    const act = single(event.key);
    if (act) return done(act);
    if (active.column === 'scan') return;
    done(() => table.beginEdit(active, event.key));
  };
}
