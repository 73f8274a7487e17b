import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { Face } from '@/core/models';

/** How each maker's radios look: one is told from another across a room. */

/** What a face is drawn of. */
export interface Parts {
  shown: Face | null;
  beside: Face | null;
  pressKey: (className: string, label: ReactNode) => ReactNode;
  said: ReactNode;
  dark: string;
}

/** The size at which all of a text fits on its line of the display, `px` at most: a letter of its hand is 0.6 em wide. */
const fitting = (text: string, px: number) => ({
  fontSize: `min(${px}px, ${(100 / (0.625 * Math.max(1, text.length))).toFixed(2)}cqw)`,
});

const glass = (sending: boolean | undefined) =>
  clsx(
    'mono @container border text-glass-ink shadow-inner',
    sending ? 'border-transmit' : 'border-line-strong',
  );

/** Larkmoor: a square case, the display heavy and upright, the key at the side; mobiles have a line a side and no aerial. */
export function Larkmoor({ shown, beside, pressKey, said, dark, mobile }: Parts & { mobile: boolean }) {
  return (
    <div className={clsx('relative flex items-stretch', !mobile && 'pt-4')}>
      {!mobile && (
        <svg
          aria-hidden
          className="absolute right-6 top-0 h-4 w-36 text-line-strong"
          viewBox="0 0 144 16"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
        >
          <path d="M6 16V6h22v10M12 6V0m10 6V0M84 16V4a3 3 0 0 1 3-3h38a3 3 0 0 1 3 3v12M95 1v15M106 1v15M117 1v15" />
        </svg>
      )}
      {pressKey(
        'my-3 w-7 rounded-l-md border-r-0',
        <span className="[writing-mode:vertical-rl]">Hold to send</span>,
      )}
      <div className="min-w-0 flex-1 rounded-lg border border-line-strong bg-sheet p-2">
        <div
          className={clsx('h-[104px] rounded-sm px-3 py-2', glass(shown?.sending))}
          style={{ background: 'var(--glass)' }}
          role="status"
          aria-label="Display"
        >
          {shown ? (
            <>
              <div className="flex justify-between text-[12px]">
                <span>
                  {shown.side && `${shown.side.toUpperCase()} `}
                  {shown.slot}
                </span>
                <span className={clsx(shown.sending && 'font-bold')}>{shown.marks.join(' ')}</span>
              </div>
              <div className="truncate text-[31px] font-bold leading-[46px] tracking-[0.06em]">
                {shown.large}
              </div>
              <div className="flex justify-between text-[14px]">
                <span>{shown.small}</span>
                <span>{shown.shift}</span>
              </div>
            </>
          ) : (
            <p className="pt-6 text-center text-[12.5px]">{dark}</p>
          )}
        </div>
        {beside && (
          <div
            className={clsx(
              'mt-1 flex items-baseline justify-between gap-2 rounded-sm px-3 py-1',
              glass(false),
            )}
            style={{ background: 'var(--glass)' }}
            aria-label="Other side"
            role="group"
          >
            <span className="text-[11px]">{beside.side.toUpperCase()}</span>
            <span className="truncate text-[15px] font-bold">{beside.large}</span>
            <span className="text-[11px]">{beside.small}</span>
          </div>
        )}
        {said}
      </div>
    </div>
  );
}

/** Oriel: a long low front with round corners, a dial at its side, figures thin and wide; the key lies below. */
export function Oriel({ shown, pressKey, said, dark }: Parts) {
  return (
    <div className="rounded-[22px] border-2 border-line-strong bg-sheet p-2.5">
      <div className="flex items-center gap-2.5">
        <div
          className={clsx('h-[104px] min-w-0 flex-1 rounded-[14px] px-3.5 py-2', glass(shown?.sending))}
          style={{ background: 'var(--glass)' }}
          role="status"
          aria-label="Display"
        >
          {shown ? (
            <>
              <div className="flex justify-between text-[12px]">
                <span>{shown.small}</span>
                <span>{shown.mode}</span>
              </div>
              <div
                className="truncate border-y border-current/25 leading-[42px] font-normal tracking-[0.02em]"
                style={fitting(shown.large, 26)}
              >
                {shown.large}
              </div>
              <div className="flex justify-between gap-2 pt-1 text-[11.5px]">
                <span>{shown.slot}</span>
                <span className={clsx('truncate', shown.sending && 'font-bold')}>
                  {[...shown.marks, shown.shift].filter(Boolean).join('  ')}
                </span>
              </div>
            </>
          ) : (
            <p className="pt-7 text-center text-[12.5px]">{dark}</p>
          )}
        </div>
        <svg
          aria-hidden
          width="46"
          height="46"
          viewBox="0 0 46 46"
          className="shrink-0 text-line-strong"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
        >
          <circle cx="23" cy="23" r="21" />
          <circle cx="23" cy="23" r="15" />
          <circle cx="23" cy="13" r="3" fill="currentColor" stroke="none" />
        </svg>
      </div>
      <div className="mt-2">{pressKey('h-6 w-full rounded-full', 'Hold to send')}</div>
      <div className="px-1">{said}</div>
    </div>
  );
}

/** Halden & Roe: a tall slab with cut corners, three lines of one height, keys as a row of dots; the key is a bar at its right. */
export function Halden({ shown, pressKey, said, dark }: Parts) {
  return (
    <div className="flex items-stretch">
      <div
        className="min-w-0 flex-1 border border-line-strong bg-sheet p-2.5"
        style={{ borderRadius: '4px 18px 4px 18px' }}
      >
        <div
          className={clsx('flex h-[112px] flex-col rounded-[3px]', glass(shown?.sending))}
          style={{ background: 'var(--glass)' }}
          role="status"
          aria-label="Display"
        >
          {shown ? (
            <>
              <div className="flex justify-between gap-2 border-b border-current/25 px-2.5 py-0.5 text-[11.5px]">
                <span>{shown.slot}</span>
                <span className={clsx('truncate', shown.sending && 'font-bold')}>
                  {shown.marks.join(' · ')}
                </span>
              </div>
              <div className="@container flex min-h-0 flex-1 flex-col justify-center gap-0.5 px-2.5 leading-[1.25]">
                <span className="truncate font-bold" style={fitting(shown.large, 21)}>
                  {shown.large}
                </span>
                <span className="truncate" style={fitting(shown.called || shown.mode, 14.5)}>
                  {shown.called || shown.mode}
                </span>
              </div>
              <div className="flex justify-between gap-2 border-t border-current/25 px-2.5 py-0.5 text-[11.5px]">
                <span className="truncate">{shown.small}</span>
                <span>{shown.shift}</span>
              </div>
            </>
          ) : (
            <p className="pt-9 text-center text-[12.5px]">{dark}</p>
          )}
        </div>
        <svg
          aria-hidden
          className="mt-2 h-2.5 w-full text-line-strong"
          viewBox="0 0 240 10"
          fill="currentColor"
        >
          {Array.from({ length: 12 }, (_, n) => (
            <rect
              key={n}
              x={4 + n * 20}
              y={1}
              width={12}
              height={8}
              rx={3}
              opacity={n % 4 === 3 ? 1 : 0.55}
            />
          ))}
        </svg>
        {said}
      </div>
      {pressKey(
        'my-4 w-7 rounded-r-md border-l-0',
        <span className="[writing-mode:vertical-rl]">Hold to send</span>,
      )}
    </div>
  );
}

/** Corvane: a plain upright case for work, its knob with numbered positions on top, the name large in a small window, a broad key below. */
export function Corvane({
  shown,
  pressKey,
  said,
  dark,
  position,
  positions,
}: Parts & { position: number | null; positions: number }) {
  return (
    <div className="rounded-md border-2 border-line-strong bg-sheet p-2.5 pt-2">
      <div className="flex items-center gap-3">
        {positions > 0 && <KnobDrawn position={position} positions={positions} />}
        <div
          className={clsx(
            'flex h-[92px] min-w-0 flex-1 flex-col justify-between px-2.5 py-1.5',
            glass(shown?.sending),
          )}
          style={{ background: 'var(--glass)' }}
          role="status"
          aria-label="Display"
        >
          {shown ? (
            <>
              <div className="flex justify-between gap-2 text-[11px] uppercase">
                <span className={clsx('truncate', shown.sending && 'font-bold')}>
                  {shown.marks.join(' ')}
                </span>
                <span className="shrink-0">{[shown.shift, shown.slot].filter(Boolean).join(' ')}</span>
              </div>
              <div className="truncate leading-[25px] font-bold" style={fitting(shown.large, 20)}>
                {shown.large}
              </div>
              <div className="truncate" style={fitting(shown.called || shown.small, 11)}>
                {shown.called || shown.small}
              </div>
            </>
          ) : (
            <p className="pt-7 text-center text-[12.5px]">{dark}</p>
          )}
        </div>
      </div>
      <div className="mt-2">{pressKey('h-6 w-full rounded-sm', 'Hold to send')}</div>
      {said}
    </div>
  );
}

/** A knob from above, with a tick a position and its hand on the one that it is turned to. */
function KnobDrawn({ position, positions }: { position: number | null; positions: number }) {
  const angle = (n: number) => (-150 + ((n - 1) * 300) / (positions - 1)) * (Math.PI / 180);
  const at = (n: number, r: number) => [34 + r * Math.sin(angle(n)), 34 - r * Math.cos(angle(n))] as const;
  const hand = at(position ?? 1, 19);
  return (
    <svg
      width="68"
      height="68"
      viewBox="0 0 68 68"
      className="shrink-0 text-line-strong"
      fill="none"
      stroke="currentColor"
      role="img"
      aria-label={
        position === null ? 'The knob stands at no position of this zone' : `The knob stands at ${position}`
      }
    >
      <circle cx="34" cy="34" r="23" strokeWidth="1.5" />
      {Array.from({ length: positions }, (_, n) => {
        const [x1, y1] = at(n + 1, 26);
        const [x2, y2] = at(n + 1, n + 1 === position ? 33 : 30);
        return (
          <line
            key={n}
            {...{ x1, y1, x2, y2 }}
            className={n + 1 === position ? 'text-receive' : undefined}
            stroke="currentColor"
            strokeWidth={n + 1 === position ? 2.5 : 1.5}
          />
        );
      })}
      {position !== null && (
        <line
          x1="34"
          y1="34"
          x2={hand[0]}
          y2={hand[1]}
          className="text-receive"
          stroke="currentColor"
          strokeWidth="2.5"
        />
      )}
      <text x="34" y="39" textAnchor="middle" className="mono fill-ink text-[13px] font-bold" stroke="none">
        {position ?? '–'}
      </text>
    </svg>
  );
}
