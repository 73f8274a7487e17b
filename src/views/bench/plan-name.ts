import type { PlanId, RadioId } from '@/core/plan';

/** A plan that can be chosen to be written. */
export interface PlanName {
  id: PlanId;
  name: string;
  modelId: string;
  /** The one radio that it is worked on for. */
  unit: RadioId | null;
}
