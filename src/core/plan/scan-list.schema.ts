import { z } from 'zod';
import { wantedText } from '../text.schema';
import { channelIdSchema, scanListIdSchema } from './ids.schema';
import { ANSWERS, SCAN_LIST_LIMITS, SCAN_LIST_NAME_LIMIT } from './scan-list';

/** What a person sets on a scan list. */
export const scanListFieldsSchema = z.object({
  name: wantedText(SCAN_LIST_NAME_LIMIT),
  /** In the order in which they are looked at; a channel once. */
  members: z
    .array(channelIdSchema)
    .max(SCAN_LIST_LIMITS.members)
    .refine((members) => new Set(members).size === members.length, 'has a channel twice'),
  /** Looked at between all others; null where none is. */
  first: channelIdSchema.nullable(),
  /** Looked at nearly as often; null where none is. */
  second: channelIdSchema.nullable(),
  answers: z.enum(ANSWERS),
  /** The scan begins when one of the channels that have this list is turned to. */
  startsItself: z.boolean(),
});

export const scanListSchema = scanListFieldsSchema.extend({ id: scanListIdSchema });

/** Channels that are looked at in turn, in an order of their own. */
export type ScanList = z.infer<typeof scanListSchema>;
