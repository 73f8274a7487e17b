'use client';

import clsx from 'clsx';
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { Flag } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { MARK_LIMIT, type Mark } from '@/api/history';
import { planApi } from '@/api/plans';
import type { PlanId } from '@/core/plan';
import { Button, LongList, Moment, type ListRow } from '@/ui';
import { item } from './side-list';

const KIND = { edit: '', undo: 'Undone: ', redo: 'Done again: ' };

const PAGE = 100;

interface Props {
  id: PlanId;
  revision: number;
  onGoBack: (revision: number) => void;
  /** Shows how the plan was then, and what is otherwise today. */
  onLook: (revision: number, called: string) => void;
}

/** The names that revisions of a plan have, and how they are given. */
function useMarks(id: PlanId) {
  const queries = useQueryClient();
  const key = ['marks', id];
  const { data, error } = useQuery({ queryKey: key, queryFn: () => call(planApi.marks, { params: { id } }) });
  const [trouble, setTrouble] = useState<string | null>(null);
  const set = async (revision: number, name: string | null) => {
    try {
      const answer = await call(planApi.mark, { params: { id }, body: { revision, name } });
      queries.setQueryData(key, answer);
      setTrouble(null);
    } catch (reason) {
      setTrouble(sentenceOf(reason));
    }
  };
  return { marks: data?.marks ?? [], set, trouble: trouble ?? (error ? sentenceOf(error) : null) };
}

/** What has been done, newest first, with marks that the person named, the look at any of it, and the way back. */
export function HistoryList({ id, revision, onGoBack, onLook }: Props) {
  const [search, setSearch] = useState('');
  const asked = useDeferredValue(search.trim());
  const { marks, set, trouble } = useMarks(id);
  const log = useInfiniteQuery({
    queryKey: ['log', id, revision, asked],
    queryFn: ({ pageParam }) =>
      call(planApi.edits, {
        params: { id },
        query: { limit: PAGE, before: pageParam ?? undefined, ...(asked !== '' && { search: asked }) },
      }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ next }) => next,
    placeholderData: keepPreviousData,
  });
  if (log.error) return <p className="p-3 text-[13px] text-stop">{sentenceOf(log.error)}</p>;
  if (!log.data) return null;
  const markOf = new Map(marks.map((mark) => [mark.revision, mark]));
  const row = (own: number, label: string, at: string | null, undone: boolean): ListRow => ({
    key: String(own),
    className: clsx(item, markOf.has(own) && 'bg-wash-faint'),
    show: () => (
      <Row
        revision={own}
        newest={own === revision}
        label={label}
        at={at}
        undone={undone}
        mark={markOf.get(own)}
        onMark={(name) => void set(own, name)}
        onGoBack={onGoBack}
        onLook={onLook}
      />
    ),
  });
  const wanted = asked.toLowerCase();
  const done = log.data.pages.flatMap(({ edits }) => edits);
  const shown = new Set(done.map((one) => one.revision));
  // A mark is found by its own name as well, though its label says something else.
  const named =
    wanted === ''
      ? []
      : marks.filter((mark) => !shown.has(mark.revision) && mark.name.toLowerCase().includes(wanted));
  const rows = [
    ...done.map((one) => ({
      revision: one.revision,
      row: row(one.revision, KIND[one.kind] + one.label, one.at, one.kind === 'undo'),
    })),
    ...named.map((mark) => ({ revision: mark.revision, row: row(mark.revision, '', null, false) })),
  ]
    .sort((a, b) => b.revision - a.revision)
    .map((one) => one.row);
  const first = row(1, 'The plan as it was made', null, false);
  return (
    <>
      <p className="shrink-0 border-b border-line p-2">
        <input
          type="search"
          aria-label="Find in the history"
          placeholder="Find in what was done"
          value={search}
          maxLength={100}
          onChange={(event) => setSearch(event.target.value)}
          className="h-7 w-full rounded-md border border-line-strong bg-sheet px-2 text-[13px] placeholder:text-soft"
        />
      </p>
      {trouble && <p className="p-2 text-[13px] text-stop">{trouble}</p>}
      <LongList
        label="What has been done, newest first"
        reversed
        rows={log.hasNextPage || wanted !== '' || shown.has(1) ? rows : [...rows, first]}
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
      {wanted !== '' && rows.length === 0 && (
        <p role="status" className="p-3 text-[13px] text-soft">
          Nothing that was done is called so.
        </p>
      )}
    </>
  );
}

const link = 'text-[12px] text-soft underline hover:text-ink';

function Row({
  revision,
  newest,
  label,
  at,
  undone,
  mark,
  onMark,
  onGoBack,
  onLook,
}: {
  revision: number;
  newest: boolean;
  label: string;
  at: string | null;
  undone: boolean;
  mark: Mark | undefined;
  onMark: (name: string | null) => void;
  onGoBack: (revision: number) => void;
  onLook: (revision: number, called: string) => void;
}) {
  const [naming, setNaming] = useState<string | null>(null);
  const called = mark ? `“${mark.name}”` : `revision ${revision}`;
  return (
    <>
      {mark && naming === null && (
        <span className="flex items-center gap-1.5 font-semibold">
          <Flag size={12} aria-hidden />
          <span className="min-w-0 flex-1 truncate">{mark.name}</span>
        </span>
      )}
      <span className={clsx('block', undone && 'text-soft')}>{label}</span>
      <span className="flex flex-wrap gap-x-3 text-[12px] text-soft">
        {at && <Moment at={at} />}
        <span className="flex-1" />
        {naming === null && (
          <button
            type="button"
            className={link}
            aria-label={`Mark revision ${revision}`}
            onClick={() => setNaming(mark?.name ?? '')}
          >
            Mark
          </button>
        )}
        {!newest && (
          <>
            <button
              type="button"
              className={link}
              aria-label={`Look at ${called}`}
              onClick={() => onLook(revision, called)}
            >
              Look
            </button>
            <button
              type="button"
              className={link}
              aria-label={`Go back to revision ${revision}`}
              onClick={() => onGoBack(revision)}
            >
              Go back
            </button>
          </>
        )}
      </span>
      {naming !== null && (
        <form
          className="flex gap-1 pt-1"
          onSubmit={(event) => {
            event.preventDefault();
            onMark(naming.trim() === '' ? null : naming.trim());
            setNaming(null);
          }}
        >
          <input
            aria-label={`Name of revision ${revision}`}
            placeholder="before the regatta"
            autoFocus
            maxLength={MARK_LIMIT}
            value={naming}
            onFocus={(event) => event.currentTarget.select()}
            onChange={(event) => setNaming(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.stopPropagation();
              setNaming(null);
            }}
            className="h-7 min-w-0 flex-1 rounded-md border border-line-strong bg-sheet px-2 text-[13px] placeholder:text-soft"
          />
          <Button size="small" type="submit">
            {naming.trim() === '' && mark ? 'Take it away' : 'Keep'}
          </Button>
        </form>
      )}
    </>
  );
}
