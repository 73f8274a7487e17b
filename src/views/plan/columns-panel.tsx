'use client';

import { ArrowDown, ArrowUp } from 'lucide-react';
import { COLUMNS, type Column } from '@/core/plan';
import { EXTRA_NAMES, EXTRAS, type Extra } from '@/core/table';
import { Button, TickField, useEscape } from '@/ui';
import { HEADINGS } from './channel-row';
import { keepLayout, USUAL, useLayout, WIDTHS } from './columns';

/** Which columns the table shows, in which order, and how wide. */
export function ColumnsPanel({ onClose }: { onClose: () => void }) {
  const layout = useLayout();
  const { columns, extras, widths } = layout;
  useEscape(onClose);
  const moved = <T,>(list: readonly T[], at: number, by: number): T[] => {
    const next = [...list];
    const [one] = next.splice(at, 1);
    next.splice(at + by, 0, one!);
    return next;
  };
  const setWidth = (of: Column | Extra, text: string) => {
    const px = Number(text);
    const { [of]: _, ...rest } = widths;
    keepLayout({
      ...layout,
      widths: px >= WIDTHS.least && px <= WIDTHS.most ? { ...rest, [of]: Math.round(px) } : rest,
    });
  };
  const row = (
    of: Column | Extra,
    label: string,
    shown: boolean,
    onShow: (shown: boolean) => void,
    fixed: boolean,
    move: ((by: -1 | 1) => void) | null,
    [up, down]: readonly [boolean, boolean],
  ) => (
    <li key={of} className="flex items-center gap-2 border-b border-line px-3 py-1 text-[13px]">
      <TickField className="min-w-0 flex-1" checked={shown} disabled={fixed} onChange={onShow}>
        {label}
      </TickField>
      {shown && of !== 'slot' && (
        <input
          aria-label={`Width of ${label}, pixels`}
          inputMode="numeric"
          placeholder="auto"
          key={widths[of] ?? 'auto'}
          defaultValue={widths[of] ?? ''}
          onBlur={(event) => setWidth(of, event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          className="mono h-7 w-14 rounded-md border border-line-strong bg-sheet px-1.5 text-[12.5px] placeholder:text-soft"
        />
      )}
      {shown && move && (
        <span className="flex">
          <Button
            kind="quiet"
            size="small"
            className="size-6 px-0!"
            aria-label={`${label} further left`}
            disabled={!up}
            onClick={() => move(-1)}
          >
            <ArrowUp size={13} aria-hidden />
          </Button>
          <Button
            kind="quiet"
            size="small"
            className="size-6 px-0!"
            aria-label={`${label} further right`}
            disabled={!down}
            onClick={() => move(1)}
          >
            <ArrowDown size={13} aria-hidden />
          </Button>
        </span>
      )}
    </li>
  );
  const hidden = COLUMNS.filter((column) => !columns.includes(column));
  const more = EXTRAS.filter((extra) => !extras.includes(extra));
  return (
    <section
      aria-label="Columns"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <p className="shrink-0 border-b border-line px-3 py-2 text-[13px]">
        <b className="font-semibold">Columns</b>{' '}
        <span className="text-soft">as this browser shows them, for every plan</span>
      </p>
      <ul aria-label="Columns that are typed" className="min-h-0 flex-1 overflow-y-auto">
        {columns.map((column, at) =>
          row(
            column,
            HEADINGS[column],
            true,
            () => keepLayout({ ...layout, columns: columns.filter((one) => one !== column) }),
            column === 'slot' || column === 'name',
            column === 'slot' ? null : (by) => keepLayout({ ...layout, columns: moved(columns, at, by) }),
            [at > 1, at < columns.length - 1],
          ),
        )}
        {hidden.map((column) =>
          row(
            column,
            HEADINGS[column],
            false,
            () => keepLayout({ ...layout, columns: [...columns, column] }),
            false,
            null,
            [false, false],
          ),
        )}
        {extras.map((extra, at) =>
          row(
            extra,
            EXTRA_NAMES[extra],
            true,
            () => keepLayout({ ...layout, extras: extras.filter((one) => one !== extra) }),
            false,
            (by) => keepLayout({ ...layout, extras: moved(extras, at, by) }),
            [at > 0, at < extras.length - 1],
          ),
        )}
        {more.map((extra) =>
          row(
            extra,
            EXTRA_NAMES[extra],
            false,
            () => keepLayout({ ...layout, extras: [...extras, extra] }),
            false,
            null,
            [false, false],
          ),
        )}
      </ul>
      <div className="flex shrink-0 gap-2 border-t border-line p-2">
        <Button size="small" className="flex-1" onClick={() => keepLayout(USUAL)}>
          The usual ones
        </Button>
        <Button size="small" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
