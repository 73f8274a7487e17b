import type { DocumentType } from '../document/type';
import type { Difference } from './difference';
import { applyEdit, labelOfEdit } from './edit';
import { readingEdit, type Edit } from './edit.schema';
import { labelWords } from './label';
import { labelPartsSchema } from './label.schema';
import type { Plan } from './plan.schema';
import { PLAN_SHAPE } from './shape';

/** Plans, as a type of document. */
export const PLAN_TYPE: DocumentType<Plan, Edit> = {
  name: 'plan',
  idPrefix: 'pl',
  shape: PLAN_SHAPE,
  apply: applyEdit,
  label: labelOfEdit,
  labelWords(label) {
    const parts = labelPartsSchema.safeParse(label);
    return parts.success ? labelWords(parts.data) : null;
  },
  readingEdit,
  restoring: (difference) => ({ name: 'restore', ...(difference as Difference) }),
};
