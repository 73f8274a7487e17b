'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { Trash2 } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { hexadecimal, TALKGROUP_NAME_LIMIT, type Call, type Talkgroup } from '@/core/plan';
import { Button, Choice, SeverityMark, Tick } from '@/ui';
import { FromRepeater } from './from-repeater';
import { NameField } from './name-field';
import { NewTalkgroup, NumberField } from './number-field';
import { newId, type Organising } from './use-organise';

const ROW_HEIGHT = 34;
const COLUMNS = 'grid-cols-[44px_minmax(160px,1fr)_110px_110px_130px_96px_minmax(150px,1fr)_36px]';

export const CALL_WORDS: Record<Call, string> = { group: 'a group', private: 'one person', all: 'everybody' };

/** Talkgroups and people of the plan: numbers both ways, whom a call is for, and who uses them. */
export function TalkgroupsPane({ organising }: { organising: Organising }) {
  const { plan, model, besides, run } = organising;
  const [search, setSearch] = useState('');
  const [from, setFrom] = useState(false);
  const has = model.digital!.talkgroups;
  const together = model.digital!.people.where === 'talkgroups';
  const uses = useMemo(() => {
    const channels = new Map<string, number>();
    const lists = new Map<string, number>();
    for (const { talkgroup } of plan.channels)
      if (talkgroup) channels.set(talkgroup, (channels.get(talkgroup) ?? 0) + 1);
    for (const { members } of plan.receiveLists)
      for (const id of members) lists.set(id, (lists.get(id) ?? 0) + 1);
    return { channels, lists };
  }, [plan.channels, plan.receiveLists]);
  const shown = useMemo(() => {
    const wanted = search.trim().toLowerCase();
    return plan.talkgroups
      .map((group, at) => ({ group, at }))
      .filter(
        ({ group: { name, number } }) =>
          wanted === '' ||
          name.toLowerCase().includes(wanted) ||
          String(number).includes(wanted) ||
          hexadecimal(number).toLowerCase().includes(wanted),
      );
  }, [plan.talkgroups, search]);
  const said = useMemo(
    () => new Map(besides.filter(({ kind }) => kind === 'talkgroup').map((one) => [one.id, one])),
    [besides],
  );
  const view = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => view.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
  });
  const set = (group: Talkgroup, fields: Partial<Talkgroup>, done: string) =>
    run({ name: 'change', kind: 'talkgroup', changes: [{ id: group.id, set: fields }] }, done);
  return (
    <section
      aria-label="Talkgroups"
      className="flex min-h-0 min-w-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <div className="flex shrink-0 flex-wrap items-end gap-3 border-b border-line-strong px-3 py-2 text-[13px]">
        <NewTalkgroup
          onAdd={(fields) =>
            run(
              {
                name: 'put',
                kind: 'talkgroup',
                records: [{ ...fields, id: newId.talkgroup() }],
                before: null,
              },
              `Added “${fields.name}”, ${fields.number}.`,
            )
          }
        />
        <Button onClick={() => setFrom(!from)} aria-expanded={from}>
          From a repeater
        </Button>
        <span className="flex-1" />
        <label className="flex flex-col gap-1 text-soft">
          Find
          <input
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder="name or number"
            className="h-8 w-44 rounded-md border border-line-strong bg-sheet px-2 text-[14px] text-ink placeholder:text-soft"
          />
        </label>
        <span
          className={clsx(
            'pb-1.5 tabular-nums',
            plan.talkgroups.length > has.count ? 'text-caution' : 'text-soft',
          )}
        >
          {plan.talkgroups.length} of {has.count} {together && 'with people'}
        </span>
      </div>
      {from ? (
        <FromRepeater organising={organising} onClose={() => setFrom(false)} />
      ) : plan.talkgroups.length === 0 ? (
        <p className="max-w-[60ch] p-4 text-[14px]">
          No talkgroup yet. Write a name and a number above, or let a repeater of the directory bring its own:
          “From a repeater”.
        </p>
      ) : (
        <div
          ref={view}
          role="table"
          aria-label="All talkgroups"
          aria-rowcount={shown.length + 1}
          className="min-h-0 flex-1 overflow-y-auto"
        >
          <div
            role="row"
            className={clsx(
              'sticky top-0 z-10 grid h-8 items-center gap-2 border-b border-line bg-sheet px-3 text-[12px] font-semibold text-soft',
              COLUMNS,
            )}
          >
            <span role="columnheader" className="text-right">
              No.
            </span>
            <span role="columnheader">Name</span>
            <span role="columnheader">Decimal</span>
            <span role="columnheader">Hexadecimal</span>
            <span role="columnheader">Calls</span>
            <span role="columnheader">Encrypted</span>
            <span role="columnheader">Used by</span>
            <span role="columnheader">
              <span className="sr-only">Remove</span>
            </span>
          </div>
          <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map(({ index, start }) => {
              const { group, at } = shown[index]!;
              const finding = said.get(group.id);
              const [called, heard] = [uses.channels.get(group.id) ?? 0, uses.lists.get(group.id) ?? 0];
              return (
                <div
                  key={group.id}
                  role="row"
                  aria-rowindex={index + 2}
                  className={clsx(
                    'absolute inset-x-0 grid items-center gap-2 border-b border-line px-3 text-[13.5px] hover:bg-wash-faint',
                    COLUMNS,
                  )}
                  style={{ top: start, height: ROW_HEIGHT }}
                >
                  <span
                    role="cell"
                    className={clsx('mono text-right', at >= has.count ? 'text-caution' : 'text-soft')}
                  >
                    {at + 1}
                  </span>
                  <span role="rowheader" className="flex min-w-0">
                    <NameField
                      label={`Name of talkgroup ${at + 1}`}
                      name={group.name}
                      limit={TALKGROUP_NAME_LIMIT}
                      className="font-medium"
                      onName={(name) => set(group, { name }, `Named “${name}”.`)}
                    />
                  </span>
                  <span role="cell">
                    <NumberField
                      key={group.number}
                      label={`Number of “${group.name}”`}
                      number={group.number}
                      onNumber={(number) =>
                        set(group, { number }, `“${group.name}” has the number ${number}.`)
                      }
                    />
                  </span>
                  <span role="cell" className="mono text-soft">
                    {hexadecimal(group.number)}
                  </span>
                  <span role="cell">
                    <Choice
                      hideLabel
                      label={`Whom “${group.name}” calls`}
                      value={group.call}
                      options={has.calls.map((call) => [call, CALL_WORDS[call]] as const)}
                      onChange={(call) => set(group, { call }, `“${group.name}” calls ${CALL_WORDS[call]}.`)}
                    />
                  </span>
                  <span role="cell">
                    <Tick
                      aria-label={`“${group.name}” is encrypted`}
                      checked={group.encrypted ?? false}
                      onCheckedChange={(on) =>
                        set(
                          group,
                          { encrypted: on === true },
                          `“${group.name}” is ${on === true ? '' : 'not '}encrypted.`,
                        )
                      }
                    />
                  </span>
                  <span
                    role="cell"
                    className="flex min-w-0 items-center gap-1.5 text-[12.5px] text-soft"
                    title={finding?.text}
                  >
                    {finding && <SeverityMark severity={finding.severity} size={10} />}
                    <span className="truncate">
                      {called === 0 && heard === 0
                        ? 'nothing'
                        : `${called === 1 ? '1 channel' : `${called} channels`}, ${heard === 1 ? '1 list' : `${heard} lists`}`}
                    </span>
                  </span>
                  <span role="cell">
                    <Button
                      kind="quiet"
                      size="icon"
                      className="size-7!"
                      aria-label={`Remove “${group.name}”`}
                      onClick={() =>
                        run(
                          { name: 'remove', kind: 'talkgroup', ids: [group.id] },
                          `Removed “${group.name}”. Ctrl Z brings it back.`,
                        )
                      }
                    >
                      <Trash2 size={13} className="text-soft" aria-hidden />
                    </Button>
                  </span>
                </div>
              );
            })}
          </div>
        </div>
      )}
    </section>
  );
}
