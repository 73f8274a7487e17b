import { z } from 'zod';
import { usesSchema } from '../../document/uses.schema';
import { abbreviationsSchema } from '../abbreviations.schema';
import { detailsSchema, lookedAtSchema, originSchema, ownerSchema, settingsSchema } from '../plan.schema';
import { unitSchema } from '../unit.schema';

export const describeSchema = z.object({
  name: z.literal('describe'),
  set: detailsSchema
    .extend({
      abbreviations: abbreviationsSchema.nullable(),
      settings: settingsSchema,
      origin: originSchema.nullable(),
      lookedAt: lookedAtSchema,
      unit: unitSchema.nullable(),
      uses: usesSchema,
      owner: ownerSchema.partial(),
    })
    .partial()
    .refine((set) => Object.keys(set).length > 0, 'sets nothing'),
});
export type DescribeEdit = z.infer<typeof describeSchema>;
