'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { formatFrequency } from '@/core/radio';
import { sameChannel, slotText, type Channel, type PlanId } from '@/core/plan';
import { Button, Choice, LongList, Trouble, useEscape, type ListRow } from '@/ui';
import { useDesk } from './desk';
import { item } from './side-list';
import { OWN_TYPE } from './use-clipboard';

/** Another plan beside this one: its channels are taken by a press, or dragged to the row before which they are to stand. */
export function BesidePanel({ onClose }: { onClose: () => void }) {
  const { hand, actions } = useDesk();
  const own = hand.plan;
  const [id, setId] = useState<PlanId | null>(null);
  const [find, setFind] = useState('');
  const plans = useQuery({
    queryKey: ['plans', 'beside'],
    queryFn: () => call(planApi.planNames),
  });
  const others = (plans.data?.plans ?? []).filter((plan) => plan.id !== own.id && plan.trouble === null);
  const chosen = id ?? others[0]?.id ?? null;
  const other = useQuery({
    queryKey: ['plan', chosen, 'beside'],
    queryFn: () => call(planApi.plan, { params: { id: chosen! } }),
    enabled: chosen !== null,
  });
  useEscape(onClose);
  const channels = useMemo(() => {
    const wanted = find.trim().toLowerCase();
    return (other.data?.plan.channels ?? []).filter((channel) =>
      `${channel.name} ${formatFrequency(channel.rx)} ${channel.source?.call ?? ''}`
        .toLowerCase()
        .includes(wanted),
    );
  }, [other.data, find]);
  const there = (channel: Channel) =>
    own.channels.some((one) => one.rx === channel.rx && sameChannel(one, channel));
  const take = (taken: readonly Channel[]) => void actions.paste('', JSON.stringify(taken));
  const rows = channels.map((channel): ListRow => ({
    key: channel.id,
    className: item,
    show: () => (
      // The mouse drags it; the keyboard has the button.
      <div
        draggable
        className="flex cursor-grab items-center gap-2"
        onDragStart={(event) => {
          event.dataTransfer.setData(OWN_TYPE, JSON.stringify([channel]));
          event.dataTransfer.effectAllowed = 'copy';
        }}
      >
        <span className="mono text-soft">{slotText(channel.slot)}</span>
        <span className="min-w-0 flex-1">
          <span className="block truncate font-medium">{channel.name || 'no name'}</span>
          <span className="mono text-[12px] text-receive">{formatFrequency(channel.rx)}</span>
          {there(channel) && <span className="text-[12px] text-soft"> is here already</span>}
        </span>
        <Button
          size="small"
          aria-label={`Take ${channel.name || formatFrequency(channel.rx)}`}
          onClick={() => take([channel])}
        >
          Take
        </Button>
      </div>
    ),
  }));
  const error = plans.error ?? other.error;
  return (
    <section
      aria-label="Another plan"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <div className="flex shrink-0 flex-col gap-2 border-b border-line p-3">
        {others.length > 0 && chosen !== null ? (
          <Choice
            label="Beside this plan"
            value={chosen}
            options={others.map((plan) => [plan.id, plan.name] as const)}
            onChange={(next) => setId(next)}
          />
        ) : (
          <p className="text-[13px] text-soft">There is no other plan yet.</p>
        )}
        <input
          type="search"
          aria-label="Find in the other plan"
          placeholder="Find in it"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          className="h-7 rounded-md border border-line-strong bg-sheet px-2 text-[13px] placeholder:text-soft"
        />
      </div>
      {error && <Trouble className="m-2">{sentenceOf(error)}</Trouble>}
      <LongList label="Channels of the other plan" rows={rows} rowHeight={53} />
      <div className="flex shrink-0 gap-2 border-t border-line p-2">
        <Button
          size="small"
          className="flex-1"
          disabled={channels.length === 0}
          onClick={() => take(channels)}
        >
          Take all {channels.length > 0 && channels.length}
        </Button>
        <Button size="small" onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
