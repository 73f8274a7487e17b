import { applyDifference, type Difference } from '../difference';
import { KIND_NAMES, type Kind } from '../kinds';
import type { PlanHead } from '../plan.schema';
import { defineEdit } from './define';
import type { RestoreEdit } from './restore.schema';

/** A difference laid over the plan: the form that inverses take. */
export const restore = defineEdit<RestoreEdit>({
  apply: (plan, edit) => {
    const head = edit.head ?? edit.details;
    const { settings } = edit;
    return applyDifference(plan, {
      records: recordsIn(edit),
      ...(head && { head: said(head) }),
      ...(settings && { settings }),
    });
  },
  label(edit) {
    const records = recordsIn(edit);
    const touched = (kind: Kind) => {
      const { put = [], remove = [] } = records[kind] ?? {};
      return put.length + remove.length;
    };
    return {
      of: 'restore',
      records: Object.fromEntries(
        KIND_NAMES.flatMap((kind) => (touched(kind) > 0 ? [[kind, touched(kind)]] : [])),
      ),
      rest: edit.head || edit.details ? 'details' : edit.settings ? 'settings' : 'nothing',
    };
  },
});

/** A head without what it leaves open. */
const said = (head: object): Partial<PlanHead> =>
  Object.fromEntries(Object.entries(head).filter(([, value]) => value !== undefined));

/** The records of a restore in either of its two forms. */
function recordsIn({ records, put, remove }: RestoreEdit): Difference['records'] {
  if (records) return records;
  return put || remove ? { channel: { put: put ?? [], remove: remove ?? [] } } : {};
}
