import { z } from 'zod';
import { usesSchema } from '../../document/uses.schema';
import { abbreviationsSchema } from '../abbreviations.schema';
import { CHANNEL_LIMIT } from '../channel';
import { channelSchema } from '../channel.schema';
import type { Difference } from '../difference';
import { channelIdSchema } from '../ids.schema';
import { KIND_NAMES, KINDS } from '../kinds';
import { SCHEMAS } from '../kinds.schema';
import {
  detailsSchema,
  lookedAtSchema,
  originSchema,
  settingChangesSchema,
  settingsSchema,
} from '../plan.schema';
import { unitSchema } from '../unit.schema';

const channels = z.array(channelSchema).max(CHANNEL_LIMIT);
const channelIds = z.array(channelIdSchema).max(CHANNEL_LIMIT);

/** How the records of each kind differ; those with an order of their own may have another one. */
const recordsSchema = z
  .object(
    Object.fromEntries(
      KIND_NAMES.map((kind) => {
        const { limit, order } = KINDS[kind];
        const ids = z.array(SCHEMAS[kind].id).max(limit);
        const shape = { put: z.array(SCHEMAS[kind].record).max(limit), remove: ids };
        return [kind, z.object(order === 'own' ? { ...shape, order: ids.optional() } : shape).optional()];
      }),
    ),
  )
  .strict() as unknown as z.ZodType<Difference['records']>;

export const restoreSchema = z.object({
  name: z.literal('restore'),
  records: recordsSchema.optional(),
  /** What it does not name stays. Logs of before settings changed one by one have heads with all that a plan had then. */
  head: detailsSchema
    .extend({
      abbreviations: abbreviationsSchema.nullable(),
      settings: settingsSchema,
      origin: originSchema.nullable(),
      lookedAt: lookedAtSchema,
      unit: unitSchema.nullable(),
      uses: usesSchema,
    })
    .partial()
    .optional(),
  settings: settingChangesSchema.optional(),
  // How logs of format 1 have it: channels alone, and the oldest know no abbreviations.
  put: channels.optional(),
  remove: channelIds.optional(),
  details: detailsSchema.extend({ abbreviations: abbreviationsSchema.nullable().optional() }).optional(),
});
export type RestoreEdit = z.infer<typeof restoreSchema>;
