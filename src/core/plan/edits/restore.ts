import { applyDifference, type Difference } from '../difference';
import { KIND_NAMES, KINDS, type Kind } from '../kinds';
import { countOf } from '../record';
import { defineEdit } from './define';
import type { RestoreEdit } from './restore.schema';

/** A difference laid over the plan: the form that inverses take. */
export const restore = defineEdit<RestoreEdit>({
  apply: (plan, edit) => {
    const { abbreviations, settings, origin, lookedAt, unit } = plan;
    // The oldest heads say nothing of abbreviations, older ones nothing of settings; later ones may say that there were none.
    const said = edit.head ?? edit.details;
    const head = said && { abbreviations, settings, origin, lookedAt, unit, ...said };
    return applyDifference(plan, { records: recordsIn(edit), ...(head && { head }) });
  },
  label(edit) {
    const records = recordsIn(edit);
    const touched = (kind: Kind) => {
      const { put = [], remove = [] } = records[kind] ?? {};
      return put.length + remove.length;
    };
    const kinds = KIND_NAMES.filter((kind) => touched(kind) > 0);
    if (kinds.length === 0)
      return edit.head || edit.details ? 'Restore the plan’s details' : 'Restore nothing';
    return `Restore ${kinds.map((kind) => countOf(touched(kind), KINDS[kind])).join(' and ')}`;
  },
});

/** The records of a restore in either of its two forms. */
function recordsIn({ records, put, remove }: RestoreEdit): Difference['records'] {
  if (records) return records;
  return put || remove ? { channel: { put: put ?? [], remove: remove ?? [] } } : {};
}
