import * as fc from '../property.test.kit';
import { anyPlan, channel, id } from '../samples.test.kit';
import { rulers, marks, markStep, markText, stretchesIn, writtenMarks } from '../radio';
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
  expect(parseCell('scan', 'perhaps', own, context)).toMatchObject({
    ok: false,
    reason: '“perhaps” is neither yes nor no.',
  });
  for (const [word, scan] of Object.entries({
    yes: true,
    ' ON ': true,
    '１': true,
    no: false,
    Off: false,
    '': false,
  }))
    expect(parseCell('scan', word, own, context)).toEqual({ ok: true, value: { scan } });
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

test('however long a cell is, what is said of it is a sentence', () => {
  let refused = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...COLUMNS),
      fc.string({ unit: fc.constantFrom('1', '.', ',', '/', '-', ' ', 'k', 'x', 'D', 'é'), minLength: 50 }),
      fc.integer({ min: 100, max: 9800 }),
      (column, some, length) => {
        if (column === 'slot') return;
        const parsed = parseCell(column, some.repeat(200).slice(0, length), own, context);
        if (parsed.ok) return;
        refused++;
        expect(parsed.reason.length).toBeLessThan(300);
      },
    ),
    { numRuns: 400 },
  );
  expect(refused).toBeGreaterThan(200);
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
      changes: [
        { id: id(1), set: { rx: 145_612_500, tx: 145_012_500, txFixed: false } },
        { id: id(2), set: { rx: 145_700_000, tx: 145_700_000, txFixed: false } },
      ],
      odd: [],
      notes: [],
    }));
  test('one odd cell keeps no other out; it comes back with its reason', () =>
    expect(
      parseBlock(
        [
          ['145.6125', 'rubbish'],
          ['114', '205'],
        ],
        rows,
        ['rx', 'access'],
        context,
      ),
    ).toEqual({
      changes: [{ id: id(1), set: { rx: 145_612_500 } }],
      odd: [
        { id: id(1), column: 'access', text: 'rubbish', reason: expect.stringContaining('not a tone') },
        { id: id(2), column: 'rx', text: '114', reason: expect.stringContaining('no band') },
        { id: id(2), column: 'access', text: '205', reason: expect.stringContaining('D205N') },
      ],
      notes: [],
    }));
  test('what is worth knowing of a cell is said with its slot', () =>
    expect(parseBlock([['145700', '+']], rows, ['rx', 'tx'], context).notes).toEqual([
      'Slot 1: 145700 is read as 145.700 MHz.',
      'Slot 1: The usual shift here is -0.6, the other way.',
    ]));
  test('rows beyond the channels and cells that are not there set nothing', () =>
    expect(parseBlock([['145.6125'], [], ['145.7']], rows, ['rx', 'tx'], context)).toEqual({
      changes: [{ id: id(1), set: { rx: 145_612_500 } }],
      odd: [],
      notes: [],
    }));
  test('whatever is pasted, each cell is taken or comes back', () => {
    const cell = (...good: string[]) =>
      fc.oneof(
        { weight: 3, arbitrary: fc.constantFrom(...good) },
        { weight: 1, arbitrary: fc.constantFrom('114', '145,600 kHz', 'SSB') },
        { weight: 1, arbitrary: fc.string({ maxLength: 12 }) },
      );
    const row = fc.tuple(
      cell('145.6125', '145600', '146 MHz'),
      cell('88.5', 'D023N', ''),
      cell('FM', 'NBFM'),
    );
    let taken = 0;
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 2 }), (block) => {
        const columns = ['rx', 'access', 'mode'] as const;
        const { changes, odd } = parseBlock(block, rows, columns, context);
        const set = changes.flatMap((change) => Object.keys(change.set));
        taken += set.length;
        expect(set.length + odd.length).toBe(block.length * 3);
        for (const { id: where, column, text } of odd)
          expect(block[where === id(1) ? 0 : 1]![columns.indexOf(column as 'rx')]).toBe(text);
      }),
      { numRuns: 300 },
    );
    fc.expectReached('taken', taken, 501);
  });
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
      { region: 'orrin' },
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
          const found = rulers(frequencies, { region: 'itu2' });
          for (const hz of frequencies) expect(found.some((r) => r.from < hz && hz < r.to)).toBe(true);
          expect(found.reduce((sum, r) => sum + r.count, 0)).toBe(frequencies.length);
        },
      ),
    );
  });
  test('where somebody may transmit, without a gap from end to end', () => {
    const orrin = { region: 'orrin' as const };
    const view = { from: 145_000_000, to: 164_000_000 };
    const stretches = stretchesIn(view, orrin, 'full');
    // 2 m ends at 146; marine, weather and what lies between are nobody's to send on without their own papers.
    expect(stretches.map(({ from, to, may }) => [from, to, may])).toEqual([
      [145_000_000, 146_000_000, true],
      [146_000_000, 164_000_000, false],
    ]);
    expect(stretches[1]!.names).toEqual(expect.arrayContaining(['Marine', 'Weather']));
    expect(stretchesIn({ from: 145_100_000, to: 145_900_000 }, orrin, 'none')).toEqual([
      { from: 145_100_000, to: 145_900_000, may: false, names: ['2 m'] },
    ]);
    // A ship's certificate opens the marine channels.
    expect(
      stretchesIn({ from: 156_100_000, to: 157_000_000 }, { ...orrin, marine: true }, 'none'),
    ).toMatchObject([{ from: 156_100_000, to: 157_000_000, may: true }]);
  });
  test('marks', () => {
    expect(markStep({ from: 144_000_000, to: 146_000_000 }, 4)).toBe(500_000);
    expect(marks({ from: 144_900_000, to: 146_000_000 }, 500_000)).toEqual([
      145_000_000, 145_500_000, 146_000_000,
    ]);
  });
  test.each([
    // a step of 0.5 MHz is a quarter of 200 px: 50, and “145.5” wants 5 x 6 + 6; those on the edge would stick out
    [144_000_000, 146_000_000, 200, ['144.5', '145', '145.5']],
    // of 92 px it is 23: too little; of 1 MHz one is inside
    [144_000_000, 146_000_000, 92, ['145']],
    // a step of 10 kHz is 46 px, and “446.01” wants 42; 446 and 446.02 lie on the edges
    [446_000_000, 446_020_000, 92, ['446.01']],
    // 18 of 20 kHz inside, 9 kHz from the left: 41 px, half of 36 is enough; 446.02 is 4.6 px from the right
    [446_001_000, 446_021_000, 92, ['446.01']],
    [446_001_000, 446_027_000, 120, ['446.01', '446.02']],
    // 446.1 is 20 kHz of 90 from the left, 13 px of 60: half of 30 sticks out, as 446.15 does on the right; of 25 kHz one is inside
    [446_080_000, 446_170_000, 60, ['446.125']],
    // 222.4 to 225.4, 92 px: a step is 31 px, and “223” wants 24
    [222_400_000, 225_400_000, 92, ['223', '224', '225']],
    // 222 is 0.2 MHz of 3.2 from the edge: 6 px, and half of it is 9
    [221_800_000, 225_000_000, 92, ['223', '224']],
  ])('figures on a ruler from %i to %i, %i px wide', (from, to, px, written) => {
    expect(writtenMarks({ from, to }, px).map(markText)).toEqual(written);
  });
  test('no figure stands on another, and there always is one where there is a mark', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100_000, max: 1_300_000_000 }),
        fc.integer({ min: 50_000, max: 30_000_000 }),
        fc.integer({ min: 60, max: 900 }),
        (from, span, px) => {
          const found = writtenMarks({ from, to: from + span }, px);
          expect(found.length).toBeGreaterThan(0);
          const edge = (hz: number) => (Math.min(hz - from, from + span - hz) / span) * px;
          if (found.length > 1)
            for (const hz of found) expect(edge(hz)).toBeGreaterThanOrEqual(3 * markText(hz).length);
          for (const [at, hz] of found.slice(1).entries()) {
            const apart = ((hz - found[at]!) / span) * px;
            expect(apart).toBeGreaterThanOrEqual(
              6 * Math.max(markText(hz).length, markText(found[at]!).length),
            );
          }
        },
      ),
    );
  });
});
