import { settingsFault } from '../core/image';
import { PLAN_TYPE, type Edit, type Plan } from '../core/plan';
import type { SavedType } from './documents/types';
import { wantModel } from './models';
import { editRefused } from './problem';

/** Plans, as a type of document that is saved. */
export const planType: SavedType<Plan, Edit> = {
  type: PLAN_TYPE,
  check(before, after) {
    const fault = settingsFault(before.settings, after.settings);
    if (fault !== null) throw editRefused(fault);
    if (after.modelId !== before.modelId) wantModel(after.modelId);
  },
};
