'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { Trash2 } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { roundSeconds, scanned, stops } from '@/core/organise';
import { SET_NAME_LIMIT, slotText, type Channel, type ChannelId, type SkipSet } from '@/core/plan';
import { Button, Choice, Tick } from '@/ui';
import { NameField } from './name-field';
import { newId, type Organising } from './use-organise';

const ROW_HEIGHT = 28;
const COLUMN = 190;

const seconds = (channels: number) => {
  const s = roundSeconds(channels);
  return `${s < 10 ? s.toFixed(1) : Math.round(s)} s`;
};

/** Channels against skip sets: a tick where the set names the channel, whole columns at once, and how long each round takes. */
export function SkipSets({ organising }: { organising: Organising }) {
  const { plan, model, sides, run } = organising;
  const { count } = model.skipSets!;
  const sets = plan.skipSets;
  const channels = useMemo(
    () => plan.channels.filter(({ list }) => sides.includes(list)),
    [plan.channels, sides],
  );
  const view = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: channels.length,
    getScrollElement: () => view.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 10,
  });
  const members = useMemo(() => sets.map((set) => new Set(set.members)), [sets]);
  const setMembers = (set: SkipSet, ids: ChannelId[], done: string) =>
    run({ name: 'change', kind: 'skipSet', changes: [{ id: set.id, set: { members: ids } }] }, done);
  const toggle = (set: SkipSet, at: number, channel: Channel) => {
    const held = members[at]!.has(channel.id);
    setMembers(
      set,
      held ? set.members.filter((id) => id !== channel.id) : [...set.members, channel.id],
      `“${channel.name}” is ${held ? 'not named' : 'named'} by “${set.name}”${held ? ' any more' : ''}.`,
    );
  };
  const add = () =>
    run(
      {
        name: 'put',
        kind: 'skipSet',
        records: [{ id: newId.skipSet(), name: `Set ${sets.length + 1}`, way: 'all but', members: [] }],
        before: null,
      },
      'Added a skip set.',
    );
  const template = `64px 56px minmax(160px, 1fr) ${sets.map(() => `${COLUMN}px`).join(' ')} auto`;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col overflow-x-auto rounded-md border border-line bg-sheet">
      <div
        className="grid shrink-0 items-stretch border-b border-line-strong text-[13px]"
        style={{ gridTemplateColumns: template }}
      >
        <div className="col-span-3 flex flex-col justify-end gap-1 px-3 py-2 text-soft">
          <p className="max-w-[52ch]">
            A set says what a scan leaves out, or what alone it takes. Without one, each channel’s own scan
            mark decides:{' '}
            {sides
              .map(
                (list) =>
                  `${model.lists[list]!.name.toLowerCase()} ${seconds(scanned(plan, list, null, null).length)} a round`,
              )
              .join(', ')}
            .
          </p>
          <p>
            <Button size="small" disabled={sets.length >= 100} onClick={add}>
              New skip set
            </Button>{' '}
            <span className="tabular-nums">
              {sets.length} of {count}
            </span>
          </p>
        </div>
        {sets.map((set, at) => (
          <SetHead
            key={set.id}
            set={set}
            at={at}
            channels={channels}
            organising={organising}
            onAll={(ids, done) => setMembers(set, ids, done)}
          />
        ))}
        <span />
      </div>
      <div
        ref={view}
        role="table"
        aria-label="Channels and skip sets"
        aria-rowcount={channels.length}
        className="min-h-0 flex-1 overflow-y-auto"
      >
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const channel = channels[index]!;
            return (
              <div
                key={channel.id}
                role="row"
                aria-rowindex={index + 1}
                className="absolute inset-x-0 grid items-center border-b border-line text-[13.5px] hover:bg-wash-faint"
                style={{ gridTemplateColumns: template, top: start, height: ROW_HEIGHT }}
              >
                <span role="cell" className="px-3 text-[12.5px] text-soft">
                  {model.lists[channel.list]!.name}
                </span>
                <span role="cell" className="mono text-soft">
                  {slotText(channel.slot)}
                </span>
                <span role="rowheader" className="truncate font-medium">
                  {channel.name || 'no name'}
                  {!channel.scan && (
                    <span className="pl-2 text-[12px] font-normal text-soft">no scan mark</span>
                  )}
                </span>
                {sets.map((set, at) => (
                  <span role="cell" key={set.id} className="border-l border-line px-3">
                    <Tick
                      aria-label={`${set.name}: ${channel.name || slotText(channel.slot)}`}
                      checked={members[at]!.has(channel.id)}
                      onCheckedChange={() => toggle(set, at, channel)}
                    />
                  </span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

function SetHead({
  set,
  at,
  channels,
  organising,
  onAll,
}: {
  set: SkipSet;
  at: number;
  channels: readonly Channel[];
  organising: Organising;
  onAll: (ids: ChannelId[], done: string) => void;
}) {
  const { plan, model, sides, run } = organising;
  const beyond = at >= model.skipSets!.count;
  const change = (fields: Partial<Pick<SkipSet, 'name' | 'way'>>, done: string) =>
    run({ name: 'change', kind: 'skipSet', changes: [{ id: set.id, set: fields }] }, done);
  const loud = stops(sides.flatMap((list) => scanned(plan, list, null, set)));
  return (
    <section aria-label={set.name} className="flex flex-col gap-1.5 border-l border-line px-3 py-2">
      <div className="flex items-center gap-1">
        <span className="mono text-[12px] text-soft">{at + 1}</span>
        <NameField
          label={`Name of skip set ${at + 1}`}
          name={set.name}
          limit={SET_NAME_LIMIT}
          className="text-[14px] font-semibold"
          onName={(next) => change({ name: next }, `Named “${next}”.`)}
        />
        <Button
          kind="quiet"
          size="icon"
          className="size-7!"
          aria-label={`Remove “${set.name}”`}
          onClick={() =>
            run(
              { name: 'remove', kind: 'skipSet', ids: [set.id] },
              `Removed “${set.name}”. Ctrl Z brings it back.`,
            )
          }
        >
          <Trash2 size={13} className="text-soft" aria-hidden />
        </Button>
      </div>
      <Choice
        label="The scan takes"
        value={set.way}
        options={[
          ['all but', 'all but the ticked'],
          ['only', 'only the ticked'],
        ]}
        onChange={(way) =>
          change(
            { way },
            `“${set.name}” takes ${way === 'only' ? 'only what is ticked' : 'all but what is ticked'}.`,
          )
        }
      />
      <div className="flex gap-1">
        <Button
          size="small"
          onClick={() =>
            onAll(
              channels.map(({ id }) => id),
              `All are ticked in “${set.name}”.`,
            )
          }
        >
          Tick all
        </Button>
        <Button size="small" kind="quiet" onClick={() => onAll([], `None is ticked in “${set.name}”.`)}>
          None
        </Button>
      </div>
      <p className="text-[12.5px] text-soft tabular-nums">
        {beyond
          ? 'Kept in the plan; not in this radio.'
          : sides
              .map(
                (list) =>
                  `${model.lists[list]!.name.toLowerCase()} ${seconds(scanned(plan, list, null, set).length)}`,
              )
              .join(' · ')}
        {!beyond && loud.length > 0 && <span className="block text-caution">stops at “{loud[0]!.name}”</span>}
      </p>
    </section>
  );
}
