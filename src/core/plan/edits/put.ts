import { fail, ok } from '../../result';
import { KINDS, recordsOf, withRecords } from '../kinds';
import type { AnyRecord } from '../kinds.schema';
import { danglingFault, withReferencesThere } from '../references';
import { defineEdit } from './define';
import type { PutEdit } from './put.schema';

/** Puts new records of a kind with an order of its own into the plan: before another one, or at the end. Channels are placed instead. */
export const put = defineEdit<PutEdit>({
  apply(plan, { kind, records: coming, before }) {
    // Channels of another plan may refer to what is there alone; of other records that is a mistake.
    const records = kind === 'leftOver' ? withReferencesThere(plan, kind, coming) : coming;
    const { words, limit } = KINDS[kind];
    const there: readonly AnyRecord[] = recordsOf(plan, kind);
    const held = new Set<string>(there.map(({ id }) => id));
    for (const { id } of records) {
      if (held.has(id)) return fail(`The ${words.one} ${id} would be there twice.`);
      held.add(id);
    }
    if (held.size > limit)
      return fail(`A plan holds ${limit} ${words.many} at most; this would make ${held.size}.`);
    const at = before === null ? there.length : there.findIndex(({ id }) => id === before);
    if (at < 0) return fail(`The ${words.one} ${before} is not in the plan any more.`);
    const next = withRecords(plan, kind, [...there.slice(0, at), ...records, ...there.slice(at)]);
    const lost = danglingFault(next, { [kind]: records });
    return lost === null ? ok(next) : fail(lost);
  },
  label: ({ kind, records }) => ({
    ...{ of: 'put', kind, n: records.length },
    ...(records.length === 1 && { name: records[0]!.name }),
  }),
});
