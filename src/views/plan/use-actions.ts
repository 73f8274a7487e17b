'use client';

import { useState } from 'react';
import { OPEN } from '@/core/radio';
import type { Alike, ManyWish } from '@/core/table';
import { countOf, KINDS, referringTo, reorder, type Column } from '@/core/plan';
import type { Result } from '@/core/result';
import { capital } from '@/core/text';
import { at, blockRows } from './selection';
import { useClipboard } from './use-clipboard';
import type { Table } from './use-table';
import type { PlanInHand } from './use-plan';

/** What can be done to the chosen channels, each as one edit. `said` is the last thing worth telling, for a live region. */
export function useActions(hand: PlanInHand, table: Table) {
  const { store } = hand;
  const { chosen, chosenChannels, selection, rows } = table;
  const [said, setSaid] = useState('');
  const say = (result: Result<unknown>, done = '') => setSaid(result.ok ? done : result.reason);

  const clipboard = useClipboard(hand, table, say);
  const stroke = () => import('./strokes').then((module) => module.strokes({ hand, table, say, setSaid }));

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
    // What is chosen is held by its channels, and goes along.
    say(result);
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
      // On with the row below, or the one above where there is none.
      const first = blockRows(selection)[0];
      const after = rows.findIndex(({ id }, row) => row >= first && !chosen.has(id));
      const row = after >= 0 ? after : rows.findLastIndex(({ id }) => !chosen.has(id));
      table.setSelection(at(Math.max(0, row), selection.active.column));
    },
    /** Empties the chosen cells; on the slot column it removes the channels. */
    clear() {
      if (selection.active.column === 'slot') return this.remove();
      const set = Object.assign({}, ...table.columns.map((column) => CLEARED[column] ?? {}));
      if (Object.keys(set).length > 0) setAll(set);
      else if (selection.active.column === 'tx')
        say(table.change(chosenChannels.map(({ id, rx }) => ({ id, set: { tx: rx, txFixed: false } }))));
    },
    many: async (wish: ManyWish) => (await stroke()).many(wish),
    alike: async (alike: Alike) => (await stroke()).alike(alike),
    countDown: async () => (await stroke()).countDown(),
    intoView: async () => (await stroke()).intoView(),
    insert: async (above: boolean) => (await stroke()).insert(above),
    leaveOver: async () => (await stroke()).leaveOver(),
    heardNow: async () => (await stroke()).heardNow(),
    notHeard: async () => (await stroke()).notHeard(),
    fillDown: () => say(table.fill()),
    carry,
    moveUp: () => move(-1),
    moveDown: () => move(1),
    copy: clipboard.copy,
    paste: clipboard.paste,
    drop: clipboard.drop,
    duplicate: clipboard.duplicate,
    takeFile: clipboard.takeFile,
    refused: clipboard.refused,
    dropRefused: clipboard.dropRefused,
  };
}

export type Actions = ReturnType<typeof useActions>;
