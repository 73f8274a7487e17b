'use client';

import clsx from 'clsx';
import { ChevronDown, ChevronUp, Plus, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import { roundSeconds } from '@/core/organise';
import {
  ANSWER_WORDS,
  SCAN_LIST_NAME_LIMIT,
  type ChannelId,
  type ScanList,
  type ScanListId,
} from '@/core/plan';
import { Button, Choice, Scroll, TickField } from '@/ui';
import { BesidesList } from './besides-list';
import { NameField } from './name-field';
import { useDrop } from './use-drop';
import { newId, zoneWord, type Organising } from './use-organise';

/** Scan lists: what each looks at and in which order, what comes first, where it answers, and whose it is. */
export function ScanLists({ organising }: { organising: Organising }) {
  const { plan, model, run, besides } = organising;
  const has = model.scanLists!;
  const [chosenId, setChosen] = useState<ScanListId | null>(null);
  const chosen = plan.scanLists.find(({ id }) => id === chosenId) ?? plan.scanLists[0];
  const add = () => {
    const id = newId.scanList();
    const list = {
      id,
      name: `Scan list ${plan.scanLists.length + 1}`,
      members: [],
      first: null,
      second: null,
    };
    const record = { ...list, answers: has.answers[0]!, startsItself: false };
    if (run({ name: 'put', kind: 'scanList', records: [record], before: null }, 'Added a scan list.'))
      setChosen(id);
  };
  return (
    <div className="flex min-h-0 min-w-0 flex-1 gap-2.5">
      <section
        aria-label="Scan lists"
        className="flex w-[300px] shrink-0 flex-col rounded-md border border-line bg-sheet"
      >
        <div className="flex shrink-0 items-center gap-2 border-b border-line-strong px-3 py-1.5 text-[13px]">
          <h2 className="font-semibold">Scan lists</h2>
          <span className="text-soft tabular-nums">
            {plan.scanLists.length} of {has.count}
          </span>
          <span className="flex-1" />
          <Button size="small" onClick={add}>
            New
          </Button>
        </div>
        <Scroll label="All scan lists" className="flex-1">
          {plan.scanLists.length === 0 && (
            <p className="p-3 text-[13px] text-soft">
              No scan list yet. Press New, then choose what it looks at.
            </p>
          )}
          <ul>
            {plan.scanLists.map((list, at) => (
              <li key={list.id} className="border-b border-line">
                <button
                  type="button"
                  aria-pressed={list.id === chosen?.id}
                  className={clsx(
                    'flex h-9 w-full items-center gap-2 px-3 text-left text-[13.5px] hover:bg-wash-faint',
                    list.id === chosen?.id && 'bg-wash',
                  )}
                  onClick={() => setChosen(list.id)}
                >
                  <span className="mono w-5 text-right text-soft">{at + 1}</span>
                  <span className="min-w-0 flex-1 truncate font-medium">{list.name}</span>
                  {besides.some(({ kind, id }) => kind === 'scanList' && id === list.id) && (
                    <span
                      aria-label="Check says something"
                      role="img"
                      className="size-2 rounded-full bg-caution"
                    />
                  )}
                  <span className="text-[12.5px] text-soft tabular-nums">{list.members.length}</span>
                </button>
              </li>
            ))}
          </ul>
        </Scroll>
      </section>
      {chosen && <OneList key={chosen.id} list={chosen} organising={organising} />}
    </div>
  );
}

function OneList({ list, organising }: { list: ScanList; organising: Organising }) {
  const { plan, model, run } = organising;
  const has = model.scanLists!;
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  const members = list.members.flatMap((id) => byId.get(id) ?? []);
  const set = (fields: Partial<ScanList>, done: string) =>
    run({ name: 'change', kind: 'scanList', changes: [{ id: list.id, set: fields }] }, done);
  const addMembers = (ids: readonly ChannelId[]) => {
    const coming = ids.filter((id) => !list.members.includes(id)).slice(0, has.members - list.members.length);
    if (coming.length === 0) return organising.setSaid(`“${list.name}” takes nothing more.`);
    set({ members: [...list.members, ...coming] }, `“${list.name}” looks at ${coming.length} more.`);
  };
  const { over, handlers } = useDrop(addMembers);
  const move = (at: number, by: 1 | -1) => {
    const next = [...list.members];
    [next[at], next[at + by]] = [next[at + by]!, next[at]!];
    set({ members: next }, `The order of “${list.name}” is another.`);
  };
  const priorities = [
    ['none', 'none'] as const,
    ...members.map(({ id, name }) => [id as string, name || 'no name'] as const),
  ];
  const owners =
    has.by === 'channel'
      ? plan.channels.filter(({ scanList }) => scanList === list.id)
      : plan.zones.filter(({ scanList }) => scanList === list.id);
  const others = plan.channels.filter(({ id }) => !list.members.includes(id));
  return (
    <section
      aria-label={list.name}
      className={clsx(
        'flex min-h-0 min-w-0 flex-1 flex-col rounded-md border bg-sheet',
        over ? 'border-ink' : 'border-line',
      )}
      {...handlers}
    >
      <div className="flex shrink-0 flex-wrap items-end gap-3 border-b border-line-strong px-4 py-2.5 text-[13px]">
        <NameField
          label="Name of the scan list"
          name={list.name}
          limit={SCAN_LIST_NAME_LIMIT}
          className="basis-full text-[16px] font-semibold"
          onName={(name) => set({ name }, `Named “${name}”.`)}
        />
        <Choice
          className="w-44"
          label="First priority"
          value={list.first ?? 'none'}
          options={priorities}
          onChange={(id) =>
            set({ first: id === 'none' ? null : (id as ChannelId) }, 'The first priority is set.')
          }
        />
        {has.second && (
          <Choice
            className="w-44"
            label="Second priority"
            value={list.second ?? 'none'}
            options={priorities}
            onChange={(id) =>
              set({ second: id === 'none' ? null : (id as ChannelId) }, 'The second priority is set.')
            }
          />
        )}
        <Choice
          className="w-60"
          label="Answers"
          value={list.answers}
          options={[...new Set([...has.answers, list.answers])].map(
            (one) => [one, ANSWER_WORDS[one]] as const,
          )}
          onChange={(answers) => set({ answers }, `“${list.name}” answers ${ANSWER_WORDS[answers]}.`)}
        />
        <TickField
          className="pb-1.5"
          checked={list.startsItself}
          onChange={(startsItself) =>
            set(
              { startsItself },
              `“${list.name}” ${startsItself ? 'starts by itself' : 'waits for its key'}.`,
            )
          }
        >
          starts by itself
        </TickField>
        <span className="flex-1" />
        <Button
          kind="quiet"
          size="icon"
          aria-label={`Remove “${list.name}”`}
          onClick={() =>
            run(
              { name: 'remove', kind: 'scanList', ids: [list.id] },
              `Removed “${list.name}”. Ctrl Z brings it back.`,
            )
          }
        >
          <Trash2 size={14} className="text-soft" aria-hidden />
        </Button>
      </div>
      <div className="flex min-h-0 flex-1 gap-4 px-4 py-3 text-[13px]">
        <div className="flex min-h-0 w-[46%] flex-col">
          <h3 className="pb-1 font-semibold">
            Looks at{' '}
            <span
              className={clsx(
                'font-normal tabular-nums',
                members.length > has.members ? 'text-caution' : 'text-soft',
              )}
            >
              {members.length} of {has.members}, {roundSeconds(members.length).toFixed(1)} s a round
            </span>
          </h3>
          <Scroll label="What it looks at" className="flex-1 rounded-md border border-line">
            {members.length === 0 && (
              <p className="p-3 text-soft">Nothing yet. Take channels from beside, or drop some here.</p>
            )}
            <ol>
              {members.map((channel, at) => (
                <li key={channel.id} className="flex h-8 items-center gap-1 border-b border-line px-2">
                  <span className="mono w-5 text-right text-soft">{at + 1}</span>
                  <span className="min-w-0 flex-1 truncate pl-1 font-medium">
                    {channel.name || 'no name'}
                  </span>
                  {channel.alwaysOn && <span className="text-[12px] text-caution">never silent</span>}
                  <Icon label={`“${channel.name}” up`} disabled={at === 0} onClick={() => move(at, -1)}>
                    <ChevronUp size={13} aria-hidden />
                  </Icon>
                  <Icon
                    label={`“${channel.name}” down`}
                    disabled={at === members.length - 1}
                    onClick={() => move(at, 1)}
                  >
                    <ChevronDown size={13} aria-hidden />
                  </Icon>
                  <Icon
                    label={`Take “${channel.name}” out`}
                    onClick={() =>
                      set(
                        { members: list.members.filter((id) => id !== channel.id) },
                        `Took “${channel.name}” out.`,
                      )
                    }
                  >
                    <X size={13} aria-hidden />
                  </Icon>
                </li>
              ))}
            </ol>
          </Scroll>
        </div>
        <div className="flex min-h-0 flex-1 flex-col gap-3">
          <div className="flex min-h-0 flex-1 flex-col">
            <h3 className="pb-1 font-semibold">Could look at</h3>
            <Scroll label="Other channels" className="flex-1 rounded-md border border-line">
              <ul>
                {others.slice(0, 300).map((channel) => (
                  <li key={channel.id} className="flex h-8 items-center gap-2 border-b border-line px-2">
                    <Icon label={`Add “${channel.name}”`} onClick={() => addMembers([channel.id])}>
                      <Plus size={13} aria-hidden />
                    </Icon>
                    <span className="min-w-0 flex-1 truncate">{channel.name || 'no name'}</span>
                  </li>
                ))}
              </ul>
              {others.length > 300 && (
                <p className="p-2 text-soft">and {others.length - 300} more: see the matrix.</p>
              )}
            </Scroll>
          </div>
          <p>
            <span className="font-semibold">
              {has.by === 'channel' ? 'Scanned from the channels' : `Scanned in the ${zoneWord(organising)}s`}
              :
            </span>{' '}
            {owners.length === 0 ? (
              <span className="text-caution">none, so that nobody scans it.</span>
            ) : (
              owners.map(({ name }) => name || 'no name').join(', ')
            )}
          </p>
          <div className="flex flex-wrap items-end gap-2">
            {has.by === 'zone' ? (
              <Choice
                className="w-52"
                label={`Give it to a ${zoneWord(organising)}`}
                value="none"
                options={[
                  ['none', 'choose one'] as const,
                  ...plan.zones
                    .filter(({ scanList }) => scanList !== list.id)
                    .map(({ id, name }) => [id as string, name] as const),
                ]}
                onChange={(id) => {
                  const zone = plan.zones.find((one) => one.id === id);
                  if (zone)
                    run(
                      {
                        name: 'change',
                        kind: 'zone',
                        changes: [{ id: zone.id, set: { scanList: list.id } }],
                      },
                      `“${zone.name}” scans “${list.name}”.`,
                    );
                }}
              />
            ) : (
              <Button
                size="small"
                disabled={members.length === 0 || members.every(({ scanList }) => scanList === list.id)}
                onClick={() =>
                  run(
                    {
                      name: 'change',
                      changes: members.map(({ id }) => ({ id, set: { scanList: list.id } })),
                    },
                    `Every channel of “${list.name}” scans it.`,
                  )
                }
              >
                Give it to all its channels
              </Button>
            )}
          </div>
          <BesidesList organising={organising} kind="scanList" id={list.id} />
        </div>
      </div>
    </section>
  );
}

function Icon({ label, ...rest }: { label: string } & React.ComponentProps<'button'>) {
  return (
    <button
      type="button"
      aria-label={label}
      className="grid size-6 shrink-0 place-items-center rounded text-soft hover:text-ink disabled:opacity-30"
      {...rest}
    />
  );
}
