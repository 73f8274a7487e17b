import { z } from 'zod';
import { wantedText } from '../../text.schema';
import { plainEditSchema } from './plain.schema';

/** Most edits that are one. Each goes through the plan: what is alike belongs into one of them. */
const TOGETHER_LIMIT = 20;

export const togetherSchema = z.object({
  name: z.literal('together'),
  /** What they come to, in plain words for the history and the undo button. */
  label: wantedText(120),
  edits: z.array(plainEditSchema).min(1).max(TOGETHER_LIMIT),
});
export type TogetherEdit = z.infer<typeof togetherSchema>;
