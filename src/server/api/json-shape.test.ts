import * as fc from '../../core/property.test.kit';
import { JSON_LIMITS, shapeFault } from './json-shape';

/** What a body may look like before anybody parses it. */

const fault = (text: string) => shapeFault(Buffer.from(text));

test.each([
  ['{"a":[1,{"b":"]]]]{{{{,,,,"}]}', null],
  ['"a\\"[[[\\\\"', null],
  ['[' + '1,'.repeat(399_998) + '1]', null],
  ['[' + '1,'.repeat(399_999) + '1]', 'has more than 400000 values'],
  ['['.repeat(64) + ']'.repeat(64), null],
  ['['.repeat(65), 'is nested deeper than 64 levels'],
  ['{"a":'.repeat(4_000_000 / 5), 'is nested deeper than 64 levels'],
  // texts that never end, and quotation marks behind many backslashes
  ['"'.padEnd(4_000_000, '\\'), null],
  [',"' + '\\"'.repeat(2_000_000), null],
])('%#: %.20s', (text, said) => expect(fault(text)).toBe(said));

test('what is nested and counted is what JSON.stringify wrote, whatever stands in its texts', () => {
  let deep = 0;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 9 }), fc.integer({ min: 50, max: 70 }), (value, around) => {
      const text = '['.repeat(around) + JSON.stringify(value) + ']'.repeat(around);
      const depthOf = (one: unknown): number =>
        typeof one === 'object' && one !== null
          ? 1 + Math.max(0, ...Object.values(one as object).map(depthOf))
          : 0;
      const tooDeep = around + depthOf(value) > JSON_LIMITS.depth;
      if (tooDeep) deep++;
      expect(fault(text) !== null).toBe(tooDeep);
    }),
  );
  expect(deep).toBeGreaterThan(10);
});
