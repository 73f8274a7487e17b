import { COLUMNS, type ChannelId, type Column } from '@/core/plan';

/** A cell of the table: the row's place in it and its column. */
export interface Cell {
  row: number;
  column: Column;
}

/**
 * What is chosen: the cell with the focus, the other corner of the block, and rows added with Ctrl. Rows are places in
 * the list that is shown; `added` are channels.
 */
export interface Selection {
  active: Cell;
  anchor: Cell;
  added: ReadonlySet<ChannelId>;
}

const NONE: ReadonlySet<ChannelId> = new Set();

export const at = (row: number, column: Column): Selection => ({
  active: { row, column },
  anchor: { row, column },
  added: NONE,
});

/** The row in which new channels are typed, as what its cells belong to. */
export const NEW = 'new';

/**
 * A cell that is remembered by its channel, so that it stays with it wherever its row goes: others insert rows, sorting moves them. `row` is where
 * it was, for a channel that has gone since; `id` is null where no channel was there yet.
 */
export interface Held {
  id: ChannelId | typeof NEW | null;
  row: number;
  column: Column;
}

/** A selection as it is remembered: by channels. */
export interface HeldSelection {
  active: Held;
  anchor: Held;
  /** The channels of the block from active to anchor. */
  block: ReadonlySet<ChannelId>;
  added: ReadonlySet<ChannelId>;
}

/** Remembers a selection over the rows that are shown. */
export function hold(
  { active, anchor, added }: Selection,
  rows: readonly { id: ChannelId }[],
): HeldSelection {
  // In an empty table the first cell is meant, whatever comes into it.
  const held = (cell: Cell): Held => ({
    ...cell,
    id: rows[cell.row]?.id ?? (rows.length > 0 && cell.row >= rows.length ? NEW : null),
  });
  const [from, to] = [Math.min(active.row, anchor.row), Math.max(active.row, anchor.row)];
  return {
    active: held(active),
    anchor: held(anchor),
    block: new Set(rows.slice(from, to + 1).map(({ id }) => id)),
    added,
  };
}

/** Where a remembered cell is now: at its channel, or, where that has gone, in the row that it had. */
export function placeOf(
  { id, row, column }: Held,
  rowOf: ReadonlyMap<ChannelId, number>,
  rowCount: number,
): Cell {
  const last = Math.max(0, rowCount - 1);
  if (id === NEW) return { row: Math.min(last, rowOf.size), column };
  return { row: (id !== null ? rowOf.get(id) : undefined) ?? Math.min(last, row), column };
}

/** First and last row of the block. */
export function blockRows({ active, anchor }: Selection): [number, number] {
  return [Math.min(active.row, anchor.row), Math.max(active.row, anchor.row)];
}

/** The columns of the block, in order; all of them where it holds the slot column, since that chooses whole rows. */
export function blockColumns({ active, anchor }: Selection, columns: readonly Column[] = COLUMNS): Column[] {
  const a = columns.indexOf(active.column);
  const b = columns.indexOf(anchor.column);
  // A column that was hidden under the focus: the row is meant.
  return Math.min(a, b) <= 0 ? [...columns] : columns.slice(Math.min(a, b), Math.max(a, b) + 1);
}

/** The cell that an arrow key leads to, within `rows` rows. */
export function step(
  cell: Cell,
  key: string,
  rows: number,
  page: number,
  ctrl: boolean,
  columns: readonly Column[] = COLUMNS,
): Cell | undefined {
  const last = Math.max(0, rows - 1);
  const column = columns.indexOf(cell.column);
  const row = (next: number): Cell => ({ ...cell, row: Math.max(0, Math.min(last, next)) });
  const col = (next: number): Cell => ({
    ...cell,
    column: columns[Math.max(0, Math.min(columns.length - 1, next))]!,
  });
  switch (key) {
    case 'ArrowUp':
      return row(ctrl ? 0 : cell.row - 1);
    case 'ArrowDown':
      return row(ctrl ? last : cell.row + 1);
    case 'ArrowLeft':
      return col(ctrl ? 0 : column - 1);
    case 'ArrowRight':
      return col(ctrl ? columns.length : column + 1);
    case 'PageUp':
      return row(cell.row - page);
    case 'PageDown':
      return row(cell.row + page);
    case 'Home':
      return ctrl ? { row: 0, column: columns[0]! } : col(0);
    case 'End':
      return ctrl ? { row: last, column: columns[columns.length - 1]! } : col(columns.length);
    default:
      return undefined;
  }
}

/** Tab stays clear of the slot column, which arrows and the mouse reach: typing a row begins with its name. */
const FIRST_TAB = 1;

/** The cell after Tab: rightwards and on to the next row; backwards with Shift. Undefined past the ends of the table. */
export function tabStep(
  cell: Cell,
  rows: number,
  back: boolean,
  columns: readonly Column[] = COLUMNS,
): Cell | undefined {
  const column = columns.indexOf(cell.column) + (back ? -1 : 1);
  if (column >= FIRST_TAB && column < columns.length) return { ...cell, column: columns[column]! };
  const row = cell.row + (back ? -1 : 1);
  if (row < 0 || row >= rows) return undefined;
  return { row, column: back ? columns[columns.length - 1]! : columns[FIRST_TAB]! };
}

/** Columns of words: a letter typed there is text, whether or not a value begins with it. Elsewhere single letters are commands. */
export function takesLetters(column: Column): boolean {
  return column !== 'slot' && column !== 'rx' && column !== 'scan';
}
