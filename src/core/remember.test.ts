import * as fc from './property.test.kit';
import { remembered, rememberedAlong, rememberedByText } from './remember';

test('what was worked out of a value is remembered, even where it is nothing', () => {
  const asked: object[] = [];
  const work = remembered((key: object): string | undefined => void asked.push(key));
  const [a, b] = [{}, {}];
  expect([work(a), work(a), work(b)]).toEqual([undefined, undefined, undefined]);
  expect(asked).toEqual([a, b]);
});

describe('along a list', () => {
  const asked: number[] = [];
  interface Record {
    n: number;
  }
  const doubled = (work = ({ n }: Record) => (asked.push(n), 2 * n)) => rememberedAlong(work);
  beforeEach(() => asked.splice(0));

  test('only the records that stand where they did not stand are looked at', () => {
    const along = doubled();
    const list = [{ n: 1 }, { n: 2 }, { n: 3 }];
    const first = along(list);
    expect(first).toEqual([2, 4, 6]);
    expect(along(list)).toBe(first);
    expect(along([list[0]!, { n: 5 }, list[2]!])).toEqual([2, 10, 6]);
    expect(asked).toEqual([1, 2, 3, 5]);
  });

  test('where the values are the same the very same list of them is given', () => {
    const along = doubled();
    const first = along([{ n: 1 }, { n: 2 }]);
    expect(along([{ n: 1 }, { n: 2 }])).toBe(first);
    expect(along([{ n: 1 }])).not.toBe(first);
  });

  test('however lists follow one another, the values are those of the list', () => {
    const pool = Array.from({ length: 6 }, (_, n) => ({ n: n % 4 }));
    const anyList = fc.array(fc.constantFrom(...pool), { maxLength: 6 });
    fc.assert(
      fc.property(fc.array(anyList, { maxLength: 12 }), (lists) => {
        const along = doubled();
        for (const list of lists) expect(along(list)).toEqual(list.map(({ n }) => 2 * n));
      }),
    );
  });
});

test('what a text comes to is worked out once, nothing among it', () => {
  const asked: string[] = [];
  const length = rememberedByText((text) => {
    asked.push(text);
    return text === '' ? undefined : text.length;
  });
  expect([length('ab'), length(''), length('ab'), length('')]).toEqual([2, undefined, 2, undefined]);
  expect(asked).toEqual(['ab', '']);
});
