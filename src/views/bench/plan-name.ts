/** A plan that can be chosen to be written. */
export interface PlanName {
  id: string;
  name: string;
  modelId: string;
}
