'use client';

import { parseLocator } from '@/core/radio';
import { Button } from '@/ui';
import type { Search } from './use-search';

/** Towns that are offered before anything is typed. */
const TOWNS = ['Ketterby', 'Norrast', 'Hollin Bay', 'Perrin Cross', 'Stennick', 'Tamsin Quay'];

/** What can be done first, before anything is searched. */
export function Beginning({ search, home, hasPlan }: { search: Search; home: string; hasPlan: boolean }) {
  const at = home === '' ? null : parseLocator(home);
  const known = search.answer?.candidates.length ?? 0;
  return (
    <section
      aria-label="How to begin"
      className="flex min-h-0 flex-col gap-3 overflow-y-auto rounded-md border border-line bg-sheet p-3 text-[13px]"
    >
      <p>
        <b className="font-semibold">
          {search.busy ? 'The directories are asked…' : `${search.shown.length} stations`}
        </b>{' '}
        {!search.busy && known > search.shown.length && (
          <span className="text-soft">that this radio can use, of {known} in the Isles</span>
        )}
      </p>
      <p className="text-soft">
        {search.way === 'around'
          ? 'Press the map to search around a place, or hold Shift and draw the circle. The wheel zooms.'
          : 'Press the map for each place of the route, in order; drag one to move it. The wheel zooms.'}
      </p>
      <div className="flex flex-col gap-1.5">
        {search.way === 'around' && at?.ok && (
          <Button onClick={() => search.take({ kind: 'around', place: { ...at.value, name: home }, km: 40 })}>
            Around my station, {home}
          </Button>
        )}
        {search.way === 'around' && (
          <div className="flex flex-wrap gap-1.5">
            {TOWNS.map((name) => (
              <Button key={name} size="small" onClick={() => void search.searchNear(name)}>
                {name}
              </Button>
            ))}
          </div>
        )}
      </div>
      {!hasPlan && <p className="text-soft">Make a plan first: what is found is placed into it.</p>}
    </section>
  );
}
