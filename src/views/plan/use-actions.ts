'use client';

import { useState } from 'react';
import { OPEN } from '@/core/radio';
import type { Alike, ManyWish } from '@/core/table';
import { countOf, KINDS, makeId, referringTo, reorder, type ChannelId, type Column } from '@/core/plan';
import type { Result } from '@/core/result';
import { capital } from '@/core/text';
import { at, blockRows } from './selection';
import { useClipboard } from './use-clipboard';
import type { Table } from './use-table';
import type { PlanInHand } from './use-plan';
import { tableTools } from './use-rows';

/** What can be done to the chosen channels, each as one edit. `said` is the last thing worth telling, for a live region. */
export function useActions(hand: PlanInHand, table: Table) {
  const { store } = hand;
  const { chosen, chosenChannels, selection, rows } = table;
  const [said, setSaid] = useState('');
  const say = (result: Result<unknown>, done = '') => setSaid(result.ok ? done : result.reason);

  const clipboard = useClipboard(hand, table, say);

  const setAll = (set: Parameters<Table['change']>[0][number]['set']) =>
    say(table.change(chosenChannels.map(({ id }) => ({ id, set }))));

  /** Puts the chosen before the row with that number, and keeps them chosen. */
  const carry = (row: number) => {
    if (table.order) {
      setSaid(
        'The table is sorted: its rows are not where they stand. Show it by slot again, or move into this order.',
      );
      return;
    }
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
      // Said before they are gone: what referred to them loses them too, and gets them back with them.
      const used = referringTo(hand.plan, 'channel', chosen).map(({ kind, records }) =>
        records.length === 1
          ? `the ${KINDS[kind].words.one} “${records[0]!.name}”`
          : countOf(records.length, KINDS[kind]),
      );
      const also =
        used.length === 0
          ? ''
          : ` ${capital(used.join(' and '))} had ${chosen.size === 1 ? 'it' : 'of them'}, and no longer.`;
      say(
        store.apply({ name: 'remove', ids: [...chosen] }),
        `Removed ${chosenChannels.length}.${also} Ctrl Z brings back what was removed.`,
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
    /** One stroke for all that is chosen; says what it could not be done with. */
    async many(wish: ManyWish) {
      const { changesFor } = await tableTools();
      const { changes, left, reason } = changesFor(chosenChannels, wish, hand.plan.owner);
      const of = left === 0 ? '' : `${left} of ${chosenChannels.length} stay as they are: ${reason}`;
      if (changes.length === 0) return setSaid(of || 'They stand so already.');
      say(table.change(changes), of);
    },
    /** Chooses all that are shown and like the one with the focus in something. */
    async alike(alike: Alike) {
      const one = table.active;
      if (!one) return;
      const { alikeTo } = await tableTools();
      const { of } = hand.shown.views;
      const ids = alikeTo(rows, one, alike, {
        rules: hand.plan.owner,
        findings: ({ id }) => of.get(id)?.findings.map(({ rule }) => rule) ?? [],
      });
      if (ids.length === 0) return setSaid('Check says nothing of this one.');
      table.setSelection({ active: selection.active, anchor: selection.active, added: new Set(ids) });
      setSaid(`${ids.length} chosen.`);
    },
    /** Counts on from the first of the block through the others: frequency by step, the number in the name. */
    async countDown() {
      const { countDown } = await tableTools();
      const [from, to] = blockRows(selection);
      const step = hand.model.steps.includes(12_500) ? 12_500 : 5_000;
      say(table.change(countDown(rows.slice(from, to + 1), table.columns, step)));
    },
    fillDown: () => say(table.fill()),
    carry,
    moveUp: () => move(-1),
    moveDown: () => move(1),
    /** Moves what is shown into the order in which it is seen, among the slots that it holds. */
    async intoView() {
      const { intoThisOrder } = await tableTools();
      const moves = intoThisOrder(rows);
      if (moves.length > 0) say(store.apply({ name: 'arrange', how: 'sort', moves }));
      table.setOrder(null);
    },
    copy: clipboard.copy,
    paste: clipboard.paste,
    duplicate: clipboard.duplicate,
    refused: clipboard.refused,
    dropRefused: clipboard.dropRefused,
    /** A row like the one with the focus, without a name, above or below it; its frequency is typed next. */
    insert(above: boolean) {
      const like = table.active;
      if (!like) return;
      const { slot, list: _, ...fields } = like;
      const id = makeId('ch', crypto.getRandomValues(new Uint8Array(12))) as ChannelId;
      const result = store.apply({
        name: 'place',
        channels: [{ ...fields, id, name: '', fitted: {}, note: '', source: null }],
        placement: 'push-down',
        at: above ? slot : slot + 1,
        range: table.range,
        ...(table.list > 0 && { list: table.list }),
      });
      say(result);
      if (result.ok) setTimeout(() => table.selectLater(id, 'rx', true), 0);
    },
    /** Takes the chosen out of their slots and leaves them over, beside the table. */
    async leaveOver() {
      if (chosenChannels.length === 0) return;
      const { leaveOver } = await tableTools();
      say(store.apply(leaveOver(hand.plan, chosen)), `${chosenChannels.length} left over, beside the table.`);
    },
  };
}

export type Actions = ReturnType<typeof useActions>;
