import clsx from 'clsx';
import { ArrowDown, ArrowUp, ArrowUpDown } from 'lucide-react';
import { slotText, type Column } from '@/core/plan';
import { HEADINGS, ROW_HEIGHT } from './channel-row';
import { keepLayout, templateOf, WIDTHS, type Layout } from './columns';
import { EXTRA_NAMES, type Extra, type ViewOrder } from '@/core/table';
import { useDesk } from './desk';
import type { NewRowTexts } from './new-row';

/** The edge of a heading: drawn wider or narrower by the mouse; the columns' panel has the same in figures. */
export function Edge({ of }: { of: Column | Extra }) {
  const { table } = useDesk();
  const { layout } = table;
  const width = (event: React.PointerEvent) => {
    const { left } = event.currentTarget.parentElement!.getBoundingClientRect();
    return Math.max(WIDTHS.least, Math.min(WIDTHS.most, Math.round(event.clientX - left)));
  };
  return (
    <span
      aria-hidden
      className="absolute inset-y-0 right-0 z-10 w-1.5 cursor-col-resize hover:bg-line-strong"
      onPointerDown={(event) => {
        event.stopPropagation();
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId))
          keepLayout({ ...layout, widths: { ...layout.widths, [of]: width(event) } });
      }}
      onDoubleClick={() => {
        const { [of]: _, ...widths } = layout.widths;
        keepLayout({ ...layout, widths });
      }}
    />
  );
}

/** The arrow of a heading: shows the rows by it, up, down, and by slot again. */
function ByThis({ by, called }: { by: Column | Extra; called: string }) {
  const { table } = useDesk();
  const { order, setOrder } = table;
  const mine = order?.by === by ? order : null;
  const Arrow = mine === null ? ArrowUpDown : mine.down ? ArrowDown : ArrowUp;
  return (
    <button
      type="button"
      // The keyboard has it by Ctrl K: the table is one stop.
      tabIndex={-1}
      aria-label={`Show by ${called.toLowerCase()}`}
      className={clsx(
        // Over the end of the heading: the words keep the room.
        'absolute right-1.5 rounded bg-sheet p-0.5 hover:bg-sunk hover:text-ink',
        mine ? 'text-ink' : 'opacity-0 focus:opacity-100 group-hover:opacity-100',
      )}
      onPointerDown={(event) => event.stopPropagation()}
      onClick={() => setOrder(mine === null ? { by, down: false } : mine.down ? null : { by, down: true })}
    >
      <Arrow size={12} aria-hidden />
    </button>
  );
}

const sortedBy = (order: ViewOrder | null, by: Column | Extra) =>
  order?.by !== by ? undefined : order.down ? ('descending' as const) : ('ascending' as const);

/** The head of a column that is typed: chooses all of it. */
export function Heading({ column, index }: { column: Column; index: number }) {
  const { table } = useDesk();
  const { order, rows, setSelection } = table;
  return (
    <div
      role="columnheader"
      aria-colindex={index + 2}
      aria-sort={sortedBy(order, column)}
      className="group relative flex min-w-0 cursor-default items-center px-1.5"
      onPointerDown={(event) => {
        if (event.button !== 0 || rows.length === 0) return;
        event.preventDefault();
        setSelection({
          active: { row: 0, column },
          anchor: { row: rows.length - 1, column },
          added: new Set(),
        });
      }}
    >
      <span className="truncate">{HEADINGS[column]}</span>
      {column !== 'slot' && <Edge of={column} />}
      {column !== 'slot' && <ByThis by={column} called={HEADINGS[column]} />}
    </div>
  );
}

/** The head of a column behind them. */
export function ExtraHeading({ extra, index }: { extra: Extra; index: number }) {
  const { table } = useDesk();
  return (
    <div
      role="columnheader"
      aria-colindex={index + 2}
      aria-sort={sortedBy(table.order, extra)}
      className="group relative flex min-w-0 items-center px-1.5"
    >
      <span className="truncate">{EXTRA_NAMES[extra]}</span>
      <Edge of={extra} />
      <ByThis by={extra} called={EXTRA_NAMES[extra]} />
    </div>
  );
}

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

const NEW_ROW_HINTS: Partial<Record<Column, string>> = { name: 'New channel', rx: 'frequency' };

/** The empty row at the end: what is typed here becomes a channel as soon as it has a receive frequency. */
export function NewRow({
  row,
  top,
  slot,
  active,
  texts,
  layout,
}: {
  layout: Layout;
  row: number;
  top: number;
  slot: number;
  active: Column | null;
  /** What has been typed into it so far, by column. */
  texts: NewRowTexts;
}) {
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className="absolute left-0 right-0 grid text-soft"
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: templateOf(layout) }}
    >
      <div role="gridcell" aria-colindex={1} />
      {layout.columns.map((column, index) => (
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
            column === 'rx' && texts.rx !== undefined && 'mono bg-stop-wash text-stop',
            column !== 'rx' && texts[column] !== undefined && 'text-ink',
          )}
        >
          {texts[column] ?? NEW_ROW_HINTS[column] ?? ''}
          {column === 'slot' && texts.slot === undefined && <span className="mono">{slotText(slot)}</span>}
        </div>
      ))}
    </div>
  );
}
