'use client';

import clsx from 'clsx';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import { face, largeLineOf, onAir, type FittedChannel, type Model } from '@/core/models';
import type { Region } from '@/core/radio';
import { Corvane, Halden, Larkmoor, Oriel } from './radio-hands';

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
  talkgroup = '',
  position = null,
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
  /** The name of the talkgroup that the channel calls. */
  talkgroup?: string;
  /** The position of the knob, where the radio has one with a place for each channel. */
  position?: number | null;
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
    face(one, model, down, region, largeLineOf(model, one.list, settings), held, talkgroup);
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
      <span className="line-clamp-2">{channel ? onAir(channel, model, talkgroup) : nothing}</span>
      {turn}
    </p>
  );
  const parts = { shown, beside, pressKey, said, dark };
  return (
    <section aria-label={label} className="shrink-0">
      {model.face.hand === 'oriel' ? (
        <Oriel {...parts} />
      ) : model.face.hand === 'halden' ? (
        <Halden {...parts} />
      ) : model.face.hand === 'corvane' ? (
        <Corvane {...parts} position={position} positions={model.zones?.knob ?? 0} />
      ) : (
        <Larkmoor {...parts} mobile={beside !== null || model.lists.length > 1} />
      )}
    </section>
  );
}
