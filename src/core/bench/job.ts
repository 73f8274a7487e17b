import { z } from 'zod';
import type { ImageComparison } from '../image';
import type { RadioState } from '../link';
import { planIdSchema } from '../plan';
import { copyIdSchema } from './copy';
import { serialSchema } from './radio';

export const JOB_KINDS = ['read', 'write', 'restore'] as const;
export type JobKind = (typeof JOB_KINDS)[number];
export const JOB_STATES = ['running', 'done', 'failed', 'stopped'] as const;
/** What a job is at just now. */
export const JOB_PHASES = ['getting ready', 'reading', 'writing', 'reading back', 'ended'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** What is asked for. A write says the serial and revision that the person agreed to. */
export const jobRequestSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('read'), serial: serialSchema }),
  z.strictObject({
    kind: z.literal('write'),
    serial: serialSchema,
    planId: planIdSchema,
    planRevision: z.int().min(1),
  }),
  z.strictObject({ kind: z.literal('restore'), serial: serialSchema, copyId: copyIdSchema }),
]);
export type JobRequest = z.infer<typeof jobRequestSchema>;

/** What a job came to, as far as it came. */
export const jobResultSchema = z.object({
  copyId: z.string().optional(),
  comparison: z.custom<ImageComparison>().optional(),
  /** Channels written, and those that a stop held back. */
  channels: z.int().optional(),
  heldBack: z.int().optional(),
  radio: z.custom<RadioState>().optional(),
  /** Bytes of the write that were in when it broke. */
  bytesIn: z.int().optional(),
});
export type JobResult = z.infer<typeof jobResultSchema>;

/** A job as it stands. Progress counts bytes over all its passes. */
export const jobSchema = z.object({
  id: z.string(),
  kind: z.enum(JOB_KINDS),
  serial: z.string(),
  modelId: z.string(),
  planId: z.string().nullable(),
  state: z.enum(JOB_STATES),
  phase: z.enum(JOB_PHASES),
  /** What it is doing, or how it ended, in a sentence. */
  message: z.string(),
  bytes: z.int(),
  of: z.int(),
  /** null while too little is known. */
  secondsLeft: z.number().nullable(),
  startedAt: z.string(),
  result: jobResultSchema,
});
export type Job = z.infer<typeof jobSchema>;
