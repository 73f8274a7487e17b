'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { useRef, useState } from 'react';
import type { Model } from '@/core/models';
import type { Holding, SideBySide } from '@/core/organise';
import { formatFrequency } from '@/core/radio';
import { slotText, type PlanId } from '@/core/plan';
import { capital } from '@/core/text';
import { Button } from '@/ui';
import { NoChannels } from '../no-channels';

const ROW_HEIGHT = 28;

/** How a radio holds a channel, by shape and in words: a full mark as it is, a half one changed, an empty one left out. */
function HoldingMark({ how }: { how: Holding['how'] }) {
  return (
    <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden className="shrink-0">
      {how === 'left out' ? (
        <path d="M2.5 6.5h8" stroke="var(--stop)" strokeWidth="2" />
      ) : (
        <>
          <rect
            x="1.5"
            y="1.5"
            width="10"
            height="10"
            rx="2"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.3"
          />
          <rect
            x="1.5"
            y={how === 'whole' ? 1.5 : 6.5}
            width="10"
            height={how === 'whole' ? 10 : 5}
            rx={how === 'whole' ? 2 : 0}
            fill="var(--ink)"
          />
        </>
      )}
    </svg>
  );
}

const WORDS: Record<Holding['how'], string> = {
  whole: 'as it is',
  changed: 'changed',
  'left out': 'left out',
};

/** How much of what it would hold is in a unit already. */
const nowIn = ({ there, otherwise, missing }: NonNullable<SideBySide['columns'][number]['unit']>) =>
  otherwise + missing === 0
    ? 'all of it is in it now'
    : [
        there > 0 && `${there} in it now`,
        otherwise > 0 && `${otherwise} otherwise`,
        missing > 0 && `${missing} not yet`,
      ]
        .filter(Boolean)
        .join(', ');

/** Channels against radios: totals first, what became of each on demand. */
export function Matrix({
  columns,
  rows,
  own,
  gains,
  onMove,
  going,
  planId,
}: {
  columns: SideBySide['columns'];
  rows: SideBySide['rows'];
  /** The column of the plan's own radio; -1 where it is not shown. */
  own: number;
  gains: (column: number) => { gained: number; lost: number } | null;
  onMove: (model: Model) => void;
  going: Model | null;
  planId: PlanId;
}) {
  const view = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState<{ row: string; column: number } | null>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => view.current,
    estimateSize: () => ROW_HEIGHT,
    // More than the head is high, which scrolls with the rows.
    overscan: 14,
  });
  const template = `48px minmax(130px, 1.3fr) 86px repeat(${columns.length}, minmax(96px, 1fr))`;
  const chosen = open && rows.find(({ channel }) => channel.id === open.row);
  const cell = chosen?.cells[open!.column];
  return (
    <section
      aria-label="What each radio keeps"
      className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden rounded-md border border-line bg-sheet max-lg:h-[80vh] max-lg:flex-none"
    >
      <div
        ref={view}
        role="table"
        aria-label="Channels and radios"
        aria-rowcount={rows.length + 1}
        className="min-h-0 flex-1 overflow-auto"
      >
        <div role="rowgroup" className="sticky top-0 z-10 bg-sheet">
          <div
            role="row"
            aria-rowindex={1}
            className="grid shrink-0 items-stretch border-b border-line-strong text-[13px]"
            style={{ gridTemplateColumns: template }}
          >
            <span role="columnheader" className="col-span-3 self-end px-3 pb-2 text-soft">
              {rows.length} channels
            </span>
            {columns.map(({ key, model, unit, whole, changed, leftOut, besides }, at) => {
              const gain = gains(at);
              return (
                <div
                  role="columnheader"
                  key={key}
                  className={clsx(
                    'flex flex-col gap-0.5 border-l border-line px-2 py-2',
                    at === own && 'bg-wash-faint',
                  )}
                >
                  <span className="truncate font-semibold">{model.name}</span>
                  <span className={clsx('truncate text-[12px]', unit ? 'mono' : 'text-soft')}>
                    {unit ? unit.called : model.maker}
                  </span>
                  <span className="flex h-1.5 overflow-hidden rounded-sm bg-line" aria-hidden>
                    <span
                      className="bg-ink"
                      style={{ width: `${(100 * whole) / Math.max(1, rows.length)}%` }}
                    />
                    <span
                      className="bg-soft"
                      style={{ width: `${(100 * changed) / Math.max(1, rows.length)}%` }}
                    />
                  </span>
                  <span className="text-[12px] leading-snug text-soft tabular-nums">
                    {whole} as it is
                    <br />
                    {changed} changed
                    <br />
                    <span className={clsx(leftOut > 0 && 'font-semibold text-stop')}>{leftOut} left out</span>
                  </span>
                  <span className="min-h-[2.6em] text-[12px] leading-snug text-soft">
                    {unit
                      ? nowIn(unit)
                      : at === own
                        ? `this plan’s radio${model.unit ? `, as ${model.unit.called} is` : ''}`
                        : gain && (gain.gained > 0 || gain.lost > 0)
                          ? [gain.gained > 0 && `gains ${gain.gained}`, gain.lost > 0 && `loses ${gain.lost}`]
                              .filter(Boolean)
                              .join(', ')
                          : gain
                            ? 'neither gains nor loses'
                            : ''}
                  </span>
                  {besides.length > 0 && (
                    <span
                      className="truncate text-[11.5px] text-soft"
                      title={besides
                        .map(({ text, because, n }) => `${n > 1 ? `${n} times: ` : ''}${text}. ${because}.`)
                        .join('\n')}
                    >
                      {besides.reduce((n, one) => n + one.n, 0)} beside them
                    </span>
                  )}
                  {at !== own && !unit && (
                    <Button
                      size="small"
                      className="mt-auto w-full"
                      aria-label={`Make one for the ${model.name}`}
                      aria-expanded={going?.id === model.id}
                      onClick={() => onMove(model)}
                    >
                      Make one
                    </Button>
                  )}
                </div>
              );
            })}
          </div>
        </div>
        {rows.length === 0 && (
          <NoChannels planId={planId}>
            No channel yet. Here each one will stand against every radio: what it keeps, changes, leaves out.
          </NoChannels>
        )}
        <div role="rowgroup">
          <div className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map(({ index, start }) => {
              const { channel, cells } = rows[index]!;
              return (
                <div
                  key={channel.id}
                  role="row"
                  aria-rowindex={index + 2}
                  className="absolute inset-x-0 grid items-stretch border-b border-line text-[13.5px]"
                  style={{ gridTemplateColumns: template, top: start, height: ROW_HEIGHT }}
                >
                  <span role="cell" className="mono self-center pl-3 text-soft">
                    {slotText(channel.slot)}
                  </span>
                  <span role="rowheader" className="self-center truncate font-medium">
                    {channel.name || 'no name'}
                  </span>
                  <span role="cell" className="mono self-center pr-2 text-right text-receive">
                    {formatFrequency(channel.rx)}
                  </span>
                  {cells.map(({ how, words }, at) => {
                    const isOpen = open?.row === channel.id && open.column === at;
                    return (
                      <span
                        role="cell"
                        key={columns[at]!.key}
                        className={clsx('border-l border-line', at === own && 'bg-wash-faint')}
                      >
                        {words.length === 0 ? (
                          <span className="flex h-full items-center px-2">
                            <HoldingMark how={how} />
                            <span className="sr-only">{WORDS[how]}</span>
                          </span>
                        ) : (
                          <button
                            type="button"
                            aria-pressed={isOpen}
                            className={clsx(
                              'flex h-full w-full items-center gap-1.5 px-2 text-left text-[12px] hover:bg-sunk',
                              isOpen && 'shadow-[inset_0_0_0_2px_var(--ink)]',
                            )}
                            onClick={() => setOpen(isOpen ? null : { row: channel.id, column: at })}
                          >
                            <HoldingMark how={how} />
                            <span className="sr-only">{WORDS[how]}: </span>
                            <span
                              className={clsx('truncate', how === 'left out' ? 'text-stop' : 'text-soft')}
                            >
                              {[...new Set(words.map(({ what }) => what))].join(', ')}
                            </span>
                          </button>
                        )}
                      </span>
                    );
                  })}
                </div>
              );
            })}
          </div>
        </div>
      </div>
      <div
        role="status"
        className="min-h-[46px] shrink-0 border-t border-line-strong px-3 py-1.5 text-[13px]"
      >
        {cell && cell.words.length > 0 ? (
          <>
            <p className="font-semibold">
              “{chosen.channel.name}” on the {columns[open!.column]!.model.name}{' '}
              {columns[open!.column]!.unit?.called}
            </p>
            <ul>
              {cell.words.map(({ text, because, todo }) => (
                <li key={text + because}>
                  {text}. <span className="text-soft">{capital(because)}.</span> {todo}
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p className="flex flex-wrap gap-x-5 pt-1 text-soft">
            {(['whole', 'changed', 'left out'] as const).map((how) => (
              <span key={how} className="inline-flex items-center gap-1.5">
                <HoldingMark how={how} /> {WORDS[how]}
              </span>
            ))}
            <span>Press a cell for what became of it and why.</span>
          </p>
        )}
      </div>
    </section>
  );
}
