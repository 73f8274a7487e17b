import { kindOf, PROBLEM_KINDS, typeOf } from './problems';
import { problemSchema } from './problems.schema';

test('a problem is of one of the kinds, by its type, and of no other', () => {
  const problem = { title: 'T', status: 409, detail: 'D' };
  for (const kind of PROBLEM_KINDS) {
    const read = problemSchema.safeParse({ ...problem, type: typeOf(kind) });
    expect(read.success && kindOf(read.data.type)).toBe(kind);
  }
  for (const type of ['urn:veridon:problem:none', 'about:blank', undefined])
    expect(problemSchema.safeParse({ ...problem, type }).success).toBe(false);
});
