import { removeRecords } from '../../document/edits';
import { generalLabel } from '../../document/label';
import type { LabelParts } from '../label.schema';
import { PLAN_STRUCTURE } from '../structure';
import { defineEdit } from './define';
import type { RemoveEdit } from './remove.schema';

/** Takes records out of the plan, and every reference to them. */
export const remove = defineEdit<RemoveEdit>({
  apply: (plan, { kind = 'channel', ids }) => removeRecords(PLAN_STRUCTURE, plan, kind, ids),
  label: ({ kind = 'channel', ids }, plan) =>
    generalLabel(PLAN_STRUCTURE, { name: 'remove', kind, ids }, plan) as LabelParts,
});
