import { describeDocument } from '../../document/edits';
import { ok } from '../../result';
import { PLAN_STRUCTURE } from '../structure';
import { defineEdit } from './define';
import type { DescribeEdit } from './describe.schema';

/** Sets what is said of the plan as a whole. */
export const describePlan = defineEdit<DescribeEdit>({
  apply(plan, { set: { owner, ...rest } }) {
    // Another model is another radio.
    const parted = rest.modelId !== undefined && rest.modelId !== plan.modelId && { unit: null };
    const set = { ...parted, ...rest, ...(owner && { owner: { ...plan.owner, ...owner } }) };
    return ok(describeDocument(PLAN_STRUCTURE, plan, set));
  },
  label({ set }) {
    if (set.name !== undefined) return { of: 'describe', field: 'name', value: set.name };
    if (set.origin !== undefined)
      return { of: 'describe', field: 'origin', value: set.origin && set.origin.plan };
    if (set.lookedAt !== undefined) return { of: 'describe', field: 'lookedAt' };
    if (set.unit !== undefined) return { of: 'describe', field: 'unit', value: set.unit && set.unit.called };
    if (set.uses !== undefined) return { of: 'describe', field: 'uses' };
    if (set.settings !== undefined) return { of: 'describe', field: 'settings' };
    return { of: 'describe', field: set.abbreviations === undefined ? 'details' : 'abbreviations' };
  },
});
