'use client';

import { useState } from 'react';
import { OPEN } from '@/core/radio';
import {
  cellText,
  COLUMNS,
  parseBlock,
  reorder,
  type Arrangement,
  type Column,
  type Move,
} from '@/core/plan';
import type { Result } from '@/core/result';
import { at, blockColumns, blockRows } from './selection';
import { draftKey, type Table } from './use-table';
import type { PlanInHand } from './use-plan';

/** What can be done to the chosen channels, each as one edit. `said` is the last thing worth telling, for a live region. */
export function useActions(hand: PlanInHand, table: Table) {
  const { store, context } = hand;
  const { chosen, chosenChannels, selection, rows } = table;
  const [said, setSaid] = useState('');
  const say = (result: Result<unknown>, done = '') => setSaid(result.ok ? done : result.reason);

  const setAll = (set: Parameters<Table['change']>[0][number]['set']) =>
    say(table.change(chosenChannels.map(({ id }) => ({ id, set }))));

  /** Puts the chosen before the row with that number, and keeps them chosen. */
  const carry = (row: number) => {
    const moves = reorder(hand.plan, chosen, rows[row]?.id ?? null);
    if (moves.length === 0) return;
    const result = store.apply({ name: 'arrange', how: 'move', moves });
    say(result);
    if (!result.ok) return;
    const first = rows.slice(0, row).filter(({ id }) => !chosen.has(id)).length;
    table.setSelection({
      active: { row: first + chosen.size - 1, column: selection.active.column },
      anchor: { row: first, column: selection.anchor.column },
      added: new Set(),
    });
  };

  const move = (by: -1 | 1) => {
    const places = rows.flatMap(({ id }, row) => (chosen.has(id) ? [row] : []));
    if (places.length === 0) return;
    const next = by < 0 ? places[0]! - 1 : places.at(-1)! + 1;
    if (rows[next]) carry(by < 0 ? next : next + 1);
  };

  const CLEARED: Partial<Record<Column, Parameters<typeof setAll>[0]>> = {
    name: { name: '' },
    access: { access: OPEN },
  };

  return {
    said,
    setSaid,
    listenOnly: () => setAll({ tx: null }),
    toggleScan: () => setAll({ scan: !chosenChannels.every((channel) => channel.scan) }),
    toggleSatellite: () => setAll({ satellite: !chosenChannels.every((channel) => channel.satellite) }),
    toggleAlwaysOn: () => setAll({ alwaysOn: !chosenChannels.every((channel) => channel.alwaysOn) }),
    remove: () => {
      if (chosenChannels.length === 0) return;
      say(
        store.apply({ name: 'remove', ids: [...chosen] }),
        `Removed ${chosenChannels.length}. Ctrl Z brings back what was removed.`,
      );
      table.setSelection(at(Math.max(0, blockRows(selection)[0]), selection.active.column));
    },
    /** Empties the chosen cells; on the slot column it removes the channels. */
    clear() {
      if (selection.active.column === 'slot') return this.remove();
      const set = Object.assign({}, ...table.columns.map((column) => CLEARED[column] ?? {}));
      if (Object.keys(set).length > 0) setAll(set);
      else if (selection.active.column === 'tx')
        say(table.change(chosenChannels.map(({ id, rx }) => ({ id, set: { tx: rx, txFixed: false } }))));
    },
    fillDown: () => say(table.fill()),
    carry,
    moveUp: () => move(-1),
    moveDown: () => move(1),
    /** Carries out moves that have been previewed. */
    arrange: (how: Arrangement['how'], moves: Move[]) => say(store.apply({ name: 'arrange', how, moves })),
    copy(): string {
      const whole = selection.added.size > 0 || blockColumns(selection).length === COLUMNS.length;
      const [from, to] = blockRows(selection);
      const channels = whole ? chosenChannels : rows.slice(from, to + 1);
      const columns = whole ? COLUMNS : blockColumns(selection);
      return channels
        .map((channel) => columns.map((column) => cellText(channel, column)).join('\t'))
        .join('\r\n');
    },
    /** Pastes a block of cells from the focus rightwards and down; one cell goes to all that is chosen. */
    async paste(text: string) {
      const { default: Papa } = await import('papaparse');
      const cells = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
      const [from] = blockRows(selection);
      const one = cells.length === 1 && cells[0]!.length === 1;
      const first = Math.max(COLUMNS.indexOf(table.columns[0]!), 0);
      const wholeRows = first === 0 && cells[0]!.length > 1;
      const columns = COLUMNS.slice(wholeRows ? 1 : Math.max(1, first)) as Exclude<Column, 'slot'>[];
      const block = one
        ? chosenChannels.map(() => cells[0]!)
        : cells.map((row) => (wholeRows ? row.slice(1) : row));
      const targets = one ? chosenChannels : rows.slice(from, from + block.length);
      const pastedColumns = columns.slice(0, Math.max(...block.map((row) => row.length)));
      const parsed = parseBlock(block, targets, pastedColumns, context);
      const beyond = block.length - targets.length;
      const result = table.change(parsed.changes);
      for (const { id } of targets)
        for (const column of pastedColumns) table.setDraft(draftKey(id, column), null);
      // What was not understood stays in its cell with its reason, as if it had been typed there.
      for (const { id, column, text, reason } of parsed.odd)
        table.setDraft(draftKey(id, column), { text, reason });
      say(
        result,
        [
          ...(parsed.odd.length > 0
            ? [
                `${parsed.odd.length === 1 ? 'One cell is' : `${parsed.odd.length} cells are`} not understood and marked; the rest is in.`,
              ]
            : [`Pasted ${parsed.changes.length} rows.`]),
          ...(beyond > 0
            ? [`${beyond} rows were not pasted: there is no channel below. Add channels first.`]
            : []),
          ...parsed.notes.slice(0, 2),
        ].join(' '),
      );
    },
  };
}

export type Actions = ReturnType<typeof useActions>;
