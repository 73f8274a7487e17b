'use client';

import clsx from 'clsx';
import { useVirtualizer, defaultRangeExtractor } from '@tanstack/react-virtual';
import { Fragment, useRef, useState, type ReactNode } from 'react';
import { flushSync } from 'react-dom';
import { isListenOnly, stationKey, type Candidate, type StationOrder } from '@/core/directory';
import {
  formatAccess,
  formatDistance,
  formatFrequency,
  formatShift,
  horizonKm,
  type DistanceUnit,
} from '@/core/radio';
import { Tick } from '@/ui';

/** Height of a handheld's aerial in a hand, m: what the estimate of reach is made with. */
const HAND_HEIGHT = 2;

interface Props {
  candidates: readonly Candidate[];
  chosen: ReadonlySet<string>;
  onChoose: (refs: string[], on: boolean) => void;
  lit: string | null;
  onLit: (ref: string | null) => void;
  unit: DistanceUnit;
  /** Along a route: what has been travelled is shown, and the days on which a station is wanted. */
  along: boolean;
  dayOf: (candidate: Candidate) => readonly number[];
  order: { by: StationOrder; down: boolean } | null;
  onOrder: (order: { by: StationOrder; down: boolean } | null) => void;
  /** Names of the directories, by their ids. */
  nameOf: (source: string) => string;
  /** What stands below the rows. */
  children?: ReactNode;
}

const HEADS: readonly { title: string; by: StationOrder | null }[] = [
  { title: '', by: null },
  { title: 'Distance', by: 'distance' },
  { title: 'Bearing', by: 'bearing' },
  { title: 'Station', by: 'station' },
  { title: 'Receive', by: 'receive' },
  { title: 'Transmit', by: null },
  { title: 'Access', by: 'access' },
  { title: 'Mode', by: 'mode' },
  { title: '', by: null },
];

/** Of a row and of the headings, px; the columns, the station having what is left. */
const ROW_HEIGHT = 31;
const WIDTHS = [30, 72, 74, undefined, 82, 116, 106, 48, 104];

/** What stands for rows that are not drawn. */
const Gap = ({ height }: { height: number }) => (
  <tr aria-hidden style={{ height }}>
    <td colSpan={WIDTHS.length} />
  </tr>
);

function Bearing({ degrees, wind }: { degrees: number; wind: string }) {
  return (
    <span className="inline-flex items-center gap-1">
      <svg
        width="12"
        height="12"
        viewBox="0 0 12 12"
        aria-hidden
        style={{ transform: `rotate(${degrees}deg)` }}
      >
        <path d="M6 0.5 9 9 6 7.2 3 9z" fill="currentColor" />
      </svg>
      {wind}
    </span>
  );
}

/** What the register has, nearest first. A row is chosen with its box, the space bar, or a click anywhere; Shift chooses all between. */
export function Results({
  candidates,
  chosen,
  onChoose,
  lit,
  onLit,
  unit,
  along,
  dayOf,
  order,
  onOrder,
  nameOf,
  children,
}: Props) {
  const last = useRef<number | null>(null);
  const pane = useRef<HTMLDivElement>(null);
  /** The row that has the focus: it stays drawn wherever the list is scrolled to, so that the focus is not lost. */
  const [focused, setFocused] = useState<number | null>(null);
  const virtual = useVirtualizer({
    count: candidates.length,
    getScrollElement: () => pane.current,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (index) => stationKey(candidates[index]!),
    overscan: 12,
    // The rows begin below the headings, which lie over what is scrolled under them.
    scrollMargin: ROW_HEIGHT,
    scrollPaddingStart: ROW_HEIGHT,
    initialRect: { width: 900, height: 600 },
    rangeExtractor: (range) => {
      const shown = defaultRangeExtractor(range);
      if (focused === null || focused >= candidates.length || shown.includes(focused)) return shown;
      return [...shown, focused].sort((a, b) => a - b);
    },
  });

  const choose = (index: number, range: boolean) => {
    const candidate = candidates[index]!;
    if (candidate.unfit !== null) return;
    const on = !chosen.has(stationKey(candidate));
    const from = range && last.current !== null ? Math.min(last.current, index) : index;
    const to = range && last.current !== null ? Math.max(last.current, index) : index;
    last.current = index;
    onChoose(
      candidates
        .slice(from, to + 1)
        .filter(({ unfit }) => unfit === null)
        .map(stationKey),
      on,
    );
  };
  const onKeyDown = (event: React.KeyboardEvent, index: number) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    if (!candidates[index + by]) return;
    virtual.scrollToIndex(index + by);
    // Drawn at once, wherever it was: a key that comes before the next frame goes on from there.
    flushSync(() => setFocused(index + by));
    pane.current?.querySelector<HTMLElement>(`[data-row="${index + by}"] [role=checkbox]`)?.focus();
    if (event.shiftKey) choose(index + by, true);
  };
  const head =
    'sticky top-0 z-10 border-b border-line-strong bg-sheet px-1.5 py-1.5 text-left text-[12.5px] font-normal text-soft';
  const cell = 'h-[31px] truncate border-b border-line px-1.5';
  const shown = virtual.getVirtualItems();
  return (
    <div ref={pane} className="min-h-0 flex-1 overflow-auto">
      <table
        aria-rowcount={candidates.length + 1}
        className="w-full min-w-[760px] table-fixed border-separate border-spacing-0 text-[13.5px]"
      >
        <colgroup>
          {WIDTHS.map((width, index) => (
            <col key={index} style={{ width: index === 2 && along ? 94 : width }} />
          ))}
        </colgroup>
        <caption className="sr-only">Stations, {along ? 'in the order of travel' : 'nearest first'}</caption>
        <thead>
          <tr aria-rowindex={1}>
            {HEADS.map(({ title, by }, index) => {
              const shownTitle = index === 2 && along ? 'On the way' : title;
              const orderBy = index === 2 && along ? 'along' : by;
              const mine = order?.by === orderBy ? order : null;
              return (
                <th
                  key={index}
                  scope="col"
                  aria-sort={mine ? (mine.down ? 'descending' : 'ascending') : undefined}
                  className={clsx(head, 'whitespace-nowrap', index === 1 && 'text-right')}
                >
                  {orderBy ? (
                    <button
                      type="button"
                      title={`Order by ${shownTitle.toLowerCase()}`}
                      className={clsx('hover:text-ink', mine && 'font-medium text-ink')}
                      onClick={() =>
                        onOrder(
                          mine === null
                            ? { by: orderBy, down: false }
                            : mine.down
                              ? null
                              : { by: orderBy, down: true },
                        )
                      }
                    >
                      {shownTitle}
                      {mine && <span aria-hidden>{mine.down ? ' ↓' : ' ↑'}</span>}
                    </button>
                  ) : (
                    shownTitle || <span className="sr-only">{index === 0 ? 'Chosen' : 'Remarks'}</span>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {shown.map(({ index, start }, place) => {
            const candidate = candidates[index]!;
            const { entry, unfit, present, distance } = candidate;
            const key = stationKey(candidate);
            const days = dayOf(candidate);
            const [other] = candidate.also;
            const gap = start - (place === 0 ? ROW_HEIGHT : shown[place - 1]!.end);
            const on = chosen.has(key);
            // Of whose aerial nobody says how high it is, nobody can say how far it reaches.
            const far = entry.height > 0 && distance > horizonKm(entry.height, HAND_HEIGHT);
            return (
              <Fragment key={key}>
                {gap > 0 && <Gap height={gap} />}
                <tr
                  data-row={index}
                  aria-rowindex={index + 2}
                  onClick={(event) => choose(index, event.shiftKey)}
                  onMouseEnter={() => onLit(key)}
                  onMouseLeave={() => onLit(null)}
                  className={clsx(on ? 'bg-wash' : lit === key && 'bg-sunk', unfit !== null && 'text-soft')}
                >
                  <td className={cell}>
                    <Tick
                      aria-label={`${entry.site}, ${formatFrequency(entry.output)}`}
                      checked={on}
                      disabled={unfit !== null}
                      onFocus={() => setFocused(index)}
                      onBlur={() => setFocused(null)}
                      onKeyDown={(event) => onKeyDown(event, index)}
                    />
                  </td>
                  <td className={clsx(cell, 'mono text-right')}>{formatDistance(distance, unit)}</td>
                  <td className={cell}>
                    {along && candidate.along !== null ? (
                      <span className="mono">
                        {formatDistance(candidate.along, unit)}
                        {days.length > 0 && (
                          <span
                            className="pl-1 font-sans text-[11.5px] text-soft"
                            title={`Wanted on day ${days.map((day) => day + 1).join(' and ')}`}
                          >
                            d{days.map((day) => day + 1).join('+')}
                          </span>
                        )}
                      </span>
                    ) : (
                      <Bearing degrees={candidate.bearing} wind={candidate.wind} />
                    )}
                  </td>
                  <td className={cell}>
                    <span className="block truncate">
                      <span className="font-medium">{entry.site}</span>{' '}
                      <span className="mono text-[12px] text-soft">{entry.call || entry.service}</span>
                    </span>
                  </td>
                  <td className={clsx(cell, 'mono', unfit === null && 'text-receive')}>
                    {formatFrequency(entry.output)}
                  </td>
                  <td className={clsx(cell, 'mono')}>
                    {isListenOnly(entry) || entry.input === null ? (
                      <span className="font-sans text-[12.5px] text-soft">listen only</span>
                    ) : entry.input === entry.output ? (
                      <span className="font-sans text-soft">same</span>
                    ) : (
                      <span className={clsx(unfit === null && 'text-transmit', on && 'on-wash')}>
                        {formatFrequency(entry.input)}{' '}
                        <span className="text-[12px] text-soft">
                          {formatShift(entry.input - entry.output).replace('-', '−')}
                        </span>
                      </span>
                    )}
                  </td>
                  <td className={clsx(cell, 'mono')}>
                    {formatAccess(entry.access) || <span className="font-sans text-soft">open</span>}
                  </td>
                  <td className={cell}>{entry.mode}</td>
                  <td
                    className={clsx(cell, 'text-[12.5px] text-soft')}
                    title={
                      candidate.also
                        .map((one) => `${nameOf(one.source)}: ${one.differs.join(', ') || 'says the same'}`)
                        .join('; ') || undefined
                    }
                  >
                    {unfit ??
                      (present
                        ? present.near
                          ? `pair of slot ${present.slot}`
                          : `in slot ${present.slot}`
                        : !entry.onAir
                          ? 'off air'
                          : entry.encrypted
                            ? 'encrypted'
                            : other
                              ? `${nameOf(other.source)}: ${other.differs.join(', ') || 'the same'}`
                              : far && !along
                                ? 'beyond the horizon'
                                : '')}
                  </td>
                </tr>
              </Fragment>
            );
          })}
          <Gap height={virtual.getTotalSize() + ROW_HEIGHT - (shown.at(-1)?.end ?? ROW_HEIGHT)} />
        </tbody>
      </table>
      {children}
    </div>
  );
}
