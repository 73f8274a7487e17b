import { z } from 'zod';
import { anyEditOn } from './plan/edit.test.kit';
import { anyPlan, id } from './samples.test.kit';
import { editSchema } from './plan';
import { parsing } from './parsing';
import * as fc from './property.test.kit';
import { atOnce } from './stepwise';

/** To validate in steps gives what validating at once gives. */

/** What is wrong, as people are told. */
const told = (issues: readonly { path: PropertyKey[]; message: string }[]) =>
  issues.map(({ path, message }) => `${path.join('.')}: ${message}`);
function both(schema: z.ZodType, value: unknown) {
  const whole = schema.safeParse(value);
  const parts = atOnce(parsing(schema, value));
  return {
    whole: whole.success ? { data: whole.data } : { issues: told(whole.error.issues) },
    parts: 'data' in parts ? parts : { issues: told(parts.issues) },
  };
}
const stepsOf = (schema: z.ZodType, value: unknown) => {
  let n = 0;
  for (const steps = parsing(schema, value); !steps.next().done;) n++;
  return n;
};

const row = z.strictObject({ id: z.string().trim().min(1), n: z.int().min(0).default(7) });
const schema = z
  .object({
    base: z.int(),
    edit: z.discriminatedUnion('name', [
      z.object({ name: z.literal('put'), rows: z.array(row).min(1).max(300) }),
      z
        .object({
          name: z.enum(['set', 'change']),
          rows: z.array(row).optional(),
          more: z.array(z.string()).nullable(),
        })
        .refine(({ rows }) => (rows?.length ?? 0) !== 123, 'has 123 rows'),
    ]),
  })
  .strict();
const rows = (count: number, change: (row: Record<string, unknown>, at: number) => void = () => {}) =>
  Array.from({ length: count }, (_, at) => {
    const one: Record<string, unknown> = { id: ` row ${at} `, ...(at % 3 === 0 && { n: at }) };
    change(one, at);
    return one;
  });
const put = (of: unknown) => ({ base: 1, edit: { name: 'put', rows: of } });

test.each<[string, unknown]>([
  ['few rows', put(rows(3))],
  ['many rows', put(rows(300))],
  ['too many rows', put(rows(301))],
  ['no rows', put([])],
  ['no list', put({ length: 90 })],
  ['a row with a field of its own', put(rows(200, (one, at) => at === 150 && (one.odd = 1)))],
  ['a row that is none', put([...rows(90), null])],
  ['a number that is none, in the first row', put(rows(90, (one, at) => at === 0 && (one.n = -1)))],
  ['an option by the second of its names', { base: 1, edit: { name: 'change', rows: rows(80), more: null } }],
  ['an option whose list is missing', { base: 1, edit: { name: 'set', more: ['a'] } }],
  ['rows that the option refuses together', { base: 1, edit: { name: 'set', rows: rows(123), more: null } }],
  ['two long lists', { base: 1, edit: { name: 'set', rows: rows(70), more: Array(99).fill('x') } }],
  [
    'a wrong element of the second list',
    { base: 1, edit: { name: 'set', rows: rows(70), more: [...Array(99).fill('x'), 1] } },
  ],
  ['an option that is none', { base: 1, edit: { name: 'none', rows: rows(70) } }],
  ['a field that is none', { ...put(rows(70)), other: 1 }],
  ['no object', 'text'],
  ['a wrong field beside a long list', { base: 'x', edit: { name: 'put', rows: rows(70) } }],
])('%s', (_, value) => {
  const { whole, parts } = both(schema, value);
  expect(parts).toEqual(whole);
});

test('of very many wrong elements the first are told', () => {
  const { whole, parts } = both(schema, put(rows(200, (one) => (one.n = -1))));
  expect((whole as { issues: string[] }).issues).toHaveLength(200);
  expect((parts as { issues: string[] }).issues).toEqual((whole as { issues: string[] }).issues.slice(0, 10));
});

test('long lists take steps, short ones none', () => {
  expect(stepsOf(schema, put(rows(50)))).toBe(0);
  expect(stepsOf(schema, put(rows(300)))).toBe(6);
  // What is too long is not looked through.
  expect(stepsOf(schema, put(rows(5000)))).toBe(0);
});

test('a check of the whole list sees valid elements alone', () => {
  const pairs = z
    .array(z.tuple([z.string(), z.string()]))
    .refine((all) => all.every(([one]) => one.length > 0), 'is empty');
  const many = (last: unknown) => [...Array.from({ length: 60 }, () => ['a', 'b']), last];
  for (const last of [['a', 'b'], ['', 'b'], null, {}, ['a']]) {
    const { whole, parts } = both(pairs, many(last));
    expect(parts).toEqual(whole);
  }
});

test('long lists in short ones are taken apart too', () => {
  const change = {
    name: 'change',
    changes: Array.from({ length: 600 }, (_, n) => ({ id: id(n), set: { name: `N${n}` } })),
  };
  const edit = {
    name: 'together',
    label: 'Both',
    edits: [change, { name: 'describe', set: { name: 'X' } }, change],
  };
  expect(both(editSchema, edit).parts).toEqual({ data: edit });
  expect(stepsOf(editSchema, edit)).toBe(24);
  const wrong = { ...edit, edits: [change, { ...change, changes: [...change.changes, { id: 'x' }] }] };
  expect((both(editSchema, wrong).parts as { issues: string[] }).issues[0]).toMatch(
    /^edits\.1\.changes\.600\./,
  );
});

test('edits of any kind, right and wrong, many times over', () => {
  let long = 0;
  let wrong = 0;
  fc.assert(
    fc.property(
      anyPlan.chain(anyEditOn),
      fc.integer({ min: 1, max: 80 }),
      fc.option(fc.nat(), { freq: 2 }),
      (edit, times, spoil) => {
        // Lists of an edit, repeated until they are long; some with an element that is none.
        const longer = JSON.parse(JSON.stringify(edit), (_key, value: unknown) => {
          if (!Array.isArray(value) || value.length === 0) return value;
          const many: unknown[] = Array.from({ length: times }, () => value as unknown[]).flat();
          if (spoil !== null) many[spoil % many.length] = { spoilt: true };
          return many;
        }) as unknown;
        const { whole, parts } = both(editSchema, longer);
        if (stepsOf(editSchema, longer) > 0) long++;
        if ('data' in whole) return expect(parts).toEqual(whole);
        wrong++;
        // Which of several faults is told may differ (a list that is too long is not looked through); that there is one may not.
        expect((parts as { issues: string[] }).issues.length).toBeGreaterThan(0);
      },
    ),
    { numRuns: 300 },
  );
  expect(long).toBeGreaterThan(30);
  expect(wrong).toBeGreaterThan(30);
});
