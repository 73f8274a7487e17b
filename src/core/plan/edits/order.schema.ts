import { z } from 'zod';
import { zoneIdSchema } from '../ids.schema';
import { ZONE_LIMIT } from '../zone';

export const orderSchema = z.discriminatedUnion('kind', [
  z.object({
    name: z.literal('order'),
    kind: z.literal('zone'),
    ids: z.array(zoneIdSchema).min(1).max(ZONE_LIMIT),
    before: zoneIdSchema.nullable(),
  }),
]);
export type OrderEdit = z.infer<typeof orderSchema>;
