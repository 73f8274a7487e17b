'use client';

import clsx from 'clsx';
import { useRef } from 'react';
import { isListenOnly, type Candidate } from '@/core/directory';
import {
  formatAccess,
  formatDistance,
  formatFrequency,
  formatShift,
  horizonKm,
  type DistanceUnit,
} from '@/core/radio';

/** Height of a handheld's aerial in a hand, m: what the estimate of reach is made with. */
const HAND_HEIGHT = 2;

interface Props {
  candidates: readonly Candidate[];
  chosen: ReadonlySet<string>;
  onChoose: (refs: string[], on: boolean) => void;
  lit: string | null;
  onLit: (ref: string | null) => void;
  unit: DistanceUnit;
}

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
export function Results({ candidates, chosen, onChoose, lit, onLit, unit }: Props) {
  const last = useRef<number | null>(null);
  const body = useRef<HTMLTableSectionElement>(null);

  const choose = (index: number, range: boolean) => {
    const candidate = candidates[index]!;
    if (candidate.unfit !== null) return;
    const on = !chosen.has(candidate.entry.ref);
    const from = range && last.current !== null ? Math.min(last.current, index) : index;
    const to = range && last.current !== null ? Math.max(last.current, index) : index;
    last.current = index;
    onChoose(
      candidates
        .slice(from, to + 1)
        .filter(({ unfit }) => unfit === null)
        .map(({ entry }) => entry.ref),
      on,
    );
  };
  const onKeyDown = (event: React.KeyboardEvent, index: number) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    body.current?.querySelectorAll<HTMLInputElement>('input')[index + by]?.focus();
    if (event.shiftKey && candidates[index + by]) choose(index + by, true);
  };
  const head =
    'sticky top-0 z-10 border-b border-line-strong bg-sheet px-2 py-1.5 text-left text-[12.5px] font-normal text-soft';
  const cell = 'border-b border-line px-2 py-[5px] whitespace-nowrap';
  return (
    <table className="w-full border-separate border-spacing-0 text-[13.5px]">
      <caption className="sr-only">Stations, nearest first</caption>
      <thead>
        <tr>
          {['', 'Distance', 'Bearing', 'Station', 'Receive', 'Transmit', 'Access', 'Mode', ''].map(
            (title, index) => (
              <th key={index} scope="col" className={clsx(head, index === 1 && 'text-right')}>
                {title || <span className="sr-only">{index === 0 ? 'Chosen' : 'Remarks'}</span>}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody ref={body}>
        {candidates.map((candidate, index) => {
          const { entry, unfit, present, distance } = candidate;
          const on = chosen.has(entry.ref);
          const far = distance > horizonKm(entry.height, HAND_HEIGHT);
          return (
            <tr
              key={entry.ref}
              onClick={(event) =>
                !(event.target instanceof HTMLInputElement) && choose(index, event.shiftKey)
              }
              onMouseEnter={() => onLit(entry.ref)}
              onMouseLeave={() => onLit(null)}
              className={clsx(on ? 'bg-wash' : lit === entry.ref && 'bg-sunk', unfit !== null && 'text-soft')}
            >
              <td className={cell}>
                <input
                  type="checkbox"
                  aria-label={`${entry.site}, ${formatFrequency(entry.output)}`}
                  checked={on}
                  disabled={unfit !== null}
                  onChange={(event) => choose(index, (event.nativeEvent as MouseEvent).shiftKey)}
                  onKeyDown={(event) => onKeyDown(event, index)}
                  className="accent-ink"
                />
              </td>
              <td className={clsx(cell, 'mono text-right')}>{formatDistance(distance, unit)}</td>
              <td className={cell}>
                <Bearing degrees={candidate.bearing} wind={candidate.wind} />
              </td>
              <td className={clsx(cell, 'max-w-[190px]')}>
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
                  <span className={clsx(unfit === null && 'text-transmit')}>
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
              <td className={clsx(cell, 'text-[12.5px] text-soft')}>
                {unfit ??
                  (present
                    ? present.near
                      ? `same pair as slot ${present.slot}`
                      : `in slot ${present.slot}`
                    : !entry.onAir
                      ? 'off air'
                      : far
                        ? 'beyond the horizon'
                        : '')}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
