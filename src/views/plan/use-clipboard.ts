'use client';

import { useState } from 'react';
import { cellText } from '@/core/plan';
import type { NewRows } from '@/core/table';
import type { Result } from '@/core/result';
import type { Table } from './use-table';
import type { PlanInHand } from './use-plan';

/** Whole channels on their way from table to table, of this window or another; nobody else knows what it is. */
export const OWN_TYPE = 'application/x-veridon-channels';

/** A row of which no channel came. */
export interface RefusedRow {
  line: number;
  text: string;
  reason: string;
}

/** Copying and pasting: cells, rows under headings, running text, and whole channels between plans. */
export function useClipboard(
  hand: PlanInHand,
  table: Table,
  say: (result: Result<unknown>, done?: string) => void,
) {
  const { chosenChannels, selection } = table;
  const [refused, setRefused] = useState<readonly RefusedRow[]>([]);
  const wholeRows = () => selection.added.size > 0 || table.columns.length === table.layout.columns.length;

  const into = () => import('./pasting').then((module) => module.pasting({ hand, table, say, setRefused }));

  return {
    refused,
    dropRefused: () => setRefused([]),
    /** What is chosen as text for spreadsheets; and whole where whole rows are. */
    copy(): { text: string; own: string | null } {
      const whole = wholeRows();
      const channels = whole ? chosenChannels : table.block;
      const columns = whole ? table.layout.columns : table.columns;
      return {
        text: channels
          .map((channel) => columns.map((column) => cellText(channel, column)).join('\t'))
          .join('\r\n'),
        own: whole ? JSON.stringify(channels) : null,
      };
    },
    paste: async (text: string, own: string) => (await into()).paste(text, own),
    drop: async (own: string, before: number) => (await into()).drop(own, before),
    duplicate: async () => (await into()).duplicate(),
    takeFile: async (made: NewRows, inSlots: boolean) => (await into()).file(made, inSlots),
  };
}
