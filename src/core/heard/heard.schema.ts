import { z } from 'zod';
import { channelIdSchema } from '../plan';

/** How often a channel was heard, as the interface says it. */
export const heardSchema = z.object({
  channel: channelIdSchema,
  times: z.int().min(1),
  last: z.iso.datetime(),
  weeks: z.array(z.int().min(0)),
});

/** One time at which a channel was heard. */
export const heardAtSchema = z.strictObject({ channel: channelIdSchema, at: z.iso.datetime() });
export type HeardAt = z.infer<typeof heardAtSchema>;
