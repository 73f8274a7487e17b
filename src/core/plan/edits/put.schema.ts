import { z } from 'zod';
import { zoneIdSchema } from '../ids.schema';
import { ZONE_LIMIT } from '../zone';
import { zoneSchema } from '../zone.schema';

export const putSchema = z.discriminatedUnion('kind', [
  z.object({
    name: z.literal('put'),
    kind: z.literal('zone'),
    records: z.array(zoneSchema).min(1).max(ZONE_LIMIT),
    before: zoneIdSchema.nullable(),
  }),
]);
export type PutEdit = z.infer<typeof putSchema>;
