import * as fc from '@/core/property.test.kit';
import { COLUMNS } from '@/core/plan';
import { EXTRAS } from '@/core/table';
import { leastWidth, readLayout, templateOf, USUAL } from './columns';

test('what is kept is put right: known columns once, slot first, the name always', () => {
  expect(readLayout(null)).toEqual(USUAL);
  expect(readLayout('rubbish')).toEqual(USUAL);
  expect(readLayout('7')).toEqual(USUAL);
  expect(
    readLayout(
      '{"columns":["tx","tx","wings","slot"],"extras":["note","name"],"widths":{"tx":200,"note":5,"x":80}}',
    ),
  ).toEqual({ columns: ['slot', 'name', 'tx'], extras: ['note'], widths: { tx: 200 } });
});

test('a row has a track for the mark and one for each column, and at least the room of all of them', () => {
  expect(templateOf({ columns: ['slot', 'name'], extras: ['tags'], widths: { name: 200 } })).toBe(
    '24px 42px 200px minmax(96px,0.8fr)',
  );
  expect(leastWidth({ columns: ['slot', 'name'], extras: ['tags'], widths: { name: 200 } })).toBe(
    24 + 42 + 200 + 96,
  );
});

test('whatever is kept, there is a table', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.json(),
        fc
          .record({
            columns: fc.subarray([...COLUMNS]),
            extras: fc.subarray([...EXTRAS]),
            widths: fc.dictionary(fc.constantFrom(...COLUMNS), fc.integer()),
          })
          .map((kept) => JSON.stringify(kept)),
      ),
      (text) => {
        const layout = readLayout(text);
        expect(layout.columns[0]).toBe('slot');
        expect(layout.columns).toContain('name');
        expect(templateOf(layout).split(' ')).toHaveLength(1 + layout.columns.length + layout.extras.length);
      },
    ),
  );
});
