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
export function blockColumns({ active, anchor }: Selection): Column[] {
  const a = COLUMNS.indexOf(active.column);
  const b = COLUMNS.indexOf(anchor.column);
  return Math.min(a, b) === 0 ? [...COLUMNS] : COLUMNS.slice(Math.min(a, b), Math.max(a, b) + 1);
}

/** The cell that an arrow key leads to, within `rows` rows. */
export function step(cell: Cell, key: string, rows: number, page: number, ctrl: boolean): Cell | undefined {
  const last = Math.max(0, rows - 1);
  const column = COLUMNS.indexOf(cell.column);
  const row = (next: number): Cell => ({ ...cell, row: Math.max(0, Math.min(last, next)) });
  const col = (next: number): Cell => ({
    ...cell,
    column: COLUMNS[Math.max(0, Math.min(COLUMNS.length - 1, next))]!,
  });
  switch (key) {
    case 'ArrowUp':
      return row(ctrl ? 0 : cell.row - 1);
    case 'ArrowDown':
      return row(ctrl ? last : cell.row + 1);
    case 'ArrowLeft':
      return col(ctrl ? 0 : column - 1);
    case 'ArrowRight':
      return col(ctrl ? COLUMNS.length : column + 1);
    case 'PageUp':
      return row(cell.row - page);
    case 'PageDown':
      return row(cell.row + page);
    case 'Home':
      return ctrl ? { row: 0, column: COLUMNS[0] } : col(0);
    case 'End':
      return ctrl ? { row: last, column: COLUMNS[COLUMNS.length - 1]! } : col(COLUMNS.length);
    default:
      return undefined;
  }
}

/** Tab stays clear of the slot column, which arrows and the mouse reach: typing a row begins with its name. */
const FIRST_TAB = 1;

/** The cell after Tab: rightwards and on to the next row; backwards with Shift. Undefined past the ends of the table. */
export function tabStep(cell: Cell, rows: number, back: boolean): Cell | undefined {
  const column = COLUMNS.indexOf(cell.column) + (back ? -1 : 1);
  if (column >= FIRST_TAB && column < COLUMNS.length) return { ...cell, column: COLUMNS[column]! };
  const row = cell.row + (back ? -1 : 1);
  if (row < 0 || row >= rows) return undefined;
  return { row, column: back ? COLUMNS[COLUMNS.length - 1]! : COLUMNS[FIRST_TAB]! };
}

/** Columns in which a letter begins a value, so that single keys are no commands there. */
export function takesLetters(column: Column): boolean {
  return column === 'name' || column === 'mode' || column === 'power';
}
