'use client';

import clsx from 'clsx';
import { useEffect, useState } from 'react';
import { face, onAir, type FittedChannel, type Model } from '@/core/models';
import type { Region } from '@/core/radio';

/** What the display of this model reads for a channel, drawn as the top of the radio with its key at the side. */
export function RadioFace({
  channel,
  model,
  region,
  nothing = 'This channel is left out of the fit.',
}: {
  channel: FittedChannel | null;
  model: Model;
  region: Region;
  /** What is said where there is no channel to show. */
  nothing?: string;
}) {
  const [keyDown, setKeyDown] = useState(false);
  useEffect(() => {
    if (!keyDown) return;
    const letGo = () => setKeyDown(false);
    window.addEventListener('pointerup', letGo);
    window.addEventListener('blur', letGo);
    return () => {
      window.removeEventListener('pointerup', letGo);
      window.removeEventListener('blur', letGo);
    };
  }, [keyDown]);
  const shown = channel && face(channel, model, keyDown, region);

  return (
    <section aria-label={`What the ${model.name} will show`} className="shrink-0">
      <div className="relative flex items-stretch pt-4">
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
        <button
          type="button"
          aria-pressed={keyDown}
          disabled={!channel}
          onPointerDown={() => setKeyDown(true)}
          onKeyDown={(event) =>
            (event.key === ' ' || event.key === 'Enter') && !event.repeat && setKeyDown(true)
          }
          onKeyUp={() => setKeyDown(false)}
          className={clsx(
            'my-3 grid w-7 shrink-0 place-items-center rounded-l-md border border-r-0 text-[12px] font-medium',
            keyDown
              ? 'border-transmit bg-transmit text-sheet'
              : 'border-line-strong bg-sheet text-transmit hover:bg-transmit-wash',
            'disabled:text-soft',
          )}
        >
          <span className="[writing-mode:vertical-rl]">Hold to send</span>
        </button>
        <div className="min-w-0 flex-1 rounded-lg border border-line-strong bg-sheet p-2">
          <div
            className={clsx(
              'mono h-[104px] rounded-sm border px-3 py-2 text-glass-ink shadow-inner',
              shown?.sending ? 'border-transmit' : 'border-line-strong',
            )}
            style={{ background: 'var(--glass)' }}
            role="status"
            aria-label="Display"
          >
            {shown ? (
              <>
                <div className="flex justify-between text-[12px]">
                  <span>{shown.slot}</span>
                  <span className={clsx(shown.sending && 'font-bold')}>{shown.marks.join(' ')}</span>
                </div>
                <div className="text-[31px] font-bold leading-[46px] tracking-[0.06em]">{shown.large}</div>
                <div className="flex justify-between text-[14px]">
                  <span>{shown.small}</span>
                  <span>{shown.shift}</span>
                </div>
              </>
            ) : (
              <p className="pt-6 text-center text-[12.5px]">Not in this radio</p>
            )}
          </div>
          <p className="flex justify-between gap-2 pt-1.5 text-[12px] text-soft">
            <span className="truncate">{channel ? onAir(channel) : nothing}</span>
          </p>
        </div>
      </div>
    </section>
  );
}
