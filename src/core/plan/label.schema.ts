import { z } from 'zod';
import { KIND_NAMES } from './kinds';

const kind = z.enum(KIND_NAMES);
/** How many records, and the name of the only one. */
const which = { n: z.int().min(0), name: z.string().optional() };

/** What the label of an edit says: its template, and what goes into it. */
export const labelPartsSchema = z.discriminatedUnion('of', [
  z.object({
    of: z.literal('arrange'),
    how: z.enum(['move', 'swap', 'close gaps', 'sort', 'renumber']),
    n: z.int(),
  }),
  /** `set` is what all of them are set to, where that is one field and the same for all. */
  z.object({
    of: z.literal('change channels'),
    ...which,
    fields: z.array(z.string()),
    set: z.record(z.string(), z.unknown()).optional(),
  }),
  z.object({ of: z.literal('change records'), kind, ...which, fields: z.array(z.string()) }),
  z.object({
    of: z.literal('describe'),
    field: z.enum(['name', 'origin', 'lookedAt', 'unit', 'settings', 'abbreviations', 'uses', 'details']),
    value: z.string().nullable().optional(),
  }),
  z.object({ of: z.literal('order'), kind, n: z.int() }),
  z.object({ of: z.literal('place'), ...which }),
  z.object({ of: z.literal('put'), kind, ...which }),
  z.object({ of: z.literal('remove'), kind, ...which }),
  z.object({
    of: z.literal('restore'),
    records: z.record(z.string(), z.int()),
    rest: z.enum(['details', 'settings', 'nothing']),
  }),
  z.object({ of: z.literal('set'), n: z.int() }),
  /** Several edits as one, called what those who made them call it. */
  z.object({ of: z.literal('together'), label: z.string() }),
  z.object({ of: z.literal('go back'), revision: z.int() }),
]);
export type LabelParts = z.infer<typeof labelPartsSchema>;
