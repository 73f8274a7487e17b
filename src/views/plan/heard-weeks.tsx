'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, sentenceOf } from '@/api/call';
import { historyApi } from '@/api/history';
import type { Heard } from '@/core/heard';
import { slotText } from '@/core/plan';
import { LongList, Moment, Trouble, type ListRow } from '@/ui';
import { useDesk } from './desk';
import { item } from './side-list';

/** Weeks that are drawn, the one that ends now last. */
const WEEKS = 12;
const [BAR, GAP, HIGH] = [7, 2, 18];

/** Bars for the weeks, all rows to one scale. A week in which nothing was heard has a line at its foot. */
function Bars({ weeks, most }: { weeks: readonly number[]; most: number }) {
  return (
    <svg width={WEEKS * (BAR + GAP)} height={HIGH} aria-hidden className="shrink-0 text-receive">
      {weeks.map((times, week) => {
        // By the root: one call among hundreds is seen all the same.
        const high = times === 0 ? 1 : Math.max(3, Math.sqrt(times / most) * HIGH);
        return (
          <rect
            key={week}
            x={week * (BAR + GAP)}
            y={HIGH - high}
            width={BAR}
            height={high}
            fill="currentColor"
            opacity={times === 0 ? 0.35 : 1}
          />
        );
      })}
    </svg>
  );
}

const inWords = ({ times, weeks }: Heard): string => {
  const lately = weeks.reduce((sum, one) => sum + one, 0);
  return `${times} ${times === 1 ? 'time' : 'times'} in all, ${lately} in the last ${WEEKS} weeks`;
};

/** When each channel was heard, week by week, the most heard first. */
export function HeardWeeks() {
  const { hand, table } = useDesk();
  const { plan, heard: known } = hand;
  const { data, error } = useQuery({
    queryKey: ['heard weeks', plan.id, known],
    queryFn: () => call(historyApi.heard, { params: { id: plan.id }, query: { weeks: WEEKS } }),
    retry: false,
  });
  const rows = useMemo((): ListRow[] => {
    const heard = data?.heard ?? [];
    const most = Math.max(1, ...heard.flatMap(({ weeks }) => weeks));
    const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
    return heard
      .flatMap((one) => {
        const channel = byId.get(one.channel);
        return channel ? [{ one, channel }] : [];
      })
      .sort((a, b) => b.one.times - a.one.times || a.channel.slot - b.channel.slot)
      .map(({ one, channel }) => ({
        key: one.channel,
        className: item,
        show: () => (
          <button
            type="button"
            className="flex w-full items-center gap-2 text-left"
            title={inWords(one)}
            onClick={() => table.selectLater(one.channel)}
          >
            <span className="min-w-0 flex-1">
              <span className="block truncate">
                <span className="mono text-soft">{slotText(channel.slot)}</span> {channel.name || 'no name'}
              </span>
              <span className="block truncate text-[12px] text-soft">
                <span className="mono">{one.times}</span> times, <Moment at={one.last} />
              </span>
            </span>
            <span className="sr-only">{inWords(one)}</span>
            <Bars weeks={one.weeks} most={most} />
          </button>
        ),
      }));
  }, [data, plan.channels, table]);
  if (error) return <Trouble className="m-3">{sentenceOf(error)}</Trouble>;
  if (!data) return <p className="flex-1 p-3 text-soft">Being counted…</p>;
  if (rows.length === 0)
    return (
      <p className="flex-1 p-3 text-soft">
        Nothing was heard yet. Press H on a channel when somebody calls there, or take a log.
      </p>
    );
  return (
    <>
      <p className="flex justify-between border-b border-line px-3 py-1 text-[12px] text-soft">
        <span>
          {rows.length} of {plan.channels.length} channels were heard
        </span>
        <span>{WEEKS} weeks to now</span>
      </p>
      <LongList label="Heard by channel and week" rows={rows} rowHeight={48} />
    </>
  );
}
