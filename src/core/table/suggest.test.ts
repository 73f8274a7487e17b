import * as fc from '../property.test.kit';
import { anyPlan, channel, everything, plan, three } from '../samples.test.kit';
import { COLUMNS, parseCell, type Column } from '../plan';
import { ternP2 } from '../models/tern-p2';
import { suggestions, type SuggestContext } from '.';

const hill = three.channels[1]!;
const register = {
  name: 'Ullsmere Hill Q7UL',
  output: 145_612_500,
  input: 145_012_500,
  access: { kind: 'analogue' as const, send: { kind: 'tone' as const, tone: 885 }, expect: null },
};
const context: SuggestContext = { plan: three, model: ternP2, neighbours: [register] };
const texts = (
  column: Exclude<Column, 'slot'>,
  typed: string,
  of: typeof hill | null = hill,
  more = context,
) => suggestions(column, typed, of, more).map(({ text }) => text);

test('what a directory says of the station comes first', () => {
  expect(suggestions('access', '', hill, context)[0]).toEqual({
    text: '88.5',
    says: 'Ullsmere Hill Q7UL wants it, by the directory',
    held: true,
  });
  expect(suggestions('tx', '-0.6', hill, context)[0]).toEqual({
    text: '-0.6',
    says: 'Ullsmere Hill Q7UL listens on 145.0125',
    held: true,
  });
  expect(texts('rx', '145.61', null)).toEqual(['145.6125']);
});

test('the transmit side: the usual shift with its result, the same, listen only', () => {
  expect(suggestions('tx', '', { ...hill, tx: null }, { ...context, neighbours: [] })).toEqual([
    { text: '-0.6', says: 'the usual shift of 2 m here: 145.0125', held: true },
    { text: '=', says: 'sends where it receives, on 145.6125', held: true },
    { text: 'x', says: 'listen only', held: true },
  ]);
  // There is no usual shift on the calling channel.
  expect(texts('tx', '', { ...three.channels[0]!, tx: null })).toEqual(['=', 'x']);
});

test('tones that begin so, those beside the nearest, and what this radio lacks last', () => {
  expect(texts('access', '88')).toEqual(['88.5', '85.4', '91.5']);
  expect(texts('access', '88.5/10')).toEqual(['88.5/100.0', '88.5/103.5', '88.5/107.2']);
  const few = { ...ternP2, tones: [885] };
  expect(suggestions('access', '8', hill, { ...context, model: few, neighbours: [] })).toMatchObject([
    { text: '88.5', held: true },
    { text: '82.5', held: false, says: 'Hz, not on this radio' },
    { text: '85.4', held: false },
  ]);
  expect(texts('access', 'D02', hill, { ...context, neighbours: [] }).slice(0, 3)).toEqual([
    'D023N',
    'D023I',
    'D025N',
  ]);
});

test('modes and powers of this radio first', () => {
  expect(texts('mode', '')).toEqual([...ternP2.modes, ...texts('mode', '').slice(ternP2.modes.length)]);
  expect(suggestions('mode', 'd', hill, context)).toMatchObject([{ text: 'DMR', held: false }]);
  expect(texts('power', '').length).toBe(ternP2.powers.length);
  expect(texts('scan', 'n')).toEqual(['no']);
});

test('a name says what the display will read; a frequency off the steps has its nearest', () => {
  expect(suggestions('name', 'Perrin Cross', hill, context)[0]).toEqual({
    text: 'Perrin Cross',
    says: expect.stringMatching(/^reads [A-Z ]{1,6} on this radio$/),
    held: true,
  });
  const placed = {
    ...hill,
    source: { directory: 'register', entry: 'a', service: 'amateur', call: 'Q7UL', place: 'Ullsmere' },
  };
  expect(texts('name', '', placed)).toEqual(['Ullsmere', 'Q7UL', 'Q7UL Ullsmere']);
  // 145.6131 lies between 145.6125 and 145.615 on steps of 5, 6.25, 10, 12.5 and 25 kHz.
  expect(texts('rx', '145.6131', null, { ...context, neighbours: [] })).toEqual(['145.6125']);
  expect(texts('mode', '', null)).toEqual([]);
});

test('whatever is offered is understood by its cell', () => {
  let offered = 0;
  const typed = fc.constantFrom(
    '',
    '1',
    '88',
    '88.',
    'D0',
    'd17',
    '103.5/8',
    '-',
    '+',
    '=',
    'f',
    'n',
    '5',
    'Hill',
  );
  fc.assert(
    fc.property(anyPlan, typed, fc.constantFrom(...COLUMNS), (any, text, column) => {
      const [first] = any.channels;
      if (!first || column === 'slot') return;
      for (const model of [ternP2, everything])
        for (const one of suggestions(column, text, first, { plan: any, model, neighbours: [register] })) {
          offered++;
          const read = parseCell(column, one.text, first, { region: 'orrin' });
          if (!read.ok) throw new Error(`${column} ${one.text}: ${read.reason}`);
        }
    }),
    { numRuns: 600 },
  );
  fc.expectReached('offered', offered, 501);
});
test('nothing is offered twice, and never more than a hand can see', () => {
  const many = plan([channel(1, 145_612_500)]);
  const neighbours = Array.from({ length: 30 }, (_, n) => ({
    ...register,
    output: 145_600_000 + n * 12_500,
  }));
  const found = texts('rx', '145', null, { plan: many, model: ternP2, neighbours });
  expect(found).toHaveLength(8);
  expect(new Set(found).size).toBe(8);
});
