'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { useMemo, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { formatFrequency } from '@/core/radio';
import { slotText, type Channel, type ChannelId, type Zone } from '@/core/plan';
import { carryAlong, useDrop } from './use-drop';
import type { Organising } from './use-organise';

const ROW_HEIGHT = 27;

/** The numbers of the zones that a channel is in, as little flags. */
function ZoneFlags({ numbers, dim }: { numbers: readonly number[]; dim: (number: number) => boolean }) {
  return (
    <span className="flex shrink-0 gap-0.5" aria-hidden>
      {numbers.map((number) => (
        <span
          key={number}
          className={clsx(
            'mono min-w-[15px] rounded-[3px] border px-0.5 text-center text-[10.5px] leading-[14px]',
            dim(number) ? 'border-line text-soft' : 'border-ink text-ink',
          )}
        >
          {number}
        </span>
      ))}
    </span>
  );
}

/** The channels of one side, with the zones that each is in: chosen by mouse or keys, carried, copied, dropped upon. */
export function ListPane({
  list,
  organising,
  only,
}: {
  list: number;
  organising: Organising;
  /** The zone of which alone the channels are shown; null for all. */
  only: Zone | null;
}) {
  const { plan, model, chosen, setChosen, sides, sideName, carryTo, copyTo, toggleZone } = organising;
  const channels = useMemo(() => {
    const members = only && new Set(only.members);
    return plan.channels.filter((channel) => channel.list === list && (!members || members.has(channel.id)));
  }, [plan.channels, list, only]);
  const zones = useMemo(() => {
    const of = new Map<ChannelId, number[]>();
    for (const [at, { members }] of plan.zones.entries())
      for (const id of members) {
        const known = of.get(id);
        if (known) known.push(at + 1);
        else of.set(id, [at + 1]);
      }
    return of;
  }, [plan.zones]);
  const view = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState(0);
  const anchor = useRef(0);
  const { over, handlers } = useDrop((ids, copying) => (copying ? copyTo : carryTo)(new Set(ids), list));
  const virtual = useVirtualizer({
    count: channels.length,
    getScrollElement: () => view.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
  });

  const range = (from: number, to: number) =>
    new Set(channels.slice(Math.min(from, to), Math.max(from, to) + 1).map(({ id }) => id));
  const go = (to: number, extend: boolean) => {
    const row = Math.max(0, Math.min(channels.length - 1, to));
    setActive(row);
    virtual.scrollToIndex(row);
    if (!channels[row]) return;
    if (!extend) anchor.current = row;
    setChosen(range(anchor.current, row));
  };
  const toggle = (row: number) => {
    const next = new Set(chosen);
    const { id } = channels[row]!;
    if (!next.delete(id)) next.add(id);
    anchor.current = row;
    setActive(row);
    setChosen(next);
  };
  const pick = (event: MouseEvent, row: number) => {
    view.current?.focus({ preventScroll: true });
    if (event.shiftKey) return go(row, true);
    if (event.ctrlKey || event.metaKey) return toggle(row);
    // What is chosen stays so while it is carried.
    if (!chosen.has(channels[row]!.id)) go(row, false);
    setActive(row);
  };

  const other = sides.find((side) => side !== list);
  const onKeyDown = (event: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((view.current?.clientHeight ?? 300) / ROW_HEIGHT) - 1);
    const steps: Record<string, number> = {
      ArrowDown: active + 1,
      ArrowUp: active - 1,
      PageDown: active + page,
      PageUp: active - page,
      Home: 0,
      End: channels.length - 1,
    };
    const to = steps[event.key];
    if (to !== undefined) go(to, event.shiftKey);
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a')
      setChosen(new Set(channels.map(({ id }) => id)));
    else if (event.ctrlKey || event.metaKey || event.altKey) return;
    else if (event.key === ' ' && channels[active]) toggle(active);
    else if (event.key.toLowerCase() === 'x' && other !== undefined && chosen.size > 0)
      carryTo(chosen, other);
    else if (event.key.toLowerCase() === 'c' && other !== undefined && chosen.size > 0) copyTo(chosen, other);
    else if (/^[1-9]$/.test(event.key) && model.zones) toggleZone(plan.zones[Number(event.key) - 1]);
    else return;
    event.preventDefault();
  };

  const name = model.lists[list]!.name;
  return (
    <section
      aria-label={`${name} channels`}
      className={clsx(
        'flex min-h-0 min-w-0 flex-1 flex-col rounded-md border bg-sheet',
        over ? 'border-ink' : 'border-line',
      )}
      {...handlers}
    >
      <h2 className="flex shrink-0 items-baseline gap-2 border-b border-line-strong px-3 py-1.5 text-[13px] font-semibold">
        {name}{' '}
        <span className="font-normal text-soft tabular-nums">
          {channels.length}
          {only ? ` of “${only.name}”` : ` of ${model.slots.count}`}
        </span>
      </h2>
      <div
        ref={view}
        role="listbox"
        aria-label={name}
        aria-multiselectable
        aria-activedescendant={channels[active] ? `on-${list}-${channels[active].id}` : undefined}
        tabIndex={0}
        className="min-h-0 flex-1 overflow-y-auto outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--receive)]"
        onKeyDown={onKeyDown}
      >
        {channels.length === 0 && (
          <p className="p-3 text-[13px] text-soft">
            {only
              ? `Nothing of “${only.name}” is on the ${sideName(list)}.`
              : `No channel is on the ${sideName(list)}. Carry some across, or drop them here.`}
          </p>
        )}
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <Row
              key={channels[index]!.id}
              channel={channels[index]!}
              id={`on-${list}-${channels[index]!.id}`}
              top={start}
              chosen={chosen.has(channels[index]!.id)}
              active={index === active}
              numbers={zones.get(channels[index]!.id) ?? []}
              most={model.zones?.count ?? 0}
              zones={plan.zones}
              onPick={(event) => pick(event, index)}
              onPlain={() => !chosen.has(channels[index]!.id) || go(index, false)}
              onCarry={(data) => {
                const { id } = channels[index]!;
                carryAlong(data, chosen.has(id) ? chosen : [id]);
              }}
            />
          ))}
        </div>
      </div>
    </section>
  );
}

function Row({
  channel,
  id,
  top,
  chosen,
  active,
  numbers,
  most,
  zones,
  onPick,
  onPlain,
  onCarry,
}: {
  channel: Channel;
  id: string;
  top: number;
  chosen: boolean;
  active: boolean;
  numbers: readonly number[];
  /** Zones with a higher number are not in this radio. */
  most: number;
  zones: readonly Zone[];
  onPick: (event: MouseEvent) => void;
  /** Let go where it was pressed: it alone is chosen then. */
  onPlain: () => void;
  onCarry: (data: DataTransfer) => void;
}) {
  const held = numbers.filter((number) => number <= most);
  return (
    // The list itself takes the keys; rows take the mouse.
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events
    <div
      id={id}
      role="option"
      aria-selected={chosen}
      tabIndex={-1}
      draggable
      onDragStart={(event) => onCarry(event.dataTransfer)}
      onMouseDown={onPick}
      onClick={(event) => !event.shiftKey && !event.ctrlKey && !event.metaKey && onPlain()}
      className={clsx(
        'absolute inset-x-0 flex cursor-default items-center gap-2 border-b border-line px-3 text-[13.5px]',
        chosen ? 'bg-wash' : 'hover:bg-wash-faint',
        active && 'shadow-[inset_3px_0_0_var(--ink)]',
      )}
      style={{ top, height: ROW_HEIGHT }}
    >
      <span className="mono w-8 shrink-0 text-soft">{slotText(channel.slot)}</span>
      <span className="min-w-0 flex-1 truncate font-medium">{channel.name || 'no name'}</span>
      <ZoneFlags numbers={held} dim={() => false} />
      {held.length > 0 && (
        <span className="sr-only">in {held.map((number) => zones[number - 1]!.name).join(', ')}</span>
      )}
      <span className="mono w-[74px] shrink-0 text-right text-receive">{formatFrequency(channel.rx)}</span>
    </div>
  );
}
