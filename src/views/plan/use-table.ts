'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import {
  cellText,
  channelDefaults,
  fillDown,
  makeId,
  parseCell,
  previewPlacing,
  SLOT_LIMIT,
  swap,
  withIds,
  type Channel,
  type ChannelId,
  type ChannelSet,
  type Column,
} from '@/core/plan';
import { slotsOf } from '@/core/models';
import { fail, ok, type Result } from '@/core/result';
import { at, blockColumns, blockRows, type Cell, type Selection } from './selection';
import { useLayout } from './columns';
import type { PlanInHand } from './use-plan';
import { useRows } from './use-rows';

/** The row where new channels are typed, as what its cells belong to. */
const NEW = 'new';

/**
 * A cell that is being typed in: of a channel, wherever its row goes meanwhile, or of the row of new ones. `reason` is why what
 * stands there is not understood.
 */
export interface Editing {
  id: ChannelId | typeof NEW;
  column: Column;
  text: string;
  reason: string | null;
}

/** What was typed and not understood stays in its cell with its reason, until it is put right or thrown away. */
export type Drafts = ReadonlyMap<string, { text: string; reason: string }>;
export const draftKey = (id: string, column: Column) => `${id} ${column}`;

/** The state of the channel table: which rows are shown, what is chosen, what is being typed, and what a commit does. */
export function useTable(hand: PlanInHand) {
  const { plan, model, store, context } = hand;
  const [selection, setSelection] = useState<Selection>(() => at(0, 'name'));
  const [editing, setEditing] = useState<Editing | null>(null);
  const [drafts, setDrafts] = useState<Drafts>(new Map());
  /** The list that is shown, where the radio has several; a plan for one list shows all that there are. */
  const [list, setList] = useState(0);
  /** What is worth knowing of the last thing that was typed and understood. */
  const [remark, setRemark] = useState('');

  const several = model.lists.length > 1;
  const listed = useMemo(
    () => (several ? plan.channels.filter((channel) => channel.list === list) : plan.channels),
    [several, plan.channels, list],
  );
  const { rows, filter, setFilter, wishes, factContext, filtered, order, sorted, setOrder } = useRows(
    hand,
    listed,
  );

  // The focus stays with its channel where the rows are others, or in another order; where that is not shown, on the first. Known
  // before anything is drawn: an effect would have the whole table drawn twice.
  const drawn = useRef(rows);
  useEffect(() => void (drawn.current = rows), [rows]);
  const [looked, setLooked] = useState({ wishes, sorted });
  if (looked.wishes !== wishes || looked.sorted !== sorted) {
    setLooked({ wishes, sorted });
    const focused = drawn.current[selection.active.row]?.id;
    const row = rows.findIndex(({ id }) => id === focused);
    setSelection(at(Math.max(0, row), selection.active.column));
  }

  const range = useMemo(() => slotsOf(model, list) ?? model.slots, [model, list]);
  const nextFree = useMemo(
    () => previewPlacing(plan.channels, 1, 'next-free', range.first, range, list).assigned[0]?.slot ?? null,
    [plan.channels, range, list],
  );
  /** Rows with the empty one at the end, where a new channel is typed. */
  const rowCount = rows.length + (nextFree !== null && !filtered ? 1 : 0);

  const layout = useLayout();
  const columns = blockColumns(selection, layout.columns);
  const [from, to] = blockRows(selection);
  const chosen = useMemo(() => {
    const ids = new Set<ChannelId>(selection.added);
    for (const channel of rows.slice(from, to + 1)) ids.add(channel.id);
    return ids;
  }, [rows, from, to, selection.added]);
  const chosenChannels = useMemo(() => withIds(plan.channels, chosen), [plan.channels, chosen]);
  const active: Channel | undefined = rows[selection.active.row];

  const setDraft = (key: string, draft: { text: string; reason: string } | null) =>
    setDrafts((now) => {
      if (draft === null && !now.has(key)) return now;
      const next = new Map(now);
      if (draft) next.set(key, draft);
      else next.delete(key);
      return next;
    });

  const beginEdit = (cell: Cell, typed?: string) => {
    const channel = rows[cell.row];
    const draft = drafts.get(draftKey(channel?.id ?? NEW, cell.column));
    const text = typed ?? draft?.text ?? (channel ? cellText(channel, cell.column) : '');
    const reason = typed === undefined ? (draft?.reason ?? null) : null;
    setEditing({ id: channel?.id ?? NEW, column: cell.column, text, reason });
  };

  const change = (changes: { id: ChannelId; set: ChannelSet }[]): Result<unknown> =>
    changes.length === 0 ? ok(plan) : store.apply({ name: 'change', changes });

  const addChannel = (column: Column, text: string): Result<unknown> => {
    if (column !== 'rx') return fail('Type the receive frequency of the new channel first.');
    const parsed = parseCell('rx', text, { rx: 0 }, context);
    if (!parsed.ok) return parsed;
    setRemark(parsed.note ?? '');
    const id = makeId('ch', crypto.getRandomValues(new Uint8Array(12)));
    return store.apply({
      name: 'place',
      channels: [{ ...channelDefaults(parsed.value.rx!), id }],
      placement: 'next-free',
      at: nextFree!,
      range,
      ...(list > 0 && { list }),
    });
  };

  const moveTo = (channel: Channel, text: string): Result<unknown> => {
    if (!/^\d{1,4}$/.test(text.trim()))
      return fail(`“${text.trim()}” is not a slot. Type a number from 0 to ${SLOT_LIMIT}.`);
    const slot = Number(text);
    if (slot === channel.slot) return ok(plan);
    const there = plan.channels.find((other) => other.slot === slot && other.list === channel.list);
    const moves = there ? swap(channel, there) : [{ id: channel.id, from: channel.slot, to: slot }];
    return store.apply({ name: 'arrange', how: there ? 'swap' : 'move', moves });
  };

  /** Takes what was typed into a cell; `all` sets it on every chosen channel. */
  const commitText = ({ id, column, text }: Editing, all: boolean): Result<unknown> => {
    setRemark('');
    if (id === NEW) return text.trim() === '' ? ok(null) : addChannel(column, text);
    const channel = plan.channels.find((one) => one.id === id);
    if (!channel) return fail(`Not taken: “${text}”. Its channel is not in the plan any more.`);
    if (column === 'slot') return moveTo(channel, text);
    if (!all && text === cellText(channel, column)) return ok(null);
    const targets = all ? chosenChannels : [channel];
    const changes: { id: ChannelId; set: ChannelSet }[] = [];
    for (const target of targets) {
      const parsed = parseCell(column, text, target, context);
      if (!parsed.ok) return parsed;
      changes.push({ id: target.id, set: parsed.value });
      if (parsed.note !== undefined) setRemark(parsed.note);
    }
    return change(changes);
  };

  /** Ends typing. Where the text is not understood the cell keeps it, with its reason; `leave` lets go of the cell all the same. */
  const commit = ({
    leave = false,
    all = false,
    text = editing?.text ?? '',
  }: { leave?: boolean; all?: boolean; text?: string } = {}): boolean => {
    if (!editing) return true;
    const { id, column } = editing;
    const key = draftKey(id, column);
    const result = commitText({ ...editing, text }, all);
    if (result.ok) {
      setDraft(key, null);
      setEditing(null);
      return true;
    }
    if (leave) {
      setDraft(key, { text, reason: result.reason });
      setEditing(null);
    } else setEditing({ ...editing, text, reason: result.reason });
    return false;
  };

  const cancel = () => {
    if (editing) setDraft(draftKey(editing.id, editing.column), null);
    setEditing(null);
  };

  /** Where the cell that is being typed in is now; null where its channel is gone or not shown. */
  const editingRow =
    editing === null
      ? -1
      : editing.id === NEW
        ? rows.length
        : rows.findIndex((channel) => channel.id === editing.id);
  const editingCell: Cell | null =
    editing && editingRow >= 0 ? { row: editingRow, column: editing.column } : null;
  // Somebody removed the channel, or undid what made it, while its cell was open.
  const orphan = editing !== null && editingCell === null ? editing : null;
  if (orphan) {
    setRemark(`Not taken: “${orphan.text}”. Its channel is not in the plan any more.`);
    setEditing(null);
  }

  const select = (id: ChannelId, column: Column = 'name') => {
    let row = rows.findIndex((channel) => channel.id === id);
    if (row < 0) {
      const wanted = plan.channels.find((channel) => channel.id === id);
      if (!wanted) return;
      setFilter('');
      setOrder(null);
      setList(wanted.list);
      row = plan.channels
        .filter((channel) => !several || channel.list === wanted.list)
        .findIndex((channel) => channel.id === id);
    }
    if (row >= 0) setSelection(at(row, column));
  };

  // A channel that was made a moment ago is chosen when the rows have it.
  const [awaited, setAwaited] = useState<{ id: ChannelId; column: Column; type: boolean } | null>(null);
  const awaitedRow = awaited === null ? -1 : rows.findIndex(({ id }) => id === awaited.id);
  if (awaited && awaitedRow >= 0) {
    setSelection(at(awaitedRow, awaited.column));
    if (awaited.type) setEditing({ id: awaited.id, column: awaited.column, text: '', reason: null });
    setAwaited(null);
  }

  return {
    rows,
    rowCount,
    nextFree,
    list,
    /** Shows another list of the radio. */
    showList(next: number) {
      setList(next);
      setSelection(at(0, 'name'));
    },
    range,
    selection,
    setSelection,
    columns,
    layout,
    chosen,
    chosenChannels,
    active,
    editing,
    editingCell,
    setEditing,
    drafts,
    setDraft,
    remark,
    setRemark,
    filter,
    setFilter,
    wishes,
    factContext,
    filtered,
    order,
    setOrder,
    beginEdit,
    commit,
    cancel,
    select,
    /** Chooses a channel as soon as it is among the rows; `type` opens its cell, empty. */
    selectLater: (id: ChannelId, column: Column = 'name', type = false) => setAwaited({ id, column, type }),
    change,
    fill: () => change(fillDown(rows.slice(from, to + 1), columns)),
  };
}

export type Table = ReturnType<typeof useTable>;
