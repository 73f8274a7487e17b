'use client';

import { useEffect, useMemo, useState } from 'react';
import type { HeardByChannel } from '@/core/heard';
import type { Channel, Plan } from '@/core/plan';
import type * as TableTools from '@/core/table';
import type { Extra } from '@/core/table';
import { distancePreference } from '../find/distance-preference';
import { tableTools } from './use-rows';

/** Distances in km or miles, as the person chose where stations are found. */
const unit = () =>
  distancePreference.read(
    new RegExp(`(?:^|; )${distancePreference.cookie}=([^;]*)`).exec(document.cookie)?.[1],
  );

/** What stands in the columns behind those that are typed, seen from home; null until what works it out has come. */
export function useExtras(
  { owner, talkgroups, receiveLists, scanLists }: Plan,
  heard: HeardByChannel,
  wanted: boolean,
) {
  const home = owner.locator ?? '';
  const [tools, setTools] = useState<typeof TableTools | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let here = true;
    void tableTools().then((found) => here && setTools(found));
    return () => void (here = false);
  }, [wanted]);
  return useMemo(() => {
    if (!tools) return null;
    const days = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
    const context = {
      ...{ home, unit: unit(), heard, lists: { talkgroups, receiveLists, scanLists } },
      day: (moment: string) => days.format(new Date(moment)),
    };
    return (channel: Channel, extra: Extra) => tools.extraText(channel, extra, context);
  }, [tools, home, heard, talkgroups, receiveLists, scanLists]);
}
