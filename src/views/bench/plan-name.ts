import type { PlanId } from '@/core/plan';

/** A plan that can be chosen to be written. */
export interface PlanName {
  id: PlanId;
  name: string;
  modelId: string;
}
