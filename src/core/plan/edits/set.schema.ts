import { z } from 'zod';
import { settingChangesSchema } from '../plan.schema';

export const setSchema = z.object({
  name: z.literal('set'),
  /** By model and key; null for a setting that the plan shall not have any more. */
  settings: settingChangesSchema.refine(
    (changes) => Object.values(changes).some((values) => Object.keys(values).length > 0),
    'sets nothing',
  ),
});
export type SetEdit = z.infer<typeof setSchema>;
