import type { CellContext, ChannelId, NewChannel } from '../plan';
import { fieldReader, newRows, type ColumnMeaning, type NewRows, type PastedRow } from '../table';
import type { FileContent } from './file';
import type { Table } from './table';

/** Of how many rows one tells how far it is. */
const TELLS_EVERY = 2000;

/**
 * The rows of stations of a table one by one, by what its columns are or were said to be: of a long table none is held longer than it
 * takes to make a channel of it. `soFar` is told how much is done, 0 to 1.
 */
export function* rowsOfTable(
  table: Table,
  meanings: readonly (ColumnMeaning | undefined)[] = table.meanings,
  soFar?: (share: number) => void,
): Generator<PastedRow> {
  const { rows, lines, headings } = table;
  const read = fieldReader(meanings, headings);
  for (let at = 0; at < rows.length; at++) {
    if (soFar && at % TELLS_EVERY === 0) soFar(at / rows.length);
    yield { line: lines[at]!, cells: read(rows[at]!) };
  }
}

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
  return { channels, slots, odd: [], refused: [], notes: [], beyond: 0 };
}
