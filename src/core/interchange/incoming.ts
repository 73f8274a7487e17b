import type { CellContext, ChannelId, NewChannel } from '../plan';
import { newRows, rowsByMeaning, type ColumnMeaning, type NewRows, type PastedRow } from '../table';
import type { FileContent } from './file';
import type { Table } from './table';

/** The rows of stations of a table, by what its columns are or were said to be. */
export const rowsOfTable = (
  table: Table,
  meanings: readonly (ColumnMeaning | undefined)[] = table.meanings,
): PastedRow[] => rowsByMeaning(meanings, table.rows, (row) => table.lines[row]!, table.headings);

/** The channels that a file comes to, each with an id of its own; those of a plan are whole already. */
export function channelsIn(content: FileContent, context: CellContext, makeId: () => ChannelId): NewRows {
  if (content.kind === 'places' || content.kind === 'list') return newRows(content.rows, context, makeId);
  if (content.kind === 'table') return newRows(rowsOfTable(content.table), context, makeId);
  const slots = new Map<ChannelId, { slot: number; list: number }>();
  const channels = content.plan.channels.map(({ slot, list, ...fields }): NewChannel => {
    const id = makeId();
    slots.set(id, { slot, list });
    return { ...fields, id };
  });
  return { channels, slots, odd: [], refused: [], notes: [] };
}
