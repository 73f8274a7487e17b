'use client';

import clsx from 'clsx';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import type { PlanId } from '@/core/plan';
import { Button, LongList, Moment, type ListRow } from '@/ui';
import { item } from './side-list';

function GoBack({ revision, onGoBack }: { revision: number; onGoBack: (revision: number) => void }) {
  return (
    <button
      type="button"
      className="text-[12px] text-soft underline hover:text-ink"
      aria-label={`Go back to revision ${revision}`}
      onClick={() => onGoBack(revision)}
    >
      Go back to here
    </button>
  );
}

const KIND = { edit: '', undo: 'Undone: ', redo: 'Done again: ' };

const PAGE = 100;

/** What has been done, newest first, with the way back. */
export function HistoryList({
  id,
  revision,
  onGoBack,
}: {
  id: PlanId;
  revision: number;
  onGoBack: (revision: number) => void;
}) {
  const log = useInfiniteQuery({
    queryKey: ['log', id, revision],
    queryFn: ({ pageParam }) =>
      call(planApi.edits, { params: { id }, query: { limit: PAGE, before: pageParam ?? undefined } }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ next }) => next,
    placeholderData: keepPreviousData,
  });
  if (log.error) return <p className="p-3 text-[13px] text-stop">{sentenceOf(log.error)}</p>;
  if (!log.data) return null;
  const rows = log.data.pages
    .flatMap(({ edits }) => edits)
    .map((row): ListRow => ({
      key: String(row.revision),
      className: item,
      show: () => (
        <>
          <span className={clsx('block', row.kind === 'undo' && 'text-soft')}>
            {KIND[row.kind]}
            {row.label}
          </span>
          <span className="flex justify-between gap-3 text-[12px] text-soft">
            <Moment at={row.at} />
            {row.revision < revision && <GoBack revision={row.revision} onGoBack={onGoBack} />}
          </span>
        </>
      ),
    }));
  const first: ListRow = {
    key: 'made',
    className: clsx(item, 'flex justify-between gap-3'),
    show: () => (
      <>
        The plan as it was made
        {revision > 1 && <GoBack revision={1} onGoBack={onGoBack} />}
      </>
    ),
  };
  return (
    <LongList
      label="What has been done, newest first"
      reversed
      rows={log.hasNextPage ? rows : [...rows, first]}
      foot={
        log.hasNextPage && (
          <p className="p-2">
            <Button
              kind="quiet"
              size="small"
              disabled={log.isFetching}
              onClick={() => void log.fetchNextPage()}
            >
              Older
            </Button>
          </p>
        )
      }
    />
  );
}
