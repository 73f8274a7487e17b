import { z } from 'zod';
import { ADDITION_IDS, GRADES, REGIONS } from '../radio';
import { trimmedText, wantedText } from '../text.schema';
import { planIdSchema } from './ids.schema';
import { listsSchema } from './kinds.schema';
import { abbreviationsSchema } from './abbreviations.schema';
import { PLAN_NAME_LIMIT, FORMAT } from './plan';

/** Whose plan it is, and by which licence it is guarded. */
export const ownerSchema = z.object({
  callSign: trimmedText(16),
  region: z.enum(REGIONS),
  grade: z.enum(GRADES),
  /** Guard strictly: transmitting outside the licence is a stop, not a caution. */
  strict: z.boolean(),
  /** What the country has beyond its region's common table. Optional, as is `marine`: older plans have neither. */
  additions: z.array(z.enum(ADDITION_IDS)).max(ADDITION_IDS.length).optional(),
  /** The plan is a ship's or a coast station's, under a marine certificate. */
  marine: z.boolean().optional(),
});

/** What is said of a plan when it is made. */
export const detailsSchema = z.object({
  name: wantedText(PLAN_NAME_LIMIT),
  /** The model that the plan is made for; a fit can be asked for any other. */
  modelId: wantedText(40),
  owner: ownerSchema,
});

/** Everything of a plan but its records: what a person sets on the plan as a whole. */
export const headSchema = detailsSchema.extend({
  /** The short forms that names are fitted with; null for the usual ones. */
  abbreviations: abbreviationsSchema.nullable().default(null),
});

/** The plan document: its details, and its records by kind. Every record has an id and refers to others by theirs. */
export const planSchema = headSchema.extend({
  format: z.literal(FORMAT),
  id: planIdSchema,
  ...listsSchema.shape,
});
export type Owner = z.infer<typeof ownerSchema>;
export type PlanDetails = z.infer<typeof detailsSchema>;
export type PlanHead = z.infer<typeof headSchema>;
export type Plan = z.infer<typeof planSchema>;
