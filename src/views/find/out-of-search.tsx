'use client';

import { useMemo } from 'react';
import { callFile } from '@/api/call';
import { directoryApi } from '@/api/directories';
import { cutText } from '@/core/text';
import { lazily } from '@/ui';
import type { Outgoing } from '@/views/parts/out-menu';
import type { Search } from './use-search';

const OutMenu = lazily(() => import('@/views/parts/out-menu').then((module) => module.OutMenu));

/** Takes what a search has found, as it is shown, as a file. */
export function OutOfSearch({ search: { shown, query } }: { search: Search }) {
  const what = useMemo((): Outgoing[] => {
    const name = cutText(
      query?.kind === 'around'
        ? `Around ${query.place.name}`
        : query
          ? query.places.map((place) => place.name).join(' to ')
          : 'Stations',
      60,
    );
    const stations = shown.map(({ source, entry }) => ({ source, ref: entry.ref }));
    return [
      {
        key: 'shown',
        label: 'What is shown',
        take: (as) => callFile(directoryApi.exportStations, { body: { as, name, stations } }),
        losses: () => [],
      },
    ];
  }, [shown, query]);
  return (
    <OutMenu
      what={what}
      className="inline-flex items-center gap-0.5 rounded-md px-1.5 py-0.5 text-[13px] hover:bg-sunk"
    />
  );
}
