import * as fc from '../property.test.kit';

import { rowSplitter } from './row-splitter';

/** Rows of a list in a document, whatever they are and wherever the pieces end. */

const encode = (text: string) => new TextEncoder().encode(text);

function split(text: string, places: readonly number[] = []) {
  const bytes = encode(text);
  const splitter = rowSplitter('people');
  const rows: unknown[] = [];
  let from = 0;
  for (const to of [...new Set([...places.filter((at) => at < bytes.length), bytes.length])].sort(
    (a, b) => a - b,
  )) {
    const found = splitter.take(bytes.subarray(from, to));
    rows.push(...(found ?? splitter.good()));
    if (!found) return { rows, head: null };
    from = to;
  }
  return { rows, head: splitter.end() };
}

test('whatever stands in the rows, they are what JSON.parse makes of them, in whatever pieces they come', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      fc.array(fc.jsonValue({ maxDepth: 3 }), { maxLength: 12 }),
      fc.dictionary(
        fc.constantFrom('made', 'peoples', 'a "people": [', 'list'),
        fc.jsonValue({ maxDepth: 2 }),
      ),
      fc.constantFrom('', ' ', '\n\t', '\r\n'),
      fc.array(fc.nat(800), { maxLength: 12 }),
      fc.boolean(),
      (people, others, gap, places, first) => {
        // As JSON writes them: a zero has no sign there.
        const wanted = JSON.parse(JSON.stringify(people)) as unknown[];
        const list = `"people":${gap}[${gap}${people.map((one) => JSON.stringify(one)).join(`${gap},${gap}`)}${gap}]`;
        const rest = Object.entries(others).map(
          ([key, value]) => `${JSON.stringify(key)}:${gap}${JSON.stringify(value)}`,
        );
        const members = first ? [list, ...rest] : [...rest, list];
        const { rows, head } = split(`${gap}{${gap}${members.join(`${gap},`)}${gap}}${gap}`, places);
        expect(rows).toEqual(wanted);
        expect(Object.keys(head ?? {}).sort()).toEqual(
          [...new Set([...Object.keys(others), 'people'])].sort(),
        );
        reached.count('in pieces', places.length > 1 && people.length > 1);
        reached.count('text with brackets', JSON.stringify(people).includes('"'));
      },
    ),
    { numRuns: 400 },
  );
  reached.expectShare('in pieces', 0.3);
});

test.each([
  ['a comma too many', '{"people":[1,,2]}', [1]],
  ['a comma at the end', '{"people":[1,2,]}', [1, 2]],
  ['a comma first', '{"people":[,1]}', []],
  ['no comma', '{"people":[{"a":1}{"b":2}]}', [{ a: 1 }]],
  ['a word that is none', '{"people":[1,nobody]}', [1]],
  ['the list alone', '[1,2]', []],
  ['more behind it', '{"people":[1]}x', [1]],
  ['a text that does not end', '{"people":[1,"two]}', [1]],
])('%s is no JSON', (_, text, rows) => {
  for (const places of [[], [9], [11, 12, 13], Array.from({ length: 40 }, (_unused, n) => n)]) {
    const read = split(text, places);
    expect([places.length, read.head]).toEqual([places.length, null]);
    expect(read.rows).toEqual(rows.slice(0, read.rows.length));
  }
});

test('of what is beside the list only the outermost is kept, however much it is', () => {
  const { rows, head } = split(
    `{"deep":{"people":[9,9]},"people":[1],"long":[${'{"x":1},'.repeat(1000)}{}]}`,
  );
  expect(rows).toEqual([1]);
  expect(head).toEqual({ deep: {}, people: [], long: [] });
});
