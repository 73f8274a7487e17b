import { orderRecords } from '../../document/edits';
import { generalLabel } from '../../document/label';
import type { LabelParts } from '../label.schema';
import { PLAN_STRUCTURE } from '../structure';
import { defineEdit } from './define';
import type { OrderEdit } from './order.schema';

/** Takes records out of their order and puts them before another one, or at the end; they keep their order among themselves. */
export const order = defineEdit<OrderEdit>({
  apply: (plan, { kind, ids, before }) => orderRecords(PLAN_STRUCTURE, plan, kind, ids, before),
  label: (edit, plan) => generalLabel(PLAN_STRUCTURE, edit, plan) as LabelParts,
});
