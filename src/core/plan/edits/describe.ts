import { ok } from '../../result';
import { defineEdit } from './define';
import type { DescribeEdit } from './describe.schema';

/** Sets what is said of the plan as a whole. */
export const describePlan = defineEdit<DescribeEdit>({
  apply(plan, { set: { owner, ...rest } }) {
    // Another model is another radio.
    const parted = rest.modelId !== undefined && rest.modelId !== plan.modelId && { unit: null };
    return ok({ ...plan, ...parted, ...rest, ...(owner && { owner: { ...plan.owner, ...owner } }) });
  },
  label({ set }) {
    if (set.name !== undefined) return `Rename the plan to “${set.name}”`;
    if (set.origin !== undefined)
      return set.origin ? 'Look at what changed where it came from' : 'Part from the plan that it came from';
    if (set.lookedAt !== undefined) return 'Look at what changed in a plan made of this one';
    if (set.unit !== undefined)
      return set.unit ? `Work on it for ${set.unit.called}` : 'Work on it for any radio of its model';
    if (set.settings !== undefined) return 'Change the radio’s settings';
    return set.abbreviations === undefined ? 'Change the plan’s details' : 'Change the abbreviations';
  },
});
