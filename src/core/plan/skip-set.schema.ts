import { z } from 'zod';
import { wantedText } from '../text.schema';
import { skipSetIdSchema } from './ids.schema';
import { SCAN_WAYS, SET_NAME_LIMIT } from './skip-set';
import { membersSchema } from './zone.schema';

/** What a person sets on a skip set. */
export const skipSetFieldsSchema = z.object({
  name: wantedText(SET_NAME_LIMIT),
  way: z.enum(SCAN_WAYS),
  /** The channels that it leaves out, or those that alone it takes. */
  members: membersSchema,
});

export const skipSetSchema = skipSetFieldsSchema.extend({ id: skipSetIdSchema });

/** What a scan leaves out, or what alone it takes; a scan is begun with one of them, or with none. */
export type SkipSet = z.infer<typeof skipSetSchema>;
