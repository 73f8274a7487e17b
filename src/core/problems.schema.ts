import { z } from 'zod';
import { PROBLEM_KINDS, URN } from './problems';

export const problemSchema = z.looseObject({
  type: z.enum(PROBLEM_KINDS.map((kind) => `${URN}${kind}` as const)),
  title: z.string(),
  status: z.int(),
  /** What happened and what to do, in sentences. */
  detail: z.string(),
});

/** A problem document (RFC 9457). */
export type ProblemDocument = z.infer<typeof problemSchema>;
