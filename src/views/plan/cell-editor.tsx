'use client';

import clsx from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import type * as TableTools from '@/core/table';
import type { Model } from '@/core/models';
import type { Column } from '@/core/plan';
import { MODE_TRAITS } from '@/core/radio';
import { HEADINGS, ROW_HEIGHT } from './channel-row';
import { templateOf } from './columns';
import { tableTools } from './use-rows';
import { useDesk } from './desk';

/** What a cell takes, of what this radio has. */
function helpFor(column: Column, { tones, codes, modes }: Model): string | undefined {
  if (column === 'rx') return '145.6125, 145600k, 433500000';
  if (column === 'tx') return '= same, + or - usual shift, +7.6, -600k, 438.4875, x listen only';
  if (column !== 'access') return undefined;
  return [
    ...(tones.length > 0 ? ['88.5 sends, 88.5/88.5 both, /88.5 expects'] : []),
    ...(codes.length > 0 ? ['D023N'] : []),
    ...(modes.some((mode) => MODE_TRAITS[mode].access === 'dmr') ? ['CC3 TS2'] : []),
    ...(modes.includes('P25') ? ['NAC 293'] : []),
  ].join(', ');
}

/** What the cell could hold, as it is typed, and which of it is picked; nothing until what works it out has come. */
function useOffers() {
  const { hand, table } = useDesk();
  const { editing, rows } = table;
  const { id, column, text } = editing!;
  const [tools, setTools] = useState<typeof TableTools | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  useEffect(() => {
    let here = true;
    void tableTools().then((found) => here && setTools(found));
    return () => void (here = false);
  }, []);
  // What is typed on picks nothing.
  useEffect(() => setPicked(null), [text]);
  const { plan, model, shown } = hand;
  const offers = useMemo(() => {
    if (!tools || column === 'slot') return [];
    const channel = rows.find((one) => one.id === id) ?? null;
    return tools.suggestions(column, text, channel, { plan, model, neighbours: shown.neighbours });
  }, [tools, column, text, id, rows, plan, model, shown.neighbours]);
  return { offers, picked, setPicked };
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
  const { editing, editingCell, setEditing, commit, cancel, goOn } = table;
  const input = useRef<HTMLInputElement>(null);
  const leaving = useRef(false);
  const cell = editingCell!;
  const { columns } = table.layout;
  useEffect(() => {
    const field = input.current!;
    field.focus();
    field.setSelectionRange(field.value.length, field.value.length);
  }, []);

  const { offers, picked, setPicked } = useOffers();
  const chosen = picked === null ? undefined : offers[picked];

  const leave = () => {
    leaving.current = true;
    onDone();
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    event.stopPropagation();
    if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && offers.length > 0) {
      event.preventDefault();
      // Past either end what was typed stands again.
      const by = event.key === 'ArrowDown' ? 1 : -1;
      const next = (picked ?? (by > 0 ? -1 : offers.length)) + by;
      setPicked(next < 0 || next >= offers.length ? null : next);
      return;
    }
    if (event.key === 'Escape') {
      event.preventDefault();
      cancel();
      leave();
    } else if (event.key === 'Enter') {
      event.preventDefault();
      const all = event.ctrlKey || event.metaKey;
      const id = commit({ all, ...(chosen && { text: chosen.text }) });
      if (id === null) return;
      if (!all) goOn(id, cell, 'Enter', event.shiftKey);
      leave();
    } else if (event.key === 'Tab') {
      event.preventDefault();
      // On from the record that was typed in, wherever what was typed has put it.
      const id = commit(chosen && { text: chosen.text });
      if (id === null) return;
      goOn(id, cell, 'Tab', event.shiftKey);
      leave();
    }
  };

  const message = editing!.reason ?? helpFor(cell.column, model);
  return (
    <div
      role="row"
      aria-rowindex={cell.row + 2}
      className="pointer-events-none absolute inset-x-0 z-20 grid"
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: templateOf(table.layout) }}
    >
      <div
        role="gridcell"
        aria-colindex={columns.indexOf(cell.column) + 2}
        className="pointer-events-auto relative"
        style={{ gridColumn: columns.indexOf(cell.column) + 2 }}
      >
        <input
          ref={input}
          role="combobox"
          aria-expanded={offers.length > 0}
          aria-autocomplete="list"
          aria-controls="cell-offers"
          aria-activedescendant={picked === null ? undefined : `cell-offer-${picked}`}
          autoComplete="off"
          aria-label={`${HEADINGS[cell.column]}, being typed`}
          aria-invalid={editing!.reason !== null}
          aria-describedby="cell-message"
          value={chosen?.text ?? editing!.text}
          onChange={(event) => setEditing({ ...editing!, text: event.target.value, reason: null })}
          onKeyDown={onKeyDown}
          onBlur={() => !leaving.current && commit({ leave: true })}
          className={clsx(
            'mono h-full w-full bg-sheet px-1.5 outline-2 -outline-offset-2',
            editing!.reason ? 'outline-stop' : 'outline-ink',
          )}
        />
        <div
          className={clsx(
            'absolute flex w-max max-w-[24rem] flex-col',
            // In the right half it grows to the left, so that it ends within the pane.
            columns.indexOf(cell.column) * 2 <= columns.length ? 'left-0' : 'right-0',
            below ? 'top-full mt-0.5' : 'bottom-full mb-0.5 flex-col-reverse',
          )}
        >
          {message && (
            <p
              id="cell-message"
              role={editing!.reason ? 'alert' : undefined}
              className={clsx(
                'w-max max-w-[24rem] rounded border px-2 py-1 text-[12.5px] shadow-md',
                editing!.reason ? 'border-stop bg-stop-wash' : 'border-line-strong bg-sheet text-soft',
              )}
            >
              {message}
            </p>
          )}
          <ul
            id="cell-offers"
            role="listbox"
            aria-label={`What ${HEADINGS[cell.column].toLowerCase()} could be`}
            className={clsx(
              'max-h-64 overflow-y-auto rounded border border-line-strong bg-sheet py-0.5 text-[12.5px] shadow-md',
              offers.length === 0 && 'hidden',
            )}
          >
            {offers.map(({ text, says, held }, at) => (
              <li
                key={text}
                id={`cell-offer-${at}`}
                role="option"
                aria-selected={picked === at}
                className={clsx(
                  'flex cursor-default items-baseline gap-3 px-2 py-0.5',
                  picked === at ? 'bg-wash' : 'hover:bg-sunk',
                )}
                // Taken before the field loses the focus.
                onPointerDown={(event) => {
                  event.preventDefault();
                  if (commit({ text }) !== null) leave();
                }}
              >
                <span className={clsx('mono', !held && 'text-soft')}>{text === '' ? 'open' : text}</span>
                <span className="text-soft">{says}</span>
              </li>
            ))}
          </ul>
        </div>
      </div>
    </div>
  );
}
