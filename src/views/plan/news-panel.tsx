'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { historyApi } from '@/api/history';
import { allNews, NEWS_KINDS, type News, type NewsKind } from '@/core/directory';
import { slotText, type Edit } from '@/core/plan';
import { Button, LongList, Trouble, useEscape, type ListRow } from '@/ui';
import { useDesk } from './desk';
import { item } from './side-list';

const HEADINGS: Record<NewsKind, string> = {
  changed: 'Said otherwise now',
  moved: 'Moved',
  'off the air': 'Off the air',
  gone: 'No longer in the directory',
  new: 'New nearby',
};
const TAKE: Record<NewsKind, string> = {
  changed: 'Take over',
  moved: 'Take over',
  'off the air': 'Leave over',
  gone: 'Leave over',
  new: 'Place it',
};

/** What directories say now that is not as the plan has it; each taken over, or left until they say something else. */
export function NewsPanel({ onClose }: { onClose: () => void }) {
  const { hand, table } = useDesk();
  const { plan, store } = hand;
  const client = useQueryClient();
  const [trouble, setTrouble] = useState('');
  useEscape(onClose);
  const key = ['news', plan.id];
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: key,
    queryFn: () => call(historyApi.news, { params: { id: plan.id } }),
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
  });
  const news = data?.news ?? [];
  /** Takes them out of what is shown: they are done. */
  const done = (these: readonly News[], left?: number) =>
    client.setQueryData<typeof data>(
      key,
      (now) =>
        now && {
          ...now,
          news: now.news.filter((one) => !these.includes(one)),
          left: left ?? now.left,
        },
    );
  const apply = (edit: Edit | null, these: readonly News[]) => {
    if (!edit) return;
    const result = store.apply(edit);
    if (!result.ok) return setTrouble(result.reason);
    setTrouble('');
    done(these);
  };
  const wanted = {
    placement: 'next-free' as const,
    at: table.range.first,
    range: table.range,
    list: table.list,
  };
  const leave = async (these: readonly News[]) => {
    try {
      const { left } = await call(historyApi.leaveNews, {
        params: { id: plan.id },
        body: { leave: these.map(({ source, ref, updated }) => ({ source, ref, updated })), again: false },
      });
      setTrouble('');
      done(these, left);
    } catch (reason) {
      setTrouble(sentenceOf(reason));
    }
  };
  const again = async () => {
    try {
      await call(historyApi.leaveNews, { params: { id: plan.id }, body: { leave: [], again: true } });
      await refetch();
    } catch (reason) {
      setTrouble(sentenceOf(reason));
    }
  };
  const hasSources = plan.channels.some(({ source }) => source !== null && source.directory !== 'file');
  const slotOf = new Map(plan.channels.map((channel) => [channel.id, channel.slot]));
  const rows = NEWS_KINDS.flatMap((kind): ListRow[] => {
    const own = news.filter((one) => one.kind === kind);
    if (own.length === 0) return [];
    return [
      {
        key: kind,
        className: 'px-3 pb-1 pt-2 text-soft',
        show: () => (
          <>
            {HEADINGS[kind]} <span className="mono">{own.length}</span>
          </>
        ),
      },
      ...own.map((one): ListRow => ({
        key: `${one.source} ${one.ref} ${one.channel ?? ''}`,
        className: item,
        show: () => (
          <>
            <p>
              {one.channel && (
                <button
                  type="button"
                  className="mono text-soft underline decoration-line-strong underline-offset-2 hover:text-ink"
                  aria-label={`To ${one.name} in the table`}
                  onClick={() => table.selectLater(one.channel!)}
                >
                  {slotText(slotOf.get(one.channel) ?? 0)}
                </button>
              )}{' '}
              <b className="font-medium">{one.name}</b>
            </p>
            <p className="text-soft">{one.text}</p>
            <p className="flex gap-1.5 pt-1">
              <Button
                size="small"
                aria-label={`${TAKE[kind]}: ${one.name}`}
                onClick={() => apply(one.edit, [one])}
              >
                {TAKE[kind]}
              </Button>
              <Button
                kind="quiet"
                size="small"
                aria-label={`Leave ${one.name} as it is`}
                onClick={() => void leave([one])}
              >
                Leave as it is
              </Button>
            </p>
          </>
        ),
      })),
    ];
  });
  return (
    <section
      aria-label="What has changed"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet text-[13px]"
    >
      <div className="border-b border-line px-3 py-2">
        <p role="status">
          <b className="font-semibold">What has changed</b>{' '}
          <span className="text-soft">
            {isFetching
              ? 'The directories are asked…'
              : !data
                ? ''
                : news.length === 0
                  ? hasSources
                    ? 'Nothing: all is as they say.'
                    : 'No channel of this plan remembers a station of a directory. What is placed from Find does, and is held against what they say here.'
                  : news.length === 1
                    ? 'One thing is not as they say.'
                    : `${news.length} things are not as they say.`}
          </span>
        </p>
        {data && data.left > 0 && (
          <p className="text-soft">
            {data.left === 1 ? 'One was' : `${data.left} were`} left before.{' '}
            <button type="button" className="underline" onClick={() => void again()}>
              Show them again
            </button>
          </p>
        )}
      </div>
      {error && <Trouble className="m-2">{sentenceOf(error)}</Trouble>}
      {data?.troubles.map(({ source, name, trouble: why }) => (
        <Trouble key={source} className="m-2">
          {name}: {why} What is known of it is shown.
        </Trouble>
      ))}
      {trouble && <Trouble className="m-2">{trouble}</Trouble>}
      <LongList label="What directories say now" rows={rows} />
      <div className="flex shrink-0 gap-2 border-t border-line p-3">
        {news.length > 1 && (
          <>
            <Button kind="strong" className="flex-1" onClick={() => apply(allNews(plan, news, wanted), news)}>
              Take all {news.length}
            </Button>
            <Button onClick={() => void leave(news)}>Leave all</Button>
          </>
        )}
        <Button className={news.length > 1 ? '' : 'flex-1'} onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
