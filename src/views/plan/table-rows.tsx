import clsx from 'clsx';
import { COLUMNS, slotText, type Column } from '@/core/plan';
import { ROW_HEIGHT, TEMPLATE } from './channel-row';

/** Where what is carried would be put down. */
export function DropLine({ top, count }: { top: number; count: number }) {
  return (
    <div
      aria-hidden
      className="pointer-events-none absolute inset-x-0 z-20 h-0.5 bg-ink"
      style={{ top: top - 1 }}
    >
      <span className="absolute right-3 -top-2.5 rounded bg-ink px-1.5 text-[12px] leading-5 text-sheet">
        {count === 1 ? '1 channel here' : `${count} channels here`}
      </span>
    </div>
  );
}

/** The empty row at the end: a frequency typed here makes a channel. */
export function NewRow({
  row,
  top,
  slot,
  active,
  draft,
}: {
  row: number;
  top: number;
  slot: number;
  active: Column | null;
  draft: string | undefined;
}) {
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className="absolute left-0 right-0 grid text-soft"
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: TEMPLATE }}
    >
      <div role="gridcell" aria-colindex={1} />
      {COLUMNS.map((column, index) => (
        <div
          key={column}
          id={`cell-${row}-${column}`}
          role="gridcell"
          aria-colindex={index + 2}
          data-row={row}
          data-column={column}
          className={clsx(
            'flex items-center px-1.5',
            active === column && 'outline-2 -outline-offset-2 outline-ink',
            column === 'rx' && draft !== undefined && 'mono bg-stop-wash text-stop',
          )}
        >
          {column === 'slot' && <span className="mono">{slotText(slot)}</span>}
          {column === 'name' && 'New channel'}
          {column === 'rx' && (draft ?? 'frequency')}
        </div>
      ))}
    </div>
  );
}
