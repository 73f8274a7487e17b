'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { useMemo, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { joining, matrixKindsOf, matrixOf, type Cell, type MatrixKind } from '@/core/organise';
import { slotText } from '@/core/plan';
import { capital } from '@/core/text';
import { Button, Choice } from '@/ui';
import { MatrixRow } from './matrix-row';
import { newId, zoneWord, type Organising } from './use-organise';

const ROW_HEIGHT = 26;
const COLUMN_WIDTH = 34;
const SIDE_WIDTH = 250;
const HEAD_HEIGHT = 124;

/** Channels or talkgroups against zones, scan lists or receive lists: tick to join, whole rows and columns, counts at the edges. */
export function MatrixPane({ organising }: { organising: Organising }) {
  const { plan, model, run, setSaid } = organising;
  const kinds = matrixKindsOf(model);
  const [kind, setKind] = useState<MatrixKind>(kinds[0]!);
  const [search, setSearch] = useState('');
  const [at, setAt] = useState<readonly [number, number]>([0, 0]);
  const matrix = useMemo(() => matrixOf(plan, model, kind), [plan, model, kind]);
  const rows = useMemo(() => {
    const wanted = search.trim().toLowerCase();
    return wanted === ''
      ? matrix.rows
      : matrix.rows.filter(({ name, detail }) => `${detail} ${name}`.toLowerCase().includes(wanted));
  }, [matrix.rows, search]);
  const { columns } = matrix;
  const words: Record<MatrixKind, string> = {
    zone: `${zoneWord(organising)}s`,
    scanList: 'scan lists',
    receiveList: 'receive lists',
  };
  const view = useRef<HTMLDivElement>(null);
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => view.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 6,
    scrollPaddingStart: HEAD_HEIGHT,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => view.current,
    estimateSize: () => COLUMN_WIDTH,
    overscan: 4,
    scrollPaddingStart: SIDE_WIDTH,
  });

  const join = (cells: readonly Cell[], on: boolean) => {
    const { edit, done, over } = joining(plan, model, kind, cells, on);
    const room = over > 0 ? ` ${over} found no room.` : '';
    if (!edit) return setSaid(over > 0 ? `Full:${room}` : 'They are so already.');
    const what = kind === 'receiveList' ? 'talkgroup' : 'channel';
    run(edit, `${on ? 'Joined' : 'Parted'} ${done} ${what}${done === 1 ? '' : 's'}.${room}`);
  };
  const toggle = (row: number, column: number) => {
    const [one, of] = [rows[row], columns[column]];
    if (one && of) join([{ row: one.id, column: of.id }], !of.members.has(one.id));
  };
  const wholeColumn = (column: number) => {
    const of = columns[column]!;
    join(
      rows.map(({ id }) => ({ row: id, column: of.id })),
      !rows.every(({ id }) => of.members.has(id)),
    );
  };
  const wholeRow = (row: number) => {
    const { id } = rows[row]!;
    join(
      columns.map((column) => ({ row: id, column: column.id })),
      !columns.every(({ members }) => members.has(id)),
    );
  };
  const go = (row: number, column: number) => {
    const to = [
      Math.max(0, Math.min(rows.length - 1, row)),
      Math.max(0, Math.min(columns.length - 1, column)),
    ] as const;
    setAt(to);
    down.scrollToIndex(to[0]);
    across.scrollToIndex(to[1]);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    const [row, column] = at;
    const page = Math.max(1, Math.floor((view.current?.clientHeight ?? 300) / ROW_HEIGHT) - 5);
    const to: Record<string, readonly [number, number]> = {
      ArrowDown: [row + 1, column],
      ArrowUp: [row - 1, column],
      ArrowRight: [row, column + 1],
      ArrowLeft: [row, column - 1],
      PageDown: [row + page, column],
      PageUp: [row - page, column],
      Home: [event.ctrlKey ? 0 : row, 0],
      End: [event.ctrlKey ? rows.length - 1 : row, columns.length - 1],
    };
    const next = to[event.key];
    if (next) go(...next);
    else if (event.key === ' ' && event.shiftKey && rows[row]) wholeRow(row);
    else if (event.key === ' ' && event.ctrlKey && columns[column]) wholeColumn(column);
    else if (event.key === ' ' || event.key === 'Enter') toggle(row, column);
    else return;
    event.preventDefault();
  };
  const onClick = (event: MouseEvent) => {
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
    const column =
      row && Math.floor((event.clientX - row.getBoundingClientRect().left - SIDE_WIDTH) / COLUMN_WIDTH);
    // What lies behind the names is not pressed.
    const beside = event.clientX - (view.current?.getBoundingClientRect().left ?? 0) < SIDE_WIDTH;
    if (!row || column === null || beside || column < 0 || column >= columns.length) return;
    setAt([Number(row.dataset.row), column]);
    view.current?.focus({ preventScroll: true });
    toggle(Number(row.dataset.row), column);
  };
  const add = () => {
    const n = columns.length + 1;
    if (kind === 'zone')
      return organising.addZones([{ name: `${capital(zoneWord(organising))} ${n}`, members: [] }]);
    if (kind === 'receiveList')
      return run(
        {
          name: 'put',
          kind,
          records: [{ id: newId.receiveList(), name: `Receive list ${n}`, members: [] }],
          before: null,
        },
        'Added a receive list.',
      );
    const list = { id: newId.scanList(), name: `Scan list ${n}`, members: [], first: null, second: null };
    return run(
      {
        name: 'put',
        kind,
        records: [{ ...list, answers: model.scanLists!.answers[0]!, startsItself: false }],
        before: null,
      },
      'Added a scan list.',
    );
  };
  const along = across.getVirtualItems();
  const [first, last] = [along[0]?.index ?? 0, along[along.length - 1]?.index ?? -1];
  const width = SIDE_WIDTH + across.getTotalSize();
  return (
    <section
      aria-label="Matrix"
      className="flex min-h-0 min-w-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <div className="flex shrink-0 flex-wrap items-end gap-3 border-b border-line-strong px-3 py-2 text-[13px]">
        <Choice
          className="w-56"
          label="What is joined"
          value={kind}
          options={kinds.map(
            (one) => [one, `${one === 'receiveList' ? 'Talkgroups' : 'Channels'} and ${words[one]}`] as const,
          )}
          onChange={(next) => {
            setKind(next);
            setAt([0, 0]);
          }}
        />
        <label className="flex flex-col gap-1 text-soft">
          Find
          <input
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
              setAt([0, 0]);
            }}
            className="h-8 w-40 rounded-md border border-line-strong bg-sheet px-2 text-[14px] text-ink"
          />
        </label>
        <Button disabled={columns.length >= 1000} onClick={add}>
          New {words[kind].slice(0, -1)}
        </Button>
        <span className="pb-1.5 text-soft tabular-nums">
          {columns.length} of {matrix.most} {words[kind]}
        </span>
        <span className="flex-1" />
        <span className="pb-1.5 text-[12.5px] text-soft">
          Space joins or parts; with Shift the row, with Ctrl the list
        </span>
      </div>
      {columns.length === 0 || matrix.rows.length === 0 ? (
        <p className="p-4 text-[14px]">
          {columns.length === 0
            ? `No ${words[kind].slice(0, -1)} yet: press New.`
            : kind === 'receiveList'
              ? 'No talkgroup yet: add some under Talkgroups.'
              : 'No channel yet.'}
        </p>
      ) : (
        <div
          ref={view}
          role="grid"
          aria-label={`${kind === 'receiveList' ? 'Talkgroups' : 'Channels'} and ${words[kind]}`}
          aria-rowcount={rows.length + 1}
          aria-colcount={columns.length + 1}
          aria-activedescendant={rows[at[0]] ? `joins-${at[0]}-${at[1]}` : undefined}
          tabIndex={0}
          className="min-h-0 flex-1 overflow-auto outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--receive)]"
          onKeyDown={onKeyDown}
          onClick={onClick}
        >
          <div role="rowgroup" className="sticky top-0 z-20 bg-sheet" style={{ width, height: HEAD_HEIGHT }}>
            <div role="row" aria-rowindex={1} className="relative h-full border-b border-line-strong">
              <span
                role="columnheader"
                className="sticky left-0 z-10 flex h-full items-end border-r border-line-strong bg-sheet px-2 pb-1 text-[12px] text-soft"
                style={{ width: SIDE_WIDTH }}
              >
                {rows.length} {kind === 'receiveList' ? 'talkgroups' : 'channels'}
              </span>
              {along.map(({ index, start }) => {
                const { id, name, members, most } = columns[index]!;
                const over = most !== null && members.size > most;
                return (
                  <div
                    key={id}
                    role="columnheader"
                    aria-colindex={index + 2}
                    className="absolute bottom-0 flex flex-col items-center justify-end gap-1 border-r border-line pb-1"
                    style={{ left: SIDE_WIDTH + start, width: COLUMN_WIDTH, height: HEAD_HEIGHT }}
                  >
                    <button
                      type="button"
                      tabIndex={-1}
                      title={`${name}: all that is shown, or none`}
                      className="max-h-[84px] rotate-180 truncate text-[12.5px] font-medium [writing-mode:vertical-rl] hover:text-receive"
                      onClick={() => wholeColumn(index)}
                    >
                      {name}
                    </button>
                    <span
                      className={clsx(
                        'mono text-center text-[10px] leading-[11px]',
                        over || members.size === most ? 'text-caution' : 'text-soft',
                      )}
                    >
                      {members.size}
                      {most !== null && <span className="block text-soft">of {most}</span>}
                    </span>
                  </div>
                );
              })}
            </div>
          </div>
          <div
            role="rowgroup"
            className="relative"
            style={{
              ...{ width, height: down.getTotalSize() },
              // The lines between the columns.
              backgroundImage: `repeating-linear-gradient(to right, transparent 0 ${COLUMN_WIDTH - 1}px, var(--line) ${COLUMN_WIDTH - 1}px ${COLUMN_WIDTH}px)`,
              ...{ backgroundPositionX: SIDE_WIDTH, backgroundRepeat: 'no-repeat' },
            }}
          >
            {down.getVirtualItems().map(({ index, start }) => (
              <MatrixRow
                key={rows[index]!.id}
                row={index}
                id={rows[index]!.id}
                name={rows[index]!.name || 'no name'}
                detail={kind === 'receiveList' ? String(rows[index]!.detail) : slotText(rows[index]!.detail)}
                columns={columns}
                first={first}
                last={last}
                top={start}
                height={ROW_HEIGHT}
                side={SIDE_WIDTH}
                cell={COLUMN_WIDTH}
                active={at[0] === index ? at[1] : -1}
                onWhole={wholeRow}
              />
            ))}
          </div>
        </div>
      )}
    </section>
  );
}
