import { rebased } from '../document/rebase';
import type { Result } from '../result';
import { difference } from './difference';
import type { Edit, EditNamed } from './edit.schema';
import { applyPlain, plainLabel } from './edits/plain';
import { together } from './edits/together';
import { labelWords } from './label';
import type { LabelParts } from './label.schema';
import type { Plan } from './plan.schema';
import { PLAN_STRUCTURE } from './structure';

/**
 * Runs an edit. Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure.
 *
 * @example applyEdit(plan, { name: 'change', changes: [{ id, set: { tx: null } }] })
 */
export const applyEdit = (plan: Plan, edit: Edit): Result<Plan> =>
  edit.name === 'together' ? together.apply(plan, edit) : applyPlain(plan, edit);

/** An edit in plain words; `plan` is the one that it is run on. */
export const editLabel = (edit: Edit, plan: Plan): string => labelWords(labelOfEdit(edit, plan));

/** What the label of an edit says; `plan` is the one that it is run on. */
export const labelOfEdit = (edit: Edit, plan: Plan): LabelParts =>
  edit.name === 'together' ? together.label(edit, plan) : plainLabel(edit, plan);

/** The edit that leads from `after` back to `before`: found by comparing the two, so it fits every edit. */
export const inverseOf = (before: Plan, after: Plan): EditNamed<'restore'> => ({
  name: 'restore',
  ...difference(after, before),
});

/**
 * Runs an edit that was made on `base` again on `newest`. Refused where it fails there, or where it sets
 * something that has been changed since: nobody's work is overwritten unseen.
 */
export const rebaseEdit = (edit: Edit, base: Plan, newest: Plan): Result<Plan> =>
  rebased(PLAN_STRUCTURE, applyEdit, edit, { base, newest });
