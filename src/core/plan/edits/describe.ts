import { z } from 'zod';
import { ok } from '../../result';
import { abbreviationsSchema } from '../abbreviations';
import { detailsSchema, ownerSchema } from '../plan';
import { defineEdit } from './define';

/** Sets what is said of the plan as a whole. */
export const describePlan = defineEdit({
  schema: z.object({
    name: z.literal('describe'),
    set: detailsSchema
      .extend({ abbreviations: abbreviationsSchema.nullable(), owner: ownerSchema.partial() })
      .partial()
      .refine((set) => Object.keys(set).length > 0, 'sets nothing'),
  }),
  apply(plan, { set: { owner, ...rest } }) {
    return ok({ ...plan, ...rest, ...(owner && { owner: { ...plan.owner, ...owner } }) });
  },
  label({ set }) {
    if (set.name !== undefined) return `Rename the plan to “${set.name}”`;
    return set.abbreviations === undefined ? 'Change the plan’s details' : 'Change the abbreviations';
  },
});
