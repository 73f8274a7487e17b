import { z } from 'zod';
import { usesSchema } from '../document/uses.schema';
import { ADDITION_IDS, OWNER_GRADES, parseLocator, REGIONS } from '../radio';
import { text, trimmedText, wantedText } from '../text.schema';
import { planIdSchema } from './ids.schema';
import { listsSchema } from './kinds.schema';
import { abbreviationsSchema } from './abbreviations.schema';
import { unitSchema } from './unit.schema';
import { settingValueSchema } from './setting-value.schema';
import { FORMAT, LOOKED_AT_LIMIT, PLAN_NAME_LIMIT, SETTINGS_LIMITS } from './plan';

const atMostKeys = (most: number) => (of: object) => Object.keys(of).length <= most;

/** Whose plan it is, and by which licence it is guarded. */
export const ownerSchema = z.object({
  callSign: trimmedText(16),
  region: z.enum(REGIONS),
  grade: z.enum(OWNER_GRADES),
  /** Guard strictly: transmitting outside the licence is a stop, not a caution. */
  strict: z.boolean(),
  /** Where they are at home, as a Maidenhead locator. Optional: older plans have none. */
  locator: trimmedText(8)
    .refine((text) => text === '' || parseLocator(text).ok, 'is not a locator such as HO52 or HO52ka')
    .optional(),
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

/** Settings of radios, by model and by the setting's key. */
export const settingsSchema = z
  .record(
    text(40),
    z
      .record(text(40), settingValueSchema)
      .refine(atMostKeys(SETTINGS_LIMITS.each), `has more than ${SETTINGS_LIMITS.each} settings`),
  )
  .refine(atMostKeys(SETTINGS_LIMITS.models), `has settings for more than ${SETTINGS_LIMITS.models} models`);

/** Settings that change, by model and key; null for one that goes. */
export const settingChangesSchema = z
  .record(
    text(40),
    z
      .record(text(40), settingValueSchema.nullable())
      .refine(atMostKeys(SETTINGS_LIMITS.each), `has more than ${SETTINGS_LIMITS.each} settings`),
  )
  .refine(atMostKeys(SETTINGS_LIMITS.models), `has settings for more than ${SETTINGS_LIMITS.models} models`);

/** Where a plan came from. */
export const originSchema = z.object({ plan: planIdSchema, revision: z.int().min(1) });

/** Up to which revision plans that were made of this one have been looked at. */
export const lookedAtSchema = z
  .record(planIdSchema, z.int().min(1))
  .refine(atMostKeys(LOOKED_AT_LIMIT), `names more than ${LOOKED_AT_LIMIT} plans`);

/** Everything of a plan but its records: what a person sets on the plan as a whole. */
export const headSchema = detailsSchema.extend({
  /** The short forms that names are fitted with; null for the usual ones. */
  abbreviations: abbreviationsSchema.nullable().default(null),
  /** What is set on the radios themselves, by model and setting; what is not named stays as the radio has it. */
  settings: settingsSchema.default({}),
  /** The plan that it was made of for another radio, and the revision of that which has been looked at. */
  origin: originSchema.nullable().default(null),
  /** The plans that were made of this one, and the revision of each that has been looked at. */
  lookedAt: lookedAtSchema.default({}),
  /** The one radio of its model that it is worked on for; null where it is for any. */
  unit: unitSchema.nullable().default(null),
  /** The documents of which it uses records, each at a revision. */
  uses: usesSchema.default([]),
});

/** The plan document: its details, and its records by kind. Every record has an id and refers to others by theirs. */
export const planSchema = headSchema.extend({
  format: z.literal(FORMAT),
  id: planIdSchema,
  ...listsSchema.shape,
});
export type Origin = z.infer<typeof originSchema>;
export type Settings = z.infer<typeof settingsSchema>;
export type SettingChanges = z.infer<typeof settingChangesSchema>;
export type Owner = z.infer<typeof ownerSchema>;
export type PlanDetails = z.infer<typeof detailsSchema>;
export type PlanHead = z.infer<typeof headSchema>;
export type Plan = z.infer<typeof planSchema>;
