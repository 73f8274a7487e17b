import * as fc from '@/core/property.test.kit';
import { COLUMNS, type Column } from '@/core/plan';
import { at, blockColumns, blockRows, step, tabStep, takesLetters, type Cell } from './selection';

const anyCell = (rows: number): fc.Arbitrary<Cell> =>
  fc.record({ row: fc.integer({ min: 0, max: rows - 1 }), column: fc.constantFrom(...COLUMNS) });
const ARROWS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'PageUp', 'PageDown', 'Home', 'End'];

test('every key leads to a cell of the table', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }).chain((rows) => fc.tuple(fc.constant(rows), anyCell(rows))),
      fc.constantFrom(...ARROWS),
      fc.boolean(),
      ([rows, cell], key, ctrl) => {
        const next = step(cell, key, rows, 10, ctrl)!;
        expect(next.row).toBeGreaterThanOrEqual(0);
        expect(next.row).toBeLessThan(rows);
        expect(COLUMNS).toContain(next.column);
      },
    ),
  );
});

test('keys go where a spreadsheet goes', () => {
  const cell: Cell = { row: 5, column: 'tx' };
  expect(step(cell, 'ArrowDown', 20, 10, false)).toEqual({ row: 6, column: 'tx' });
  expect(step(cell, 'ArrowDown', 20, 10, true)).toEqual({ row: 19, column: 'tx' });
  expect(step(cell, 'PageUp', 20, 10, false)).toEqual({ row: 0, column: 'tx' });
  expect(step(cell, 'Home', 20, 10, false)).toEqual({ row: 5, column: 'slot' });
  expect(step(cell, 'End', 20, 10, true)).toEqual({ row: 19, column: 'scan' });
  expect(step(cell, 'q', 20, 10, false)).toBeUndefined();
});

test('Tab goes through all cells but the slots and out at the end; Shift Tab the same way back', () => {
  const way = (from: Cell, back: boolean) => {
    const cells: Cell[] = [];
    for (let cell: Cell | undefined = from; cell; cell = tabStep(cell, 3, back)) cells.push(cell);
    return cells;
  };
  const there = way({ row: 0, column: 'name' }, false);
  expect(there).toHaveLength(3 * (COLUMNS.length - 1));
  expect(way({ row: 2, column: 'scan' }, true)).toEqual([...there].reverse());
});

test('a block spans rows and columns; the slot column chooses whole rows', () => {
  const block = (from: [number, Column], to: [number, Column]) => ({
    ...at(to[0], to[1]),
    anchor: { row: from[0], column: from[1] },
  });
  expect(blockRows(block([7, 'rx'], [3, 'mode']))).toEqual([3, 7]);
  expect(blockColumns(block([7, 'mode'], [3, 'rx']))).toEqual(['rx', 'tx', 'access', 'mode']);
  expect(blockColumns(block([7, 'slot'], [3, 'rx']))).toEqual([...COLUMNS]);
});

test('letters are text in every column of words, and commands where only numbers and ticks belong', () => {
  expect(COLUMNS.filter(takesLetters)).toEqual(['name', 'tx', 'access', 'mode', 'power']);
});
