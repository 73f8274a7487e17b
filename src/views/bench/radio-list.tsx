import clsx from 'clsx';
import type { Radio } from '@/core/bench';
import { hasCard } from './has-card';
import type { BenchInHand } from './use-bench';

/** Every radio that has been here, those that are here first. */
export function RadioList({
  radios,
  chosen,
  liveOf,
  onChoose,
}: {
  radios: Radio[];
  liveOf: BenchInHand['liveOf'];
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  return (
    <ul aria-label="Radios" className="flex flex-col gap-1.5">
      {radios.map((radio) => (
        <li key={radio.id}>
          <button
            type="button"
            aria-pressed={radio.id === chosen}
            onClick={() => onChoose(radio.id)}
            className={clsx(
              'w-full rounded-md border px-3 py-2 text-left',
              radio.id === chosen ? 'border-ink bg-sheet' : 'border-line bg-transparent hover:bg-sheet',
            )}
          >
            <span className="flex justify-between gap-2">
              <b className="font-semibold">{radio.model}</b>
              <span className={clsx('whitespace-nowrap text-[13px]', radio.port ? 'text-ink' : 'text-soft')}>
                {liveOf(radio.id)?.state === 'live'
                  ? 'live'
                  : radio.port
                    ? hasCard(radio)
                      ? 'card is in'
                      : 'plugged in'
                    : 'away'}
              </span>
            </span>
            {radio.serial && <span className="mono text-[13px] text-soft">{radio.serial}</span>}
            {radio.state === 'half written' && (
              <span className="block text-[13px] font-medium text-stop">
                {hasCard(radio) ? 'half a card' : 'half written'}
              </span>
            )}
          </button>
        </li>
      ))}
    </ul>
  );
}
