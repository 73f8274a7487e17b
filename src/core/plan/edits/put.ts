import { putRecords } from '../../document/edits';
import { generalLabel } from '../../document/label';
import type { LabelParts } from '../label.schema';
import { withReferencesThere } from '../references';
import { PLAN_STRUCTURE } from '../structure';
import { defineEdit } from './define';
import type { PutEdit } from './put.schema';

/** Puts new records of a kind with an order of its own into the plan: before another one, or at the end. Channels are placed instead. */
export const put = defineEdit<PutEdit>({
  apply(plan, { kind, records: coming, before }) {
    // Channels of another plan may refer to what is there alone; of other records that is a mistake.
    const records = kind === 'leftOver' ? withReferencesThere(plan, kind, coming) : coming;
    return putRecords(PLAN_STRUCTURE, plan, kind, records, before);
  },
  label: (edit, plan) => generalLabel(PLAN_STRUCTURE, edit, plan) as LabelParts,
});
