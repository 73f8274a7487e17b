import { countsIn } from '../../document/label';
import { applyDifference, type Difference } from '../difference';
import type { PlanHead } from '../plan.schema';
import { PLAN_STRUCTURE } from '../structure';
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
    return {
      of: 'restore',
      records: countsIn(PLAN_STRUCTURE, { records: recordsIn(edit) }),
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
