'use client';

import clsx from 'clsx';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { face, largeLineOf, onAir, type Face, type FittedChannel, type Model } from '@/core/models';
import type { Region } from '@/core/radio';

type Settings = Readonly<Record<string, unknown>>;
const NO_SETTINGS: Settings = {};

/** True while the key is held, by mouse or by keyboard; it is let go wherever the pointer is. `onKey` hears of both. */
function useKey(onKey: ((down: boolean) => void) | undefined) {
  const [keyDown, set] = useState(false);
  const setKeyDown = (down: boolean) => {
    set(down);
    if (down !== keyDown) onKey?.(down);
  };
  useEffect(() => {
    if (!keyDown) return;
    const letGo = () => {
      set(false);
      onKey?.(false);
    };
    window.addEventListener('pointerup', letGo);
    window.addEventListener('blur', letGo);
    return () => {
      window.removeEventListener('pointerup', letGo);
      window.removeEventListener('blur', letGo);
    };
  }, [keyDown, onKey]);
  return { keyDown, setKeyDown };
}

/** What the display of this model reads for a channel, receiving and with the key down, drawn in its maker's hand. */
export function RadioFace({
  channel,
  model,
  region,
  settings = NO_SETTINGS,
  other = null,
  bank = '',
  onTurn,
  besideTurn,
  nothing = 'This channel is left out of the fit.',
  dark = 'Not in this radio',
  label = `What the ${model.name} will show`,
  onKey,
}: {
  channel: FittedChannel | null;
  model: Model;
  region: Region;
  /** What the plan sets on the radio. */
  settings?: Settings;
  /** What the other side stands at, where the radio has two. */
  other?: FittedChannel | null;
  /** The bank that the side is turned to. */
  bank?: string;
  /** Turns to the next channel of the list, up or down, as the radio would. */
  onTurn?: (by: 1 | -1) => void;
  /** What stands beside the turn buttons. */
  besideTurn?: ReactNode;
  /** What is said where there is no channel to show. */
  nothing?: string;
  /** What the display shows then. */
  dark?: string;
  /** What it is to who hears the page, where several of a model are on it. */
  label?: string;
  /** Hears when the key is pressed and let go. */
  onKey?: (down: boolean) => void;
}) {
  const { keyDown, setKeyDown } = useKey(onKey);
  const read = (one: FittedChannel, down: boolean, held: string) =>
    face(one, model, down, region, largeLineOf(model, one.list, settings), held);
  const shown = channel && read(channel, keyDown, bank);
  const beside = other && read(other, false, '');

  const pressKey = (className: string, label: ReactNode) => (
    <button
      type="button"
      aria-pressed={keyDown}
      disabled={!channel}
      onPointerDown={() => setKeyDown(true)}
      onKeyDown={(event) => (event.key === ' ' || event.key === 'Enter') && !event.repeat && setKeyDown(true)}
      onKeyUp={() => setKeyDown(false)}
      className={clsx(
        'grid shrink-0 place-items-center border text-[12px] font-medium disabled:text-soft',
        keyDown
          ? 'border-transmit bg-transmit text-sheet'
          : 'border-line-strong bg-sheet text-transmit hover:bg-transmit-wash',
        className,
      )}
    >
      {label}
    </button>
  );
  const turn = onTurn && (
    <span className="flex shrink-0 gap-0.5">
      {([-1, 1] as const).map((by) => (
        <button
          key={by}
          type="button"
          aria-label={by < 0 ? 'Turn down' : 'Turn up'}
          className="grid size-6 place-items-center rounded border border-line-strong text-soft hover:text-ink"
          onClick={() => onTurn(by)}
        >
          {by < 0 ? <ChevronDown size={12} aria-hidden /> : <ChevronUp size={12} aria-hidden />}
        </button>
      ))}
      {besideTurn}
    </span>
  );
  const said = (
    <p className="flex min-h-[38px] items-center justify-between gap-2 pt-1.5 text-[12px] leading-[1.3] text-soft">
      <span className="line-clamp-2">{channel ? onAir(channel, model) : nothing}</span>
      {turn}
    </p>
  );
  const parts = { shown, beside, pressKey, said, dark };
  return (
    <section aria-label={label} className="shrink-0">
      {model.face.hand === 'oriel' ? (
        <Oriel {...parts} />
      ) : (
        <Larkmoor {...parts} mobile={beside !== null || model.lists.length > 1} />
      )}
    </section>
  );
}

interface Parts {
  shown: Face | null;
  beside: Face | null;
  pressKey: (className: string, label: ReactNode) => ReactNode;
  said: ReactNode;
  dark: string;
}

const glass = (sending: boolean | undefined) =>
  clsx('mono border text-glass-ink shadow-inner', sending ? 'border-transmit' : 'border-line-strong');

/** Larkmoor: a square case, the display heavy and upright, the key at the side; mobiles have a line a side and no aerial. */
function Larkmoor({ shown, beside, pressKey, said, dark, mobile }: Parts & { mobile: boolean }) {
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
function Oriel({ shown, pressKey, said, dark }: Parts) {
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
                className={clsx(
                  'truncate border-y border-current/25 leading-[42px] font-normal tracking-[0.02em]',
                  shown.large.length > 10 ? 'text-[20px]' : 'text-[26px]',
                )}
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
