import { z } from 'zod';
import { wantedText } from '../text.schema';
import { talkgroupIdSchema } from './ids.schema';
import { ALL_CALL, CALLS, HIGHEST_NUMBER, TALKGROUP_NAME_LIMIT } from './talkgroup';

export const callNumberSchema = z
  .int('is not a whole number')
  .refine(
    (number) => (number >= 1 && number <= HIGHEST_NUMBER) || number === ALL_CALL,
    `is not a number from 1 to ${HIGHEST_NUMBER}`,
  );

/** What a person sets on a talkgroup. */
export const talkgroupFieldsSchema = z.object({
  name: wantedText(TALKGROUP_NAME_LIMIT),
  /** Of the group or the radio that is called; 24 bits on air. */
  number: callNumberSchema,
  call: z.enum(CALLS),
  /** Speech on it is encrypted: a radio without the key hears noise. */
  encrypted: z.boolean().optional(),
});

export const talkgroupSchema = talkgroupFieldsSchema.extend({ id: talkgroupIdSchema });

/** Whom a digital channel calls: a talkgroup, one person by the ID of their radio, or everybody. */
export type Talkgroup = z.infer<typeof talkgroupSchema>;
