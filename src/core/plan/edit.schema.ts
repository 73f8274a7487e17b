import { z } from 'zod';
import { plainEditSchema } from './edits/plain.schema';
import { togetherSchema } from './edits/together.schema';
import type { Stepwise } from '../stepwise';
import { KIND_NAMES } from './kinds';
import { SCHEMAS } from './kinds.schema';

/**
 * Every change of a plan, as a value. `applyEdit` runs it, `editLabel` says it in words, `inverseOf` undoes it. A few are
 * general, over any kind of record (put, change, remove, order); `place` and `arrange` know radio; `restore` is a difference;
 * `together` is several of them as one.
 */
export const editSchema = z.discriminatedUnion('name', [plainEditSchema, togetherSchema]);
export type Edit = z.infer<typeof editSchema>;

/** An edit of that name. */
export type EditNamed<N extends Edit['name']> = Extract<Edit, { name: N }>;

/** Records that are validated in one step. */
const STEP = 50;

/**
 * The edit that a value out of a log is; throws where it is none, as Zod does. In steps: the inverse of a large change has all records that it changed,
 * which are validated one by one.
 */
export function* readingEdit(value: unknown): Stepwise<Edit> {
  const { name, records = {} } = value as { name?: unknown; records?: Record<string, { put?: unknown }> };
  const long = KIND_NAMES.filter((kind) => {
    const put = name === 'restore' && records[kind]?.put;
    return Array.isArray(put) && put.length > STEP;
  });
  if (long.length === 0) return editSchema.parse(value);
  const rest = Object.fromEntries(long.map((kind) => [kind, { ...records[kind], put: [] }]));
  const edit = editSchema.parse({ ...(value as object), records: { ...records, ...rest } });
  if (edit.name !== 'restore') return edit;
  const read: Record<string, object> = {};
  for (const kind of long) {
    const put: unknown[] = [];
    for (const [place, record] of (records[kind]!.put as unknown[]).entries()) {
      if (place % STEP === 0) yield;
      put.push(SCHEMAS[kind].record.parse(record));
    }
    read[kind] = { ...edit.records![kind], put };
  }
  return { ...edit, records: { ...edit.records, ...read } };
}
