import { z } from 'zod';
import { fittedChannelSchema } from '../models';
import { planIdSchema, radioIdSchema } from '../plan';
import { copyIdSchema } from './copy';

/** How a live link stands: being begun, following, waiting for a radio whose line is gone, or ended by itself, until somebody takes note of it. */
export const LIVE_STATES = ['beginning', 'live', 'away', 'ended'] as const;

/** A plan and a radio that follow each other. */
export const liveSchema = z.object({
  radioId: radioIdSchema,
  /** What sentences call the radio. */
  called: z.string(),
  modelId: z.string(),
  planId: planIdSchema,
  planName: z.string(),
  /** The revision that the radio has. */
  revision: z.int(),
  state: z.enum(LIVE_STATES),
  /** Why its line is gone, or why it ended, in a sentence. */
  reason: z.string().nullable(),
  /** The place that the radio stands at, by its knob; null where that is none. */
  slot: z.int().nullable(),
  /** What the radio has there. */
  channel: fittedChannelSchema.nullable(),
  /** What is set on the radio. */
  settings: z.record(z.string(), z.unknown()),
  /** How long the last change of the plan took from being kept to being in the radio, ms. */
  tookMs: z.number().nullable(),
  /** Where plan and radio have gone different ways: each keeps its own until it is decided. */
  apart: z.array(
    z.object({
      list: z.int(),
      slot: z.int(),
      /** Where in the radio: `007`. */
      place: z.string(),
      name: z.string(),
      /** What the radio says, and what the plan says. */
      radio: z.string(),
      plan: z.string(),
    }),
  ),
  /** What was done on the radio's keys or went into it, newest first. */
  said: z.array(z.object({ at: z.string(), text: z.string() })),
});
export type Live = z.infer<typeof liveSchema>;

/** As much of it as those are told who look at the plan: how it stands, where the knob is, and how much is to be decided. */
export type LiveTold = Pick<Live, 'radioId' | 'called' | 'state' | 'slot'> & { apart: number };

/** What is asked for: that this radio is to hold this revision of a plan, and to follow it from then on. */
export const liveRequestSchema = z.strictObject({
  radioId: radioIdSchema,
  planId: planIdSchema,
  planRevision: z.int().min(1),
  /** The sealed copy that the person looked at: where the radio holds something else by now, nothing is begun. */
  seenCopyId: copyIdSchema.optional(),
});
export type LiveRequest = z.infer<typeof liveRequestSchema>;

/** Whose way is taken at a place where both went their own. */
export const decisionSchema = z.strictObject({
  list: z.int().min(0).max(8),
  slot: z.int().min(0).max(9999),
  take: z.enum(['radio', 'plan']),
});
export type Decision = z.infer<typeof decisionSchema>;
