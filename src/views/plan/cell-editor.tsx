'use client';

import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import { MODES } from '@/core/radio';
import type { Model } from '@/core/models';
import { COLUMNS, type Column } from '@/core/plan';
import { HEADINGS, ROW_HEIGHT, TEMPLATE } from './channel-row';
import { tabStep } from './selection';
import { useDesk } from './desk';

/** What a cell takes, of what this radio has. */
function helpFor(column: Column, { tones, codes, modes }: Model): string | undefined {
  if (column === 'rx') return '145.6125, 145600k, 433500000';
  if (column === 'tx') return '= same, + or - usual shift, +7.6, -600k, 438.4875, x listen only';
  if (column !== 'access') return undefined;
  return [
    ...(tones.length > 0 ? ['88.5 sends, 88.5/88.5 both, /88.5 expects'] : []),
    ...(codes.length > 0 ? ['D023N'] : []),
    ...(modes.includes('DMR') ? ['CC3 TS2'] : []),
    ...(modes.includes('P25') ? ['NAC 293'] : []),
  ].join(', ');
}

/** The field that lies over a cell while it is typed in, with what it takes or why it does not. */
export function CellEditor({
  model,
  top,
  below,
  onDone,
}: {
  model: Model;
  top: number;
  below: boolean;
  onDone: () => void;
}) {
  const { table } = useDesk();
  const { editing, editingCell, setEditing, commit, cancel, rowCount, setSelection } = table;
  const input = useRef<HTMLInputElement>(null);
  const leaving = useRef(false);
  const cell = editingCell!;
  useEffect(() => {
    const field = input.current!;
    field.focus();
    field.setSelectionRange(field.value.length, field.value.length);
  }, []);

  const go = (next: typeof cell) => {
    leaving.current = true;
    setSelection({ active: next, anchor: next, added: new Set() });
    onDone();
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') {
      event.preventDefault();
      leaving.current = true;
      cancel();
      onDone();
    } else if (event.key === 'Enter') {
      event.preventDefault();
      const all = event.ctrlKey || event.metaKey;
      const adds = editing!.id === 'new' && editing!.text.trim() !== '';
      if (!commit({ all })) return;
      // A channel that was typed into the empty row has that below it again: one is typed after the other.
      const last = rowCount - 1 + (adds ? 1 : 0);
      const row = all ? cell.row : Math.max(0, Math.min(last, cell.row + (event.shiftKey ? -1 : 1)));
      if (all) {
        leaving.current = true;
        onDone();
      } else go({ ...cell, row });
    } else if (event.key === 'Tab') {
      event.preventDefault();
      if (commit()) go(tabStep(cell, rowCount, event.shiftKey) ?? cell);
    }
  };

  const message = editing!.reason ?? helpFor(cell.column, model);
  return (
    <div
      role="row"
      aria-rowindex={cell.row + 2}
      className="pointer-events-none absolute inset-x-0 z-20 grid"
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: TEMPLATE }}
    >
      <div
        role="gridcell"
        aria-colindex={COLUMNS.indexOf(cell.column) + 2}
        className="pointer-events-auto relative"
        style={{ gridColumn: COLUMNS.indexOf(cell.column) + 2 }}
      >
        <input
          ref={input}
          aria-label={`${HEADINGS[cell.column]}, being typed`}
          aria-invalid={editing!.reason !== null}
          aria-describedby="cell-message"
          list={cell.column === 'mode' ? 'modes' : undefined}
          value={editing!.text}
          onChange={(event) => setEditing({ ...editing!, text: event.target.value, reason: null })}
          onKeyDown={onKeyDown}
          onBlur={() => !leaving.current && commit({ leave: true })}
          className={clsx(
            'mono h-full w-full bg-sheet px-1.5 outline-2 -outline-offset-2',
            editing!.reason ? 'outline-stop' : 'outline-ink',
          )}
        />
        {cell.column === 'mode' && (
          <datalist id="modes">
            {MODES.map((mode) => (
              <option key={mode} value={mode} />
            ))}
          </datalist>
        )}
        {message && (
          <p
            id="cell-message"
            role={editing!.reason ? 'alert' : undefined}
            className={clsx(
              'absolute w-max max-w-[22rem] rounded border px-2 py-1 text-[12.5px] shadow-md',
              // In the right half it grows to the left, so that it ends within the pane.
              COLUMNS.indexOf(cell.column) < COLUMNS.indexOf('access') ? 'left-0' : 'right-0',
              below ? 'top-full mt-0.5' : 'bottom-full mb-0.5',
              editing!.reason ? 'border-stop bg-stop-wash' : 'border-line-strong bg-sheet text-soft',
            )}
          >
            {message}
          </p>
        )}
      </div>
    </div>
  );
}
