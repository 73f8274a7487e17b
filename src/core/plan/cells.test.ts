import fc from 'fast-check';
import { anyPlan, channel, id } from '../samples.test.kit';
import { rulers, marks, markStep } from '../radio';
import { cellText, COLUMNS, fillDown, parseBlock, parseCell, type CellContext } from '.';

const context: CellContext = {
  region: 'orrin',
  bands: [{ from: 136_000_000, to: 174_000_000 }],
  powers: [{ label: 'High', milliwatts: 4000 }],
};
const own = channel(3, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500 });

test('a cell’s text, typed again, sets what is there', () => {
  fc.assert(
    fc.property(anyPlan, (p) => {
      for (const one of p.channels)
        for (const column of COLUMNS) {
          if (column === 'slot') continue;
          const parsed = parseCell(column, cellText(one, column), one, { region: 'orrin' });
          if (!parsed.ok) throw new Error(`${column}: ${parsed.reason}`);
          const { name, ...set } = parsed.value;
          expect(one).toMatchObject(set);
          if (name !== undefined) expect(name).toBe(one.name.replace(/\s+/g, ' '));
        }
    }),
    { numRuns: 200 },
  );
});

test('words that people type', () => {
  expect(parseCell('power', 'high', own, context)).toEqual({ ok: true, value: { power: 4000 } });
  expect(parseCell('scan', 'Y', own, context)).toEqual({ ok: true, value: { scan: true } });
  expect(parseCell('scan', 'perhaps', own, context)).toMatchObject({ ok: false });
  expect(parseCell('name', 'x'.repeat(33), own, context)).toMatchObject({
    ok: false,
    reason: expect.stringContaining('33'),
  });
  // characters are counted, not the halves of which a program makes some
  expect(parseCell('name', '𝄞'.repeat(32), own, context)).toMatchObject({ ok: true });
  expect(parseCell('name', '𝄞'.repeat(33), own, context)).toMatchObject({
    ok: false,
    reason: expect.stringContaining('has 33'),
  });
  expect(parseCell('mode', 'fm', own, context)).toEqual({ ok: true, value: { mode: 'FM' } });
});

describe('pasting', () => {
  const rows = [channel(1, 145_500_000), channel(2, 145_525_000)];
  test('a block sets each row; transmit is read against the receive that was pasted with it', () =>
    expect(
      parseBlock(
        [
          ['145.6125', '-'],
          ['145.7', '='],
        ],
        rows,
        ['rx', 'tx'],
        context,
      ),
    ).toEqual({
      ok: true,
      value: [
        { id: id(1), set: { rx: 145_612_500, tx: 145_012_500, txFixed: false } },
        { id: id(2), set: { rx: 145_700_000, tx: 145_700_000, txFixed: false } },
      ],
    }));
  test('one bad cell and nothing is pasted; the slot is named', () =>
    expect(parseBlock([['145.6125'], ['rubbish']], rows, ['rx'], context)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('Slot 2'),
    }));
  test('it is said how many cells are wrong; of many the first three', () => {
    const five = [1, 2, 3, 4, 5].map((slot) => channel(slot, 145_500_000));
    const pasted = (...cells: string[]) => {
      const block = parseBlock(
        cells.map((cell) => [cell]),
        five,
        ['scan'],
        context,
      );
      return block.ok ? block.value.map(({ set }) => set.scan) : block.reason;
    };
    expect(pasted('yes', 'no', 'yes')).toEqual([true, false, true]);
    expect(pasted('yes', 'so')).toBe(
      'Nothing was pasted: one cell is not understood. Slot 2: “so” is neither yes nor no.',
    );
    expect(pasted('a', 'b', 'c', 'd', 'yes')).toBe(
      'Nothing was pasted: 4 cells are not understood. Slot 1: “a” is neither yes nor no. ' +
        'Slot 2: “b” is neither yes nor no. Slot 3: “c” is neither yes nor no.',
    );
  });
  test('rows beyond the channels and cells that are not there set nothing', () =>
    expect(parseBlock([['145.6125'], [], ['145.7']], rows, ['rx', 'tx'], context)).toEqual({
      ok: true,
      value: [
        { id: id(1), set: { rx: 145_612_500 } },
        { id: id(2), set: {} },
      ],
    }));
});

test('filling down fills a shift as a shift, a frequency of its own as that', () => {
  const to = [own, channel(4, 145_700_000)];
  expect(fillDown(to, ['tx', 'mode'])).toEqual([
    { id: id(4), set: { tx: 145_100_000, txFixed: false, mode: 'FM' } },
  ]);
  expect(fillDown([{ ...own, txFixed: true }, to[1]!], ['tx'])).toEqual([
    { id: id(4), set: { tx: 145_012_500, txFixed: true } },
  ]);
});

describe('rulers', () => {
  test('a band each, other services side by side together', () => {
    const found = rulers(
      [145_500_000, 145_012_500, 162_400_000, 156_800_000, 430_887_500, 438_487_500, 446_006_250],
      'orrin',
    );
    expect(found.map((r) => [r.name, r.count])).toEqual([
      ['2 m', 2],
      ['Marine · Weather', 2],
      ['70 cm', 2],
      ['Licence-free', 1],
    ]);
  });
  test('hold every frequency', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.integer({ min: 2_800, max: 130_000 }).map((n) => n * 10_000),
          { minLength: 1, maxLength: 30 },
        ),
        (frequencies) => {
          const found = rulers(frequencies, 'itu2');
          for (const hz of frequencies) expect(found.some((r) => r.from < hz && hz < r.to)).toBe(true);
          expect(found.reduce((sum, r) => sum + r.count, 0)).toBe(frequencies.length);
        },
      ),
    );
  });
  test('marks', () => {
    expect(markStep({ from: 144_000_000, to: 146_000_000 }, 4)).toBe(500_000);
    expect(marks({ from: 144_900_000, to: 146_000_000 }, 500_000)).toEqual([
      145_000_000, 145_500_000, 146_000_000,
    ]);
  });
});
