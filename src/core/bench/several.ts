import { z } from 'zod';
import { planIdSchema, radioIdSchema, settingValueSchema } from '../plan';
import { text } from '../text.schema';

/** Most radios that one plan is written to at once. */
export const SEVERAL_LIMIT = 50;

/** Settings that are a unit's own, whatever plan it gets: a greeting, an identity. */
export const ownSettingsSchema = z.record(text(40), settingValueSchema);

/** One plan to several radios, each with its own settings. */
export const severalRequestSchema = z.strictObject({
  planId: planIdSchema,
  planRevision: z.int().min(1),
  radios: z
    .array(z.strictObject({ radioId: radioIdSchema, own: ownSettingsSchema.default({}) }))
    .min(1)
    .max(SEVERAL_LIMIT)
    .refine(
      (radios) => new Set(radios.map(({ radioId }) => radioId)).size === radios.length,
      'names a radio twice',
    ),
  /** All of them at once, or one after the other. */
  together: z.boolean(),
});
export type SeveralRequest = z.infer<typeof severalRequestSchema>;

export const batchRowSchema = z.object({
  radioId: radioIdSchema,
  called: z.string(),
  model: z.string(),
  state: z.enum(['waiting', 'running', 'done', 'failed']),
  /** What it is at, or what came of it. */
  message: z.string(),
  jobId: z.string().nullable(),
  /** Bytes that were read back as they were sent. */
  proved: z.int(),
});
export type BatchRow = z.infer<typeof batchRowSchema>;

export const batchSchema = z.object({
  id: z.string(),
  planName: z.string(),
  planRevision: z.int(),
  at: z.string(),
  running: z.boolean(),
  rows: z.array(batchRowSchema),
});
/** What came of writing one plan to several radios. */
export type Batch = z.infer<typeof batchSchema>;
