'use client';

import { formatFrequency } from '@/core/radio';
import { placeLeftOver } from '@/core/table';
import type { ChannelId } from '@/core/plan';
import { Button, LongList, type ListRow } from '@/ui';
import { useDesk } from './desk';
import { item } from './side-list';

/** Channels without room, beside the table: to be placed or dropped. */
export function LeftOverPane() {
  const { hand, table, actions } = useDesk();
  const { plan, store } = hand;
  const place = (ids: readonly ChannelId[]) => {
    const found = placeLeftOver(plan, new Set(ids), {
      placement: 'next-free',
      at: table.range.first,
      range: table.range,
      list: table.list,
    });
    if (!found.ok) return actions.setSaid(found.reason);
    const result = store.apply(found.value.edit);
    actions.setSaid(
      result.ok
        ? found.value.over > 0
          ? `${found.value.placed} placed; ${found.value.over} find no slot and stay left over.`
          : ''
        : result.reason,
    );
    if (result.ok) table.selectLater(ids[0]!);
  };
  const drop = (ids: readonly ChannelId[]) => {
    const result = store.apply({ name: 'remove', kind: 'leftOver', ids: [...ids] });
    actions.setSaid(result.ok ? 'Dropped. Ctrl Z brings back what was dropped.' : result.reason);
  };
  const all = plan.leftOver.map(({ id }) => id);
  const rows = plan.leftOver.map((channel): ListRow => ({
    key: channel.id,
    className: item,
    show: () => (
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          <span className="block truncate font-medium">{channel.name || 'no name'}</span>
          <span className="mono text-[12px] text-receive">{formatFrequency(channel.rx)}</span>
        </span>
        <Button
          size="small"
          aria-label={`Place ${channel.name || formatFrequency(channel.rx)}`}
          onClick={() => place([channel.id])}
        >
          Place
        </Button>
        <Button
          size="small"
          kind="quiet"
          aria-label={`Drop ${channel.name || formatFrequency(channel.rx)}`}
          onClick={() => drop([channel.id])}
        >
          Drop
        </Button>
      </div>
    ),
  }));
  if (all.length === 0)
    return (
      <p className="p-3 text-[13px] text-soft">
        Nothing is left over: every channel of this plan has its slot. What finds no room waits here.
      </p>
    );
  return (
    <>
      <LongList label="Left over" rows={rows} rowHeight={53} />
      <p className="flex shrink-0 gap-2 border-t border-line p-2">
        <Button size="small" className="flex-1" onClick={() => place(all)}>
          Place all
        </Button>
        <Button size="small" kind="quiet" onClick={() => drop(all)}>
          Drop all
        </Button>
      </p>
    </>
  );
}
