'use client';

import { TickField } from '@/ui';
import type { EntriesAnswer } from '@/api/directories';
import { formatDistance } from '@/core/radio';
import { OutOfSearch } from './out-of-search';
import type { Search } from './use-search';

/** Why entries were dropped, most common reason first: `has no DMR`, 14 of them. */
function reasons(answer: EntriesAnswer): [string, number][] {
  const tally = new Map<string, number>();
  for (const { unfit } of answer.candidates) {
    if (unfit === null) continue;
    const reason = unfit
      .replace(/^(does not tune|cannot send on) .*/, '$1 there')
      .replace(/^has no (D?\d.*)$/, 'has no such tone or code')
      .replace(/^has no step.*/, 'has no such step');
    tally.set(reason, (tally.get(reason) ?? 0) + 1);
  }
  return [...tally].sort((a, b) => b[1] - a[1]);
}

/** How many there are, what was dropped and why, what is in the plan already; each can be shown. */
export function Tally({ search }: { search: Search }) {
  const { answer } = search;
  if (!answer) return null;
  const why = reasons(answer);
  const unfit = answer.candidates.filter((candidate) => candidate.unfit !== null).length;
  const present = answer.candidates.filter(
    (candidate) => candidate.unfit === null && candidate.present && !candidate.present.near,
  ).length;

  return (
    <div
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-3 py-2 text-[13px]"
      role="status"
    >
      <b className="font-semibold">
        {search.shown.length} {search.shown.length === 1 ? 'station' : 'stations'}
      </b>
      {unfit > 0 && (
        <TickField
          className="text-soft"
          title={why.map(([reason, n]) => `${n} ${reason}`).join(', ')}
          checked={search.showUnfit}
          onChange={search.setShowUnfit}
        >
          {unfit} dropped, since this radio{' '}
          {why
            .slice(0, 2)
            .map(([reason]) => reason)
            .join(' or ')}
        </TickField>
      )}
      {present > 0 && (
        <TickField className="text-soft" checked={search.showPresent} onChange={search.setShowPresent}>
          {present} in the plan already
        </TickField>
      )}
      {answer.routeKm !== null && search.query?.kind === 'along' && (
        <span className="text-soft">
          along {formatDistance(answer.routeKm, search.unit)}
          {search.cut.length > 1 &&
            `, ${search.cut.length} days of ${formatDistance(answer.routeKm / search.cut.length, search.unit)}`}
        </span>
      )}
      {answer.skipped.length > 0 && (
        <span className="text-caution" title={answer.skipped.join('\n')}>
          {answer.skipped.length} rows of the directory were not understood and are left out:{' '}
          {answer.skipped[0]}
        </span>
      )}
      {answer.beyond > 0 && (
        <span className="text-caution">{answer.beyond} more lie farther: search a smaller circle.</span>
      )}
      <span className="flex-1" />
      {search.shown.length > 0 && <OutOfSearch search={search} />}
    </div>
  );
}
