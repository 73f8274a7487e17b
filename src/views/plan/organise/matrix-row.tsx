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

/**
 * A channel or talkgroup, and whether each list in sight has it. Only what is ticked is an element, and the cell at work: of 200 by 200 the
 * empty ones are lines in the background. What it is in is told in words.
 */
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
  const held = columns.filter(({ members }) => members.has(id));
  const marks = [];
  for (let at = first; at <= last && at < columns.length; at++)
    if (columns[at]!.members.has(id))
      marks.push(
        <span
          key={at}
          aria-hidden
          className="absolute size-3 rounded-[3px] bg-receive"
          style={{ left: side + at * cell + (cell - 13) / 2, top: (height - 13) / 2 }}
        />,
      );
  const at = columns[active];
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      data-row={row}
      className="absolute inset-x-0 border-b border-line text-[13px]"
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
          {held.length}
        </span>
      </div>
      <span role="gridcell" aria-colindex={2} aria-colspan={Math.max(1, columns.length)} className="sr-only">
        {held.length === 0 ? 'in none' : `in ${held.map((column) => column.name).join(', ')}`}
      </span>
      {marks}
      {at && (
        <span
          id={`joins-${row}-${active}`}
          role="gridcell"
          aria-colindex={active + 2}
          aria-selected={at.members.has(id)}
          aria-label={`${name} ${at.members.has(id) ? 'is' : 'is not'} in ${at.name}`}
          className="absolute top-0 h-full shadow-[inset_0_0_0_2px_var(--ink)]"
          style={{ left: side + active * cell, width: cell }}
        />
      )}
    </div>
  );
}, alike);
