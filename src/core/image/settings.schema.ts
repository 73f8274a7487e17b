import { z } from 'zod';
import { settingSchema } from '../settings';

/** A setting of a model, with the option of the unit that it needs, and the layout version of the memory that brought it. */
export const settingInfoSchema = settingSchema.extend({
  needs: z.string().optional(),
  since: z.int().optional(),
});
export type SettingInfo = z.infer<typeof settingInfoSchema>;
