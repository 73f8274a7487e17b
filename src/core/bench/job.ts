import { z } from 'zod';
import { imageComparisonSchema } from '../image';
import { RADIO_STATES } from '../link';
import { HIGHEST_NUMBER, planIdSchema, radioIdSchema } from '../plan';
import { wantedText } from '../text.schema';
import { copyIdSchema } from './copy';
import { ownSettingsSchema } from './several';

export const JOB_KINDS = ['read', 'write', 'restore', 'resume', 'people'] as const;
export type JobKind = (typeof JOB_KINDS)[number];
export const JOB_STATES = ['running', 'done', 'failed', 'stopped'] as const;
/** What a job is at just now. */
export const JOB_PHASES = ['getting ready', 'reading', 'writing', 'reading back', 'ended'] as const;
export type JobState = (typeof JOB_STATES)[number];

const daySchema = z.string().regex(/^\d{4}-\d\d-\d\d$/, 'is no day such as 2026-11-20');

/** Which people, and how they are named. */
export const peopleChoiceSchema = z.strictObject({
  /** The plan by whose abbreviations names are shortened. */
  planId: planIdSchema,
  template: wantedText(80),
  /** So many of those who were heard, pinned first. */
  heard: z.int().min(0).max(1_000_000),
  /** By key-ups on these talkgroups; on all of them where there are none. */
  groups: z.array(z.int().min(1).max(HIGHEST_NUMBER)).max(200),
  from: daySchema.optional(),
  to: daySchema.optional(),
  who: z.enum(['in the roll', 'all']),
  /** After them everybody else in the roll, by number, as far as there is room. */
  rest: z.boolean(),
});
export type PeopleChoice = z.infer<typeof peopleChoiceSchema>;

/** What is asked for. A write says the radio and the revision that the person agreed to. */
export const jobRequestSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('read'), radioId: radioIdSchema }),
  z.strictObject({
    kind: z.literal('write'),
    radioId: radioIdSchema,
    planId: planIdSchema,
    planRevision: z.int().min(1),
    /** The sealed copy that the person looked at: where the radio holds something else by now, nothing is written. */
    seenCopyId: copyIdSchema.optional(),
    /** Settings that are this unit's own, whatever the plan says. */
    own: ownSettingsSchema.optional(),
  }),
  z.strictObject({
    kind: z.literal('restore'),
    radioId: radioIdSchema,
    copyId: copyIdSchema,
    /** True where the copy is of another unit of this model: all but what is a unit's own is taken of it. */
    ofAnother: z.boolean().optional(),
  }),
  /** Goes on with the write or restore that broke off. */
  z.strictObject({ kind: z.literal('resume'), radioId: radioIdSchema }),
  /** Writes people into the memory that the radio has for them alone. */
  z.strictObject({ kind: z.literal('people'), radioId: radioIdSchema, choice: peopleChoiceSchema }),
]);
export type JobRequest = z.infer<typeof jobRequestSchema>;

/** What a job came to, as far as it came. */
export const jobResultSchema = z.object({
  copyId: z.string().optional(),
  /** The copy that was sealed of what was written, after it was read back. */
  writtenCopyId: z.string().optional(),
  /** Bytes that were in already when a write went on. */
  resumedAt: z.int().optional(),
  comparison: imageComparisonSchema.optional(),
  /** People that are in the radio, and those that found no room. */
  people: z.int().optional(),
  peopleOver: z.int().optional(),
  /** Channels written, and those that a stop held back. */
  channels: z.int().optional(),
  heldBack: z.int().optional(),
  radio: z.enum(RADIO_STATES).optional(),
  /** Bytes of the write that were in when it broke. */
  bytesIn: z.int().optional(),
});
export type JobResult = z.infer<typeof jobResultSchema>;

/** A job as it stands. Progress counts bytes over all its passes. */
export const jobSchema = z.object({
  id: z.string(),
  kind: z.enum(JOB_KINDS),
  radioId: radioIdSchema,
  /** What sentences call the radio. */
  called: z.string(),
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

/** How far a job is, as its instance saves it for the others. */
export const jobProgressSchema = jobSchema.pick({ phase: true, bytes: true, of: true, secondsLeft: true });
export type JobProgress = z.infer<typeof jobProgressSchema>;

/** A radio with less is not written, percent: it may go out in the middle. */
export const LOW_BATTERY = 20;
