import { z } from 'zod';
import { radioIdSchema } from '../plan';
import { besideChangeSchema, contentChangeSchema } from '../compare';

/** What a write of a plan would change in a radio. */
export const writePreviewSchema = z.object({
  radioId: radioIdSchema,
  planName: z.string(),
  planRevision: z.int(),
  /** The other radio that the plan is worked on for; null where it is for this one, or for any. */
  workedOnFor: z.string().nullable(),
  /** The other model that the plan is made for; null where it is the radio's own. */
  madeForModel: z.string().nullable(),
  /** Against the newest sealed copy; null where the radio has not been read yet. */
  change: contentChangeSchema.nullable(),
  /** Banks, skip sets, scan edges, quick set-ups and settings that it changes; empty where the radio has not been read. */
  besides: z.array(besideChangeSchema),
  channels: z.int(),
  /** Channels that a stop keeps out, each with the reasons. */
  heldBack: z.array(
    z.object({ id: z.string(), name: z.string(), slot: z.int(), reasons: z.array(z.string()) }),
  ),
  /** What is written all the same, and has a consequence on air: each with the channel, or without where it is of no channel. */
  cautions: z.array(z.object({ slot: z.int().nullable(), name: z.string(), text: z.string() })),
  /** What stands beside the channels and this radio holds otherwise, or not at all, in words. */
  leftOut: z.array(z.object({ n: z.int(), text: z.string(), because: z.string() })),
});
export type WritePreview = z.infer<typeof writePreviewSchema>;
