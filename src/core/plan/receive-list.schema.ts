import { z } from 'zod';
import { wantedText } from '../text.schema';
import { receiveListIdSchema, talkgroupReferenceSchema } from './ids.schema';
import { RECEIVE_LIST_LIMITS, RECEIVE_LIST_NAME_LIMIT } from './receive-list';

/** What a person sets on a receive list. */
export const receiveListFieldsSchema = z.object({
  name: wantedText(RECEIVE_LIST_NAME_LIMIT),
  members: z
    .array(talkgroupReferenceSchema)
    .max(RECEIVE_LIST_LIMITS.members)
    .refine((members) => new Set(members).size === members.length, 'has a talkgroup twice'),
});

export const receiveListSchema = receiveListFieldsSchema.extend({ id: receiveListIdSchema });

/** The talkgroups that are heard on a channel besides its own. */
export type ReceiveList = z.infer<typeof receiveListSchema>;
