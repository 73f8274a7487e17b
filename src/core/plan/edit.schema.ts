import { z } from 'zod';
import { plainEditSchema } from './edits/plain.schema';
import { togetherSchema } from './edits/together.schema';
import { parsing } from '../parsing';
import type { Stepwise } from '../stepwise';

/**
 * Every change of a plan, as a value. `applyEdit` runs it, `editLabel` says it in words, `inverseOf` undoes it. A few are
 * general, over any kind of record (put, change, remove, order); `place` and `arrange` know radio; `restore` is a difference;
 * `together` is several of them as one.
 */
export const editSchema = z.discriminatedUnion('name', [plainEditSchema, togetherSchema]);
export type Edit = z.infer<typeof editSchema>;

/** An edit of that name. */
export type EditNamed<N extends Edit['name']> = Extract<Edit, { name: N }>;

/** The edit that a value out of a log is; throws where it is none, as Zod does. In steps: the inverse of a large change has all records that it changed. */
export function* readingEdit(value: unknown): Stepwise<Edit> {
  const parsed = yield* parsing(editSchema, value);
  if ('issues' in parsed) throw new z.ZodError([...parsed.issues]);
  return parsed.data;
}
