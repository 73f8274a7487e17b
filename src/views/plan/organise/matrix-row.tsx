import clsx from 'clsx';
import { memo } from 'react';
import type { MatrixColumn } from '@/core/organise';

interface RowProps {
  row: number;
  id: string;
  name: string;
  detail: string;
  columns: readonly MatrixColumn[];
  /** The columns in sight. */
  first: number;
  last: number;
  top: number;
  height: number;
  side: number;
  cell: number;
  /** The column at work; -1 where another row is. */
  active: number;
  onWhole: (row: number) => void;
}

/** Whether a row looks the same as before: the columns in sight and its own ticks, not the rest of the plan. */
const alike = (a: RowProps, b: RowProps): boolean => {
  const { columns: was, onWhole: _, ...rest } = a;
  const { columns: is, onWhole: _is, ...next } = b;
  if ((Object.keys(rest) as (keyof typeof rest)[]).some((key) => rest[key] !== next[key])) return false;
  if (was === is) return true;
  if (was.length !== is.length) return false;
  for (let at = 0; at < was.length; at++)
    if (was[at]!.members.has(a.id) !== is[at]!.members.has(b.id) || was[at]!.name !== is[at]!.name)
      return false;
  return true;
};

/** A channel or talkgroup, and whether each list in sight has it. */
export const MatrixRow = memo(function MatrixRow({
  row,
  id,
  name,
  detail,
  columns,
  first,
  last,
  top,
  height,
  side,
  cell,
  active,
  onWhole,
}: RowProps) {
  const n = columns.reduce((sum, { members }) => sum + (members.has(id) ? 1 : 0), 0);
  const cells = [];
  for (let at = first; at <= last && at < columns.length; at++) {
    const { id: column, name: of, members } = columns[at]!;
    const on = members.has(id);
    cells.push(
      <span
        key={column}
        id={`joins-${row}-${at}`}
        role="gridcell"
        aria-colindex={at + 2}
        aria-selected={on}
        aria-label={`${name} ${on ? 'is' : 'is not'} in ${of}`}
        data-cell={`${row} ${at}`}
        className={clsx(
          'absolute top-0 grid h-full place-items-center border-r border-line',
          at === active && 'shadow-[inset_0_0_0_2px_var(--ink)]',
        )}
        style={{ left: side + at * cell, width: cell }}
      >
        {on && <span aria-hidden className="size-3 rounded-[3px] bg-receive" />}
      </span>,
    );
  }
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className="absolute inset-x-0 border-b border-line text-[13px] hover:bg-wash-faint"
      style={{ top, height }}
    >
      <div
        role="rowheader"
        className="sticky left-0 z-10 flex h-full items-center gap-2 border-r border-line-strong bg-sheet px-2"
        style={{ width: side }}
      >
        <span className="mono w-11 shrink-0 text-right text-[12px] text-soft">{detail}</span>
        <button
          type="button"
          tabIndex={-1}
          title={`${name}: in all, or in none`}
          className="min-w-0 flex-1 truncate text-left font-medium hover:text-receive"
          onClick={() => onWhole(row)}
        >
          {name}
        </button>
        <span className="mono shrink-0 text-[11px] text-soft">
          <span className="sr-only">in </span>
          {n}
        </span>
      </div>
      {cells}
    </div>
  );
}, alike);
