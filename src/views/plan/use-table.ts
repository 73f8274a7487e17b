'use client';

import { useMemo, useRef, useState } from 'react';
import {
  cellText,
  fillDown,
  makeId,
  parseCell,
  previewPlacing,
  SLOT_LIMIT,
  swap,
  withIds,
  isMarked,
  unclearReason,
  UNCLEAR_LIMIT,
  type MarkedColumn,
  type Channel,
  type ChannelId,
  type ChannelSet,
  type Column,
} from '@/core/plan';
import { slotsOf } from '@/core/models';
import { fail, ok, type Result } from '@/core/result';
import { cutText } from '@/core/text';
import {
  at,
  blockColumns,
  hold,
  NEW,
  placeOf,
  type Cell,
  type HeldSelection,
  type Selection,
} from './selection';
import { useLayout } from './columns';
import { channelOfTexts, keepNewRow, readNewRow, understoodAlone, type NewRowTexts } from './new-row';
import type { PlanInHand } from './use-plan';
import { useRows } from './use-rows';

/**
 * A cell that is being typed in: of a channel, wherever its row goes meanwhile, or of the row of new ones. `reason` is why what
 * stands there is not understood.
 */
export interface Editing {
  id: RecordId;
  column: Column;
  text: string;
  reason: string | null;
}

/** A channel, or the row of new ones. */
export type RecordId = ChannelId | typeof NEW;
const given = (result: Result<unknown>, id: RecordId): Result<RecordId> => (result.ok ? ok(id) : result);

/** The channels of the list that is shown first. */
const firstList = ({ plan, model }: PlanInHand) =>
  model.lists.length > 1 ? plan.channels.filter(({ list }) => list === 0) : plan.channels;

/** The state of the channel table: which rows are shown, what is chosen, what is being typed, and what a commit does. */
export function useTable(hand: PlanInHand) {
  const { plan, model, store, context } = hand;
  const [held, setHeld] = useState<HeldSelection>(() => hold(at(0, 'name'), firstList(hand)));
  const [editing, setEditing] = useState<Editing | null>(null);
  /** The list that is shown, where the radio has several; a plan for one list shows all that there are. */
  const [list, setList] = useState(0);
  const [newRowTexts, setNewRowTexts] = useState(() => ({ list: 0, texts: readNewRow(plan.id, 0) }));
  const newRow = newRowTexts.list === list ? newRowTexts.texts : readNewRow(plan.id, list);
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

  const range = useMemo(() => slotsOf(model, list) ?? model.slots, [model, list]);
  const nextFree = useMemo(
    () => previewPlacing(plan.channels, 1, 'next-free', range.first, range, list).assigned[0]?.slot ?? null,
    [plan.channels, range, list],
  );
  /** Rows with the empty one at the end, where a new channel is typed. */
  const rowCount = rows.length + (nextFree !== null && !filtered ? 1 : 0);

  const rowOf = useMemo(() => new Map(rows.map(({ id }, row) => [id, row])), [rows]);
  // The focus stays with its channel where the rows are others, or in another order; where that is not shown, on the first. Known
  // before anything is drawn: an effect would have the whole table drawn twice.
  const [looked, setLooked] = useState({ wishes, sorted });
  if (looked.wishes !== wishes || looked.sorted !== sorted) {
    setLooked({ wishes, sorted });
    const { id, column } = held.active;
    setHeld(hold(at((id !== null && id !== NEW && rowOf.get(id)) || 0, column), rows));
  }
  const selection = useMemo<Selection>(
    () => ({
      active: placeOf(held.active, rowOf, rowCount),
      anchor: placeOf(held.anchor, rowOf, rowCount),
      added: held.added,
    }),
    [held, rowOf, rowCount],
  );
  /** The channel with the focus is not shown any more: what is typed goes nowhere until a cell is chosen. */
  const lost = held.active.id !== null && held.active.id !== NEW && !rowOf.has(held.active.id);
  const setSelection = (next: Selection) => {
    run.current = null;
    setHeld(hold(next, rows));
  };

  const layout = useLayout();
  const columns = blockColumns(selection, layout.columns);
  /** The channels of the block, in the order of the rows. */
  const block = useMemo(() => {
    const kept = rows.filter(({ id }) => held.block.has(id));
    // Where all of it has gone, the row that is there instead has the focus.
    return kept.length > 0 || lost ? kept : rows.slice(selection.active.row, selection.active.row + 1);
  }, [rows, held.block, lost, selection.active.row]);
  const chosen = useMemo(
    () => new Set<ChannelId>([...held.added, ...block.map(({ id }) => id)]),
    [block, held.added],
  );
  const chosenChannels = useMemo(() => withIds(plan.channels, chosen), [plan.channels, chosen]);
  const active: Channel | undefined = rows[selection.active.row];

  const beginEdit = (cell: Cell, typed?: string) => {
    const channel = rows[cell.row];
    const id = channel?.id ?? NEW;
    run.current ??= { column: cell.column, fresh: id === NEW, tabbed: false };
    const marked = channel ? channel.unclear?.[cell.column as MarkedColumn] : newRow[cell.column];
    const text = typed ?? marked ?? (channel ? cellText(channel, cell.column) : '');
    const reason =
      typed === undefined && channel && marked !== undefined
        ? unclearReason(channel, cell.column as MarkedColumn, context)
        : null;
    setEditing({ id, column: cell.column, text, reason });
  };

  const change = (changes: { id: ChannelId; set: ChannelSet }[]): Result<unknown> =>
    changes.length === 0 ? ok(plan) : store.apply({ name: 'change', changes });

  const setNewRow = (texts: NewRowTexts) => {
    setNewRowTexts({ list, texts });
    keepNewRow(plan.id, list, texts);
  };

  /** Takes what was typed into the empty row; it becomes a channel with its receive frequency. Gives the record that it is then. */
  const typeNewRow = (column: Column, text: string): Result<RecordId> => {
    const { [column]: _, ...others }: NewRowTexts = newRow;
    const texts: NewRowTexts = text.trim() === '' ? others : { ...others, [column]: text };
    if (column === 'slot' && text.trim() !== '') {
      const free = freeSlot(text);
      if (!free.ok) return free;
    }
    if ((texts.rx ?? '').trim() === '') {
      const alone = text.trim() === '' ? ok(null) : understoodAlone(column, text, context);
      if (!alone.ok) return alone;
      setNewRow(texts);
      return ok(NEW);
    }
    const made = channelOfTexts(texts, context);
    if (!made.ok) return made;
    setRemark(made.value.note);
    const id = makeId('ch', crypto.getRandomValues(new Uint8Array(12))) as ChannelId;
    const asked = texts.slot === undefined ? null : freeSlot(texts.slot);
    const { fields, unclear } = made.value;
    const placed = store.apply({
      name: 'place',
      channels: [{ ...fields, id, ...(Object.keys(unclear).length > 0 && { unclear }) }],
      ...(asked?.ok ? { placement: 'at-slot', at: asked.value } : { placement: 'next-free', at: nextFree! }),
      range,
      ...(list > 0 && { list }),
    });
    if (!placed.ok) return placed;
    setNewRow({});
    return ok(id);
  };

  const freeSlot = (text: string): Result<number> => {
    const slot = Number(text);
    if (!/^\d{1,4}$/.test(text.trim()) || slot < range.first || slot >= range.first + range.count)
      return fail(`Type a slot from ${range.first} to ${range.first + range.count - 1}.`);
    return plan.channels.some((other) => other.slot === slot && other.list === list)
      ? fail(`Slot ${slot} is in use.`)
      : ok(slot);
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
  const commitText = ({ id, column, text }: Editing, all: boolean): Result<RecordId> => {
    setRemark('');
    if (id === NEW) return typeNewRow(column, text);
    const channel = plan.channels.find((one) => one.id === id);
    if (!channel) return fail(`Not taken: “${text}”. Its channel is not in the plan any more.`);
    if (column === 'slot') return given(moveTo(channel, text), id);
    if (!all && text === cellText(channel, column) && !isMarked(channel, column)) return ok(id);
    const targets = all ? chosenChannels : [channel];
    const changes: { id: ChannelId; set: ChannelSet }[] = [];
    for (const target of targets) {
      const parsed = parseCell(column, text, target, context);
      if (!parsed.ok) return parsed;
      changes.push({ id: target.id, set: parsed.value });
      if (parsed.note !== undefined) setRemark(parsed.note);
    }
    return given(change(changes), id);
  };

  /**
   * Ends typing. Where the text is not understood the cell stays open with its reason; `leave` marks the cell with the text and
   * lets go of it. Gives the record that the text went to, or null where the cell stays open.
   */
  const commit = ({
    leave = false,
    all = false,
    text = editing?.text ?? '',
  }: { leave?: boolean; all?: boolean; text?: string } = {}): RecordId | null => {
    if (!editing) return NEW;
    const { id, column } = editing;
    const result = commitText({ ...editing, text }, all);
    if (result.ok) {
      setEditing(null);
      return result.value;
    }
    if (leave) {
      mark(id, column, text);
      setEditing(null);
    } else setEditing({ ...editing, text, reason: result.reason });
    return null;
  };

  /** Keeps a text that is not understood in its cell, as part of the plan: Check names it, and no write takes the channel until it is clear. */
  const mark = (id: RecordId, column: Column, text: string) => {
    if (id === NEW) return setNewRow({ ...newRow, [column]: text });
    const channel = store.get().plan.channels.find((one) => one.id === id);
    if (!channel || column === 'slot') return;
    const kept = cutText(text.trim(), UNCLEAR_LIMIT);
    // The field is left by the pointer and then by the focus: it is marked once.
    if (channel.unclear?.[column] !== kept)
      change([{ id, set: { unclear: { ...channel.unclear, [column]: kept } } }]);
  };

  /** Closes the cell, which is as it was before; a text that it keeps stays. */
  const cancel = () => setEditing(null);

  // A row of typing: where it was begun, so that Enter leads back to that column, and whether it began in the empty row.
  const run = useRef<{ column: Column; fresh: boolean; tabbed: boolean } | null>(null);
  const goTo = (id: RecordId, column: Column, row: number) => {
    const cell = { id, row, column };
    setHeld({ active: cell, anchor: cell, block: new Set(id === NEW ? [] : [id]), added: new Set() });
  };
  /** Goes on from a cell of a record, which may have moved by what was typed: with Tab along its row, with Enter to the next row. */
  const goOn = (id: RecordId, from: Cell, key: 'Tab' | 'Enter', back: boolean): boolean => {
    const { fresh } = (run.current ??= { column: from.column, fresh: false, tabbed: false });
    const tabs: Column[] = layout.columns.filter((column) => column !== 'slot');
    const next = tabs[tabs.indexOf(from.column) + (back ? -1 : 1)];
    if (key === 'Tab' && next) {
      run.current.tabbed = true;
      goTo(id, next, from.row);
      return true;
    }
    const column = key === 'Enter' ? run.current.column : back ? tabs.at(-1)! : tabs[0]!;
    // The empty row is left by Tab where nothing has become of it, so that the keyboard is never caught in it.
    if (fresh && !back && rowCount > rows.length && (key === 'Enter' || id !== NEW)) {
      run.current = null;
      goTo(NEW, column, rows.length);
      return true;
    }
    const row = from.row + (back ? -1 : 1);
    // Past the first and last cell Tab leaves the table, so that the keyboard is never caught in it.
    if (key === 'Tab' && (row < 0 || row >= rowCount)) return false;
    run.current = null;
    const beside = rows[Math.max(0, row)];
    if (beside) goTo(beside.id, column, row);
    else if (rowCount > rows.length) goTo(NEW, column, rows.length);
    else goTo(id, column, from.row);
    return true;
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
    newRow,
    /** Tab or Enter in a cell where nothing is typed; false where Tab leaves the table or Enter means something else. */
    goOnFrom(cell: Cell, key: 'Tab' | 'Enter', back: boolean): boolean {
      // Enter types in the cell, but where a row is under way: then it ends the row.
      if (key === 'Enter' && !run.current?.tabbed) return false;
      return goOn(rows[cell.row]?.id ?? NEW, cell, key, back);
    },
    goOn,
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
    block,
    lost,
    layout,
    chosen,
    chosenChannels,
    active,
    editing,
    editingCell,
    setEditing,
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
    fill: () => change(fillDown(block, columns)),
  };
}

export type Table = ReturnType<typeof useTable>;
