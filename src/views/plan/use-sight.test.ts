import { describe, expect, test } from '@jest/globals';
import * as fc from '@/core/property.test.kit';
import { ROW_HEIGHT } from './channel-row';
import { HEAD_HEIGHT, offsetFor, rowsFrom } from './use-sight';

const heights = fc.integer({ min: 100, max: 1600 });
const tables = fc.tuple(fc.integer({ min: 1, max: 4000 }), heights).chain(([count, height]) =>
  fc.record({
    count: fc.constant(count),
    height: fc.constant(height),
    row: fc.nat({ max: count - 1 }),
    offset: fc.nat({ max: Math.max(0, HEAD_HEIGHT + count * ROW_HEIGHT - height) }),
  }),
);

describe('bringing a row into sight', () => {
  test('a pane of 400 px shows twelve whole rows below its headings', () => {
    expect(ROW_HEIGHT).toBe(29);
    expect(offsetFor(0, 0, 400)).toBeNull();
    expect(offsetFor(11, 0, 400)).toBeNull();
    // 30 for the headings, thirteen rows of 29 px end at 407, of which 400 can be seen
    expect(offsetFor(12, 0, 400)).toBe(7);
    expect(offsetFor(2, 100, 400)).toBe(58);
  });

  test('wherever the pane stands, the row lies whole below the headings then, and the pane stays where it already did', () => {
    let moved = 0;
    fc.assert(
      fc.property(tables, ({ height, row, offset }) => {
        const to = offsetFor(row, offset, height);
        if (to !== null) moved++;
        const top = HEAD_HEIGHT + row * ROW_HEIGHT - (to ?? offset);
        expect(top).toBeGreaterThanOrEqual(HEAD_HEIGHT);
        expect(top + ROW_HEIGHT).toBeLessThanOrEqual(height);
        expect(offsetFor(row, to ?? offset, height)).toBeNull();
      }),
      { numRuns: 300 },
    );
    fc.expectReached('moved', moved, 101);
  });

  test('all that can be seen is drawn, each row once, and no more than a few beyond it', () => {
    fc.assert(
      fc.property(tables, ({ count, height, row }) => {
        const drawn = rowsFrom(row, count, height);
        const seen = Array.from({ length: Math.ceil(height / ROW_HEIGHT) }, (_, n) => row + n);
        expect(drawn).toEqual(expect.arrayContaining(seen.filter((one) => one < count)));
        expect(drawn).toEqual(drawn.map((_, n) => drawn[0]! + n));
        expect(drawn.length).toBeLessThanOrEqual(Math.ceil(height / ROW_HEIGHT) + 12);
      }),
    );
  });
});
