'use client';

import clsx from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { compareStates, takeBack, type ChannelState } from '@/core/compare';
import { formatAccess, formatFrequency } from '@/core/radio';
import { slotText, type Plan } from '@/core/plan';
import { Button, LongList, Trouble, useEscape, type ListRow } from '@/ui';
import { useSettings } from './use-settings';
import { useDesk } from './desk';
import { item } from './side-list';

const WORDS: Record<ChannelState['what'], string> = {
  added: 'new since',
  removed: 'gone since',
  changed: '',
};

/**
 * How the plan was at an earlier revision: what is otherwise today, cell by cell, each channel to be taken back by itself; or all of
 * it as it stood then, to read.
 */
export function ThenPanel({
  revision,
  called,
  onClose,
}: {
  revision: number;
  /** The revision as people call it: its mark, or its number. */
  called: string;
  onClose: () => void;
}) {
  const { hand } = useDesk();
  const { id } = hand.plan;
  const [whole, setWhole] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['then', id, revision],
    queryFn: () => call(planApi.then, { params: { id }, query: { revision } }),
    // What a revision was never changes.
    staleTime: Infinity,
  });
  useEscape(onClose);
  return (
    <section
      aria-label={`The plan at ${called}`}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <div className="flex shrink-0 flex-col gap-2 border-b border-line p-3 text-[13px]">
        <p>
          <b className="font-semibold">{called.startsWith('“') ? called : `At ${called}`}</b>{' '}
          <span className="text-soft">{called.startsWith('“') ? `revision ${revision}` : ''}</span>
        </p>
        <div role="group" aria-label="What is shown of it" className="flex gap-1">
          {(['What is otherwise', 'All as it was'] as const).map((label, at) => (
            <button
              key={label}
              type="button"
              aria-pressed={whole === (at === 1)}
              className="rounded-md border border-line px-2 py-0.5 text-soft aria-pressed:border-line-strong aria-pressed:bg-wash aria-pressed:text-ink"
              onClick={() => setWhole(at === 1)}
            >
              {label}
            </button>
          ))}
        </div>
      </div>
      {error && <Trouble className="m-2">{sentenceOf(error)}</Trouble>}
      {data && (whole ? <All then={data.plan} /> : <Differences then={data.plan} called={called} />)}
      <div className="flex shrink-0 gap-2 border-t border-line p-2">
        <Button
          className="flex-1"
          disabled={!data}
          onClick={() => {
            hand.store.goBack(revision);
            onClose();
          }}
        >
          Take all of it back
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </section>
  );
}

function Differences({ then, called }: { then: Plan; called: string }) {
  const { hand, table, actions } = useDesk();
  const { plan } = hand;
  const settings = useSettings(plan.modelId);
  const { channels, besides } = useMemo(
    () => compareStates(then, plan, (model) => (model === plan.modelId && settings) || []),
    [then, plan, settings],
  );
  const rows = channels.map((channel): ListRow => ({
    key: channel.id,
    className: item,
    show: () => (
      <>
        <span className="flex items-center gap-2">
          <span className="mono text-soft">{slotText(channel.slot)}</span>
          <button
            type="button"
            className={clsx(
              'min-w-0 flex-1 truncate text-left font-medium',
              channel.what === 'removed' && 'line-through decoration-soft',
            )}
            disabled={channel.what === 'removed'}
            onClick={() => table.select(channel.id)}
          >
            {channel.name}
          </button>
          <span className="text-[12px] text-soft">{WORDS[channel.what]}</span>
          <Button
            size="small"
            aria-label={`Take back ${channel.name}`}
            onClick={() => {
              const result = hand.store.apply(takeBack(then, plan, channel.id, called));
              actions.setSaid(result.ok ? '' : result.reason);
            }}
          >
            Take back
          </Button>
        </span>
        {channel.fields.map(({ field, then: was, now }) => (
          <span key={field} className="block pl-8 text-[12.5px]">
            <span className="text-soft">{field}:</span> <s className="text-soft">{was || 'none'}</s>{' '}
            <span aria-hidden>→</span> {now || 'none'}
          </span>
        ))}
      </>
    ),
  }));
  const n = (what: ChannelState['what']) => channels.filter((one) => one.what === what).length;
  const counts = [
    [n('changed'), 'changed'],
    [n('added'), 'new since'],
    [n('removed'), 'gone since'],
  ].flatMap(([many, what]) => (many === 0 ? [] : [`${many} ${what}`]));
  return (
    <>
      {counts.length > 0 && (
        <p role="status" className="shrink-0 border-b border-line px-3 py-1.5 text-[13px]">
          {counts.join(', ')}
        </p>
      )}
      {besides.length > 0 && (
        <p className="shrink-0 border-b border-line px-3 py-2 text-[13px] text-soft">{besides.join('. ')}.</p>
      )}
      {rows.length === 0 ? (
        <p className="flex-1 p-3 text-[13px] text-soft">No channel is otherwise today.</p>
      ) : (
        <LongList label="What is otherwise today" rows={rows} />
      )}
    </>
  );
}

/** All channels as they were, to read. */
function All({ then }: { then: Plan }) {
  const rows = then.channels.map((channel): ListRow => ({
    key: channel.id,
    className: 'border-b border-line px-3 py-1 text-[13px]',
    show: () => (
      <>
        <span className="flex gap-2">
          <span className="mono text-soft">{slotText(channel.slot)}</span>
          <span className="min-w-0 flex-1 truncate font-medium">{channel.name || 'no name'}</span>
          <span className="mono text-receive">{formatFrequency(channel.rx)}</span>
        </span>
        <span className="mono block pl-8 text-[12px] text-soft">
          {channel.tx === null
            ? 'listen only'
            : channel.tx === channel.rx
              ? 'same'
              : formatFrequency(channel.tx)}{' '}
          {formatAccess(channel.access)} {channel.mode}
        </span>
      </>
    ),
  }));
  return <LongList label="The channels as they were" rows={rows} rowHeight={46} plain />;
}
