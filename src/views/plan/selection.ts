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

/** Columns in which a letter begins a value, so that single keys are no commands there. */
export function takesLetters(column: Column): boolean {
  return column === 'name' || column === 'mode' || column === 'power';
}
